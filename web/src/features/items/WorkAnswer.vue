<script setup lang="ts">
import { ref, watch } from 'vue'
import type { AnswerEmits, AnswerProps } from './answer'
import { SAYS } from './words'
import MathText from '@/components/MathText.vue'
import LineEditor from '@/features/chain/LineEditor.vue'

/** To work: lines below each other, the next one in the making. */
const props = defineProps<AnswerProps>()
const emit = defineEmits<AnswerEmits>()
const text = ref('')
watch(
  () => props.item.id,
  () => (text.value = props.draft ?? ''),
  { immediate: true },
)
watch(text, (now) => emit('draft', now))

/** A line as the server has understood it; one that was not sent yet as it was typed. */
const echoOf = (k: number) =>
  props.lines[k] === props.item.working?.lines[k] ? (props.item.working?.echoes[k] ?? null) : null
function commit(line: string): void {
  if (!line.trim()) return
  emit('answer', [...props.lines, line.trim()])
  text.value = ''
}
/** Takes the last line up again, to be changed. */
function takeUp(): void {
  if (!props.lines.length) return
  text.value = props.lines[props.lines.length - 1] ?? ''
  emit('answer', props.lines.slice(0, -1))
}
</script>

<template>
  <div>
    <ol class="chain">
      <li v-for="(line, k) in lines" :key="k" :class="told(k)?.verdict">
        <span class="math"
          ><code v-if="!echoOf(k) || echoOf(k)!.error">{{ line }}</code
          ><MathText v-else :latex="`${echoOf(k)!.left} ${echoOf(k)!.right}`"
        /></span>
        <span v-if="told(k)?.verdict" class="verdict">{{ SAYS[told(k)!.verdict] }}</span>
        <span v-else-if="unsent" class="muted">kept</span>
        <p v-if="told(k)?.words" class="words">{{ told(k)!.words }}</p>
        <p v-if="told(k)?.right" class="words">
          Right would be <code>{{ told(k)!.right }}</code>
        </p>
      </li>
    </ol>
    <slot />
    <template v-if="!closed">
      <LineEditor
        v-model:text="text"
        :decimal="decimal"
        label="Next line"
        hint="the next line"
        @commit="commit"
        @leave="(way) => way === 'up' && !text && takeUp()"
      />
      <p v-if="lines.length">
        <button class="plain-button" @click="takeUp">take the last line up again</button>
      </p>
    </template>
  </div>
</template>

<style scoped>
.chain {
  list-style: none;
  margin: 0 0 12px;
  padding: 0;
  border-left: 2px solid var(--hairline);
}
.chain li {
  padding: 6px 0 6px 14px;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  align-items: center;
}
.math {
  font-size: 18px;
  overflow-x: auto;
  max-width: 100%;
}
.holds .verdict {
  color: var(--holds);
}
.look,
.unread {
  box-shadow: inset 3px 0 var(--breaks);
}
.look .verdict,
.unread .verdict {
  color: var(--breaks);
}
.words {
  flex-basis: 100%;
  margin: 0;
}
</style>

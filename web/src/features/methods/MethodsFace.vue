<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import DifficultyBar from './DifficultyBar.vue'
import WorkedLine from './WorkedLine.vue'
import PlainMath from '@/components/PlainMath.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { useMethods, type Grain, type Solution } from './store'

/**
 * The methods that apply to the problem side by side; ← → between them, ↑ ↓ along the lines, Enter puts one on the
 * paper.
 */
const props = defineProps<{ problem: number; hasLines: boolean }>()
const emit = defineEmits<{ use: [solution: Solution]; board: [method: string] }>()

const methods = useMethods()
const root = ref<HTMLElement | null>(null)
const list = computed(() => methods.found?.methods ?? [])
const shortest = computed(() => Math.min(...list.value.map((each) => each.steps.length)))
const GRAINS: [Grain, string][] = [
  ['every', 'every operation'],
  ['board', 'as at the board'],
  ['brief', 'brief'],
]

watch(
  () => [props.problem, methods.grain],
  () => methods.load(props.problem),
  { immediate: true },
)
watch(
  () => [methods.chosen, methods.at],
  () =>
    nextTick(() =>
      root.value?.querySelector('.chosen .line.here')?.scrollIntoView({ block: 'nearest', inline: 'nearest' }),
    ),
)
onMounted(() => root.value?.focus())

function onKey(event: KeyboardEvent): void {
  if (event.altKey || event.ctrlKey || (event.target as HTMLElement).closest('select')) return
  const { chosen, at } = methods
  if (event.key === 'ArrowRight') methods.choose(chosen + 1)
  else if (event.key === 'ArrowLeft') methods.choose(chosen - 1)
  else if (event.key === 'ArrowDown') methods.choose(chosen, at + 1)
  else if (event.key === 'ArrowUp') methods.choose(chosen, at - 1)
  else if (event.key === 'Enter' && event.target === root.value && list.value[chosen]) emit('use', list.value[chosen])
  else return
  event.preventDefault()
}
</script>

<template>
  <section ref="root" class="methods" tabindex="0" aria-label="Methods side by side" @keydown="onKey">
    <header>
      <p v-if="list.length" class="muted">
        {{ list.length === 1 ? 'One method leads' : `${list.length} methods lead` }} to
        <b
          ><PlainMath
            :text="list[0]!.answer.join(list[0]!.answer.length > 3 ? '; ' : ', ') || 'no solution'"
            class="answer"
        /></b>
      </p>
      <span class="space" />
      <label v-for="[value, word] in GRAINS" :key="value" class="grain" :class="{ on: methods.grain === value }">
        <input v-model="methods.grain" type="radio" name="grain" :value="value" class="visually-hidden" />{{ word }}
      </label>
    </header>
    <TroubleNote v-if="methods.trouble" :request="methods.request" />
    <p v-else-if="methods.found && !list.length" class="none">{{ methods.found.why_none }}</p>
    <div class="columns">
      <article
        v-for="(solution, k) in list"
        :key="solution.method"
        class="column"
        :class="{ chosen: k === methods.chosen }"
        :aria-label="solution.name"
        @click="methods.choose(k, methods.chosen === k ? methods.at : 0)"
      >
        <h2>{{ solution.name }}</h2>
        <p class="muted what">{{ solution.description }}</p>
        <p class="cost">
          <b>{{ solution.steps.length === 1 ? '1 line' : `${solution.steps.length} lines` }}</b><span
            v-if="list.length > 1 && solution.steps.length === shortest"
            class="muted"
          >
            · the fewest</span
          ><br />
          <span class="muted">to find: {{ solution.searches }}</span>
        </p>
        <DifficultyBar :difficulty="solution.difficulty" />
        <p v-if="solution.not_yet.length" class="not-yet">Not yet: {{ solution.not_yet.join(', ') }}</p>
        <ol class="lines" tabindex="0" :aria-label="`Lines by ${solution.name}`">
          <WorkedLine
            v-for="(step, j) in solution.steps"
            :key="j"
            class="line"
            :step="step"
            :here="k === methods.chosen && j === methods.at"
            @click.stop="methods.choose(k, j)"
          />
        </ol>
        <footer>
          <el-button
            size="small"
            :type="k === methods.chosen ? 'primary' : 'default'"
            @click.stop="emit('use', solution)"
          >
            {{ hasLines ? 'Put on the paper in place of its lines' : 'Put on the paper' }}
          </el-button>
          <el-button size="small" @click.stop="emit('board', solution.method)">Show on the board</el-button>
        </footer>
      </article>
    </div>
  </section>
</template>

<style scoped>
.methods {
  outline: none;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin-bottom: 14px;
}
.space {
  flex: 1 1 14ch;
}
.answer {
  white-space: normal;
}
header p {
  min-width: 0;
}
.grain {
  white-space: nowrap;
  padding: 3px 9px;
  border-radius: 6px;
  cursor: pointer;
  font-size: 14px;
}
.grain.on {
  background: var(--quiet);
  font-weight: 700;
}
.grain:focus-within {
  outline: 2px solid var(--settles);
}
.columns {
  display: flex;
  gap: 14px;
  align-items: stretch;
  overflow-x: auto;
  padding-bottom: 12px;
}
.column {
  flex: 1 0 330px;
  max-width: 560px;
  min-width: 0;
  display: flex;
  flex-direction: column;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-top: 4px solid var(--hairline);
  border-radius: 8px;
  padding: 14px 16px;
}
.column.chosen {
  border-top-color: var(--settles);
}
h2 {
  font-size: 18px;
}
.what {
  font-size: 14px;
  min-height: 2.9em;
}
.cost {
  margin: 8px 0;
  font-size: 14px;
}
.not-yet {
  margin-top: 8px;
  color: var(--widens);
  font-size: 14px;
}
.lines {
  list-style: none;
  margin: 12px 0;
  padding: 0;
  flex: 1;
  overflow-x: auto;
  display: grid;
  grid-template-columns: auto 1fr;
  align-content: start;
}
.none {
  padding-top: 12vh;
  text-align: center;
}
footer {
  display: flex;
  gap: 4px;
  flex-wrap: wrap;
}
</style>

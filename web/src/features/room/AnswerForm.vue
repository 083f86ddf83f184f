<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { MyItem, Told } from './store'
import { SAYS } from './words'
import MathText from '@/components/MathText.vue'
import LineEditor from '@/features/chain/LineEditor.vue'

/**
 * An item that is answered, not worked: options, a faulty line, blanks, a way, a claim. The answer is written as lines,
 * as it would be on paper.
 */
const props = defineProps<{
  item: MyItem
  lines: string[]
  told: (k: number) => Told | null
  decimal: 'point' | 'comma'
  closed: boolean
  draft?: string
}>()
const emit = defineEmits<{ answer: [lines: string[]]; draft: [text: string] }>()
const form = computed(() => props.item.form!)
const LETTERS = 'ABCDEFGH'
const TRUE = 'true'
const NOT_TRUE = 'not true'

/** What is chosen or named in the first line. */
const first = ref('')
/** What stands in the fields, by the letter of a claim or the number of a blank. */
const fields = ref<string[]>([])
const right = ref('')
watch(
  () => [props.item.id, props.lines.join('\n')],
  () => {
    const lines = props.draft ? props.draft.split('\n') : props.lines // what was begun and not given stands again
    first.value = lines[0] ?? ''
    right.value = lines[1] ?? ''
    fields.value =
      form.value.form === 'claim'
        ? form.value.letters.map((letter) => lines.find((line) => line.startsWith(`${letter} = `))?.slice(4) ?? '')
        : Array.from({ length: form.value.blanks }, (_, k) => (lines[k] === '?' ? '' : (lines[k] ?? '')))
  },
  { immediate: true },
)
const answer = computed<string[]>(() => {
  switch (form.value.form) {
    case 'fill': {
      const last = fields.value.findLastIndex((each) => each.trim())
      return fields.value.slice(0, last + 1).map((each) => each.trim() || '?')
    }
    case 'mend':
      return first.value ? [first.value, ...(right.value.trim() ? [right.value.trim()] : [])] : []
    case 'claim': {
      if (first.value !== NOT_TRUE) return first.value ? [first.value] : []
      const named = form.value.letters.map((letter, k) => `${letter} = ${fields.value[k]?.trim()}`)
      return [NOT_TRUE, ...named.filter((_, k) => fields.value[k]?.trim())]
    }
    default:
      return first.value ? [first.value] : []
  }
})
const choices = computed<{ value: string; latex?: string; words?: string }[]>(() => {
  const { form: kind, options, lines, ways } = form.value
  if (kind === 'choose') return options.map((latex, k) => ({ value: LETTERS[k]!, latex }))
  if (kind === 'mend') return lines.map((latex, k) => ({ value: `line ${k + 1}`, latex }))
  if (kind === 'way') return ways.map((words) => ({ value: words, words }))
  if (kind === 'claim')
    return [
      { value: TRUE, words: 'true for all numbers' },
      { value: NOT_TRUE, words: 'not true' },
    ]
  return []
})
const isNew = computed(() => answer.value.length > 0 && answer.value.join('\n') !== props.lines.join('\n'))
watch([answer, isNew], () => emit('draft', isNew.value ? answer.value.join('\n') : ''))
function give(): void {
  if (isNew.value) emit('answer', answer.value)
}
/** A letter chooses its option, a digit its line. */
function byKey(event: KeyboardEvent): void {
  if (
    event.ctrlKey ||
    event.metaKey ||
    event.altKey ||
    (event.target as HTMLElement).matches('input:not([type=radio])')
  )
    return
  const place = form.value.form === 'choose' ? LETTERS.indexOf(event.key.toUpperCase()) : '123456789'.indexOf(event.key)
  const wanted = event.key.length === 1 && place >= 0 ? choices.value[place] : undefined
  if (event.key === 'Enter') give()
  else if (wanted) first.value = wanted.value
  else return
  event.preventDefault()
}
const boxes = ref<HTMLInputElement[]>([])
async function next(k: number): Promise<void> {
  if (k + 1 < boxes.value.length) boxes.value[k + 1]?.focus()
  else give()
  await nextTick()
}
/** The place of a field's line in the answer. */
const lineOf = (k: number): number =>
  form.value.form === 'claim' ? props.lines.findIndex((line) => line.startsWith(`${form.value.letters[k]} = `)) : k
</script>

<template>
  <form class="answer" :aria-label="`Answer to ${item.number}`" @submit.prevent="give" @keydown="byKey">
    <ol v-if="form.form === 'fill'" class="given-lines">
      <li v-for="(latex, k) in form.lines" :key="k"><MathText :latex="latex" /></li>
    </ol>
    <p v-if="form.form === 'claim'" class="claim"><MathText :latex="form.lines[0]!" /></p>
    <fieldset v-if="choices.length" :disabled="closed">
      <legend class="visually-hidden">
        {{ form.form === 'mend' ? 'The line that does not follow' : 'Your choice' }}
      </legend>
      <label v-for="(choice, k) in choices" :key="choice.value" class="choice" :class="{ on: first === choice.value }">
        <input v-model="first" type="radio" :name="`answer-${item.id}`" :value="choice.value" />
        <b v-if="form.form === 'choose' || form.form === 'mend'">{{ form.form === 'choose' ? choice.value : k + 1 }}</b>
        <MathText v-if="choice.latex" :latex="choice.latex" /><span v-else>{{ choice.words }}</span>
      </label>
    </fieldset>
    <p v-if="told(0)?.verdict && form.form !== 'fill'" class="verdict" :class="told(0)!.verdict">
      {{ SAYS[told(0)!.verdict] }}<span v-if="told(0)!.words" class="words">{{ told(0)!.words }}</span>
    </p>
    <div v-if="form.form === 'mend' && first && !closed">
      <p class="muted">Right would be:</p>
      <LineEditor v-model:text="right" :decimal="decimal" label="The right line" hint="the right line" @commit="give" />
      <p v-if="told(1)?.verdict" class="verdict" :class="told(1)!.verdict">
        {{ SAYS[told(1)!.verdict] }}<span v-if="told(1)!.words" class="words">{{ told(1)!.words }}</span>
      </p>
    </div>
    <fieldset v-if="fields.length && (form.form === 'fill' || first === NOT_TRUE)" class="fields" :disabled="closed">
      <legend class="muted">{{ form.form === 'fill' ? 'What is missing' : 'Numbers that show it' }}</legend>
      <label v-for="(_, k) in fields" :key="k">
        <b>{{ form.form === 'fill' ? k + 1 : `${form.letters[k]} =` }}</b>
        <input
          ref="boxes"
          v-model="fields[k]"
          inputmode="text"
          autocomplete="off"
          maxlength="40"
          :aria-label="form.form === 'fill' ? `Blank ${k + 1}` : `A number for ${form.letters[k]}`"
          @keydown.enter.prevent.stop="next(k)"
        />
        <span v-if="told(lineOf(k))?.verdict" class="verdict" :class="told(lineOf(k))!.verdict"
          >{{ SAYS[told(lineOf(k))!.verdict]
          }}<span v-if="told(lineOf(k))!.words" class="words">{{ told(lineOf(k))!.words }}</span></span
        >
      </label>
    </fieldset>
    <p v-if="!closed">
      <el-button class="give" native-type="submit" type="primary" :disabled="!isNew">This is my answer</el-button>
    </p>
    <p v-if="lines.length && !told(0)?.verdict && !isNew" class="muted">kept</p>
  </form>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0 0 10px;
  padding: 0;
}
.choice {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 44px;
  padding: 2px 12px;
  border: 1px solid var(--hairline);
  border-radius: 8px;
  margin-bottom: 6px;
  background: var(--sheet);
  font-size: 17px;
  cursor: pointer;
  overflow-x: auto;
}
.choice.on {
  border-color: var(--settles);
  box-shadow: inset 3px 0 var(--settles);
}
.given-lines {
  list-style: none;
  margin: 0 0 10px;
  padding: 0 0 0 14px;
  border-left: 2px solid var(--hairline);
  font-size: 18px;
}
.given-lines li {
  padding: 5px 0;
  overflow-x: auto;
}
.claim {
  margin: 8px 0 12px;
  font-size: 20px;
  overflow-x: auto;
}
.fields label {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  margin-bottom: 6px;
}
.fields b {
  min-width: 32px;
}
.fields input {
  width: 130px;
  min-height: 40px;
  padding: 4px 9px;
  font: 17px var(--mono);
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
  color: var(--ink);
}
.verdict {
  color: var(--holds);
  margin: 4px 0;
}
.verdict.look,
.verdict.unread {
  color: var(--breaks);
}
.words {
  color: var(--ink);
  margin-left: 10px;
}
.give {
  min-height: 40px;
}
</style>

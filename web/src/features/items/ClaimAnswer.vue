<script setup lang="ts">
import { computed, ref } from 'vue'
import AnswerFrame from './AnswerFrame.vue'
import ChoiceList, { type Choice } from './ChoiceList.vue'
import FieldList from './FieldList.vue'
import ToldNote from './ToldNote.vue'
import { useAnswer, type AnswerEmits, type AnswerProps } from './answer'
import { DIGITS } from './words'
import MathText from '@/components/MathText.vue'

/** True or not: the judgement, and for an untrue claim numbers that show it. */
const props = defineProps<AnswerProps>()
const emit = defineEmits<AnswerEmits>()
const TRUE = 'true'
const NOT_TRUE = 'not true'
const CHOICES: Choice[] = [
  { value: TRUE, words: 'true for all numbers' },
  { value: NOT_TRUE, words: 'not true' },
]
const judged = ref('')
const fields = ref<string[]>([])
const letters = computed(() => props.item.form!.letters)
const { isNew, give } = useAnswer(
  props,
  emit,
  (lines) => {
    judged.value = lines[0] ?? ''
    fields.value = letters.value.map((letter) => lines.find((line) => line.startsWith(`${letter} = `))?.slice(4) ?? '')
  },
  () => {
    if (judged.value !== NOT_TRUE) return judged.value ? [judged.value] : []
    const named = letters.value.map((letter, k) => `${letter} = ${fields.value[k]?.trim()}`)
    return [NOT_TRUE, ...named.filter((_, k) => fields.value[k]?.trim())]
  },
)
const names = computed(() => letters.value.map((letter) => ({ shown: `${letter} =`, says: `A number for ${letter}` })))
/** The place of a letter's line in the answer. */
const lineOf = (k: number): number => props.lines.findIndex((line) => line.startsWith(`${letters.value[k]} = `))
</script>

<template>
  <AnswerFrame
    :number="item.number"
    :is-new="isNew"
    :closed="closed"
    :kept="lines.length > 0 && !told(0)?.verdict"
    :keys="DIGITS.slice(0, CHOICES.length)"
    @give="give"
    @choose="judged = CHOICES[$event]!.value"
  >
    <p class="claim"><MathText :latex="item.form!.lines[0]!" /></p>
    <ChoiceList :id="item.id" v-model="judged" :choices="CHOICES" legend="Your choice" :closed="closed" />
    <ToldNote :told="told(0)" />
    <FieldList
      v-if="judged === NOT_TRUE && names.length"
      v-model="fields"
      legend="Numbers that show it"
      :names="names"
      :told="(k) => told(lineOf(k))"
      :closed="closed"
      @give="give"
    />
  </AnswerFrame>
</template>

<style scoped>
.claim {
  margin: 8px 0 12px;
  font-size: 20px;
  overflow-x: auto;
}
</style>

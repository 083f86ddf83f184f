<script setup lang="ts">
import { computed, ref } from 'vue'
import AnswerFrame from './AnswerFrame.vue'
import ChoiceList, { type Choice } from './ChoiceList.vue'
import ToldNote from './ToldNote.vue'
import { useAnswer, type AnswerEmits, type AnswerProps } from './answer'
import { LETTERS } from './words'

/** To choose from: one of the options, by its letter. */
const props = defineProps<AnswerProps>()
const emit = defineEmits<AnswerEmits>()
const letter = ref('')
const { isNew, give } = useAnswer(
  props,
  emit,
  (lines) => (letter.value = lines[0] ?? ''),
  () => (letter.value ? [letter.value] : []),
)
const choices = computed<Choice[]>(() =>
  props.item.form!.options.map((latex, k) => ({ value: LETTERS[k]!, latex, mark: LETTERS[k]! })),
)
</script>

<template>
  <AnswerFrame
    :number="item.number"
    :is-new="isNew"
    :closed="closed"
    :kept="lines.length > 0 && !told(0)?.verdict"
    :keys="LETTERS.slice(0, choices.length)"
    @give="give"
    @choose="letter = LETTERS[$event]!"
  >
    <ChoiceList :id="item.id" v-model="letter" :choices="choices" legend="Your choice" :closed="closed" />
    <ToldNote :told="told(0)" />
  </AnswerFrame>
</template>

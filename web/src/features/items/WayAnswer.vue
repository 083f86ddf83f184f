<script setup lang="ts">
import { computed, ref } from 'vue'
import AnswerFrame from './AnswerFrame.vue'
import ChoiceList, { type Choice } from './ChoiceList.vue'
import ToldNote from './ToldNote.vue'
import { useAnswer, type AnswerEmits, type AnswerProps } from './answer'
import { DIGITS } from './words'

/** Which way: one of the names, by its digit. */
const props = defineProps<AnswerProps>()
const emit = defineEmits<AnswerEmits>()
const way = ref('')
const { isNew, give } = useAnswer(
  props,
  emit,
  (lines) => (way.value = lines[0] ?? ''),
  () => (way.value ? [way.value] : []),
)
const choices = computed<Choice[]>(() => props.item.form!.ways.map((words) => ({ value: words, words })))
</script>

<template>
  <AnswerFrame
    :number="item.number"
    :is-new="isNew"
    :closed="closed"
    :kept="lines.length > 0 && !told(0)?.verdict"
    :keys="DIGITS.slice(0, choices.length)"
    @give="give"
    @choose="way = choices[$event]!.value"
  >
    <ChoiceList :id="item.id" v-model="way" :choices="choices" legend="Your choice" :closed="closed" />
    <ToldNote :told="told(0)" />
  </AnswerFrame>
</template>

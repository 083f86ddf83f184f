<script setup lang="ts">
import { computed, ref } from 'vue'
import AnswerFrame from './AnswerFrame.vue'
import ChoiceList, { type Choice } from './ChoiceList.vue'
import ToldNote from './ToldNote.vue'
import { useAnswer, type AnswerEmits, type AnswerProps } from './answer'
import { DIGITS } from './words'
import LineEditor from '@/features/chain/LineEditor.vue'

/** To mend: the line that does not follow, and the right one. */
const props = defineProps<AnswerProps>()
const emit = defineEmits<AnswerEmits>()
const place = ref('')
const right = ref('')
const { isNew, give } = useAnswer(
  props,
  emit,
  (lines) => {
    place.value = lines[0] ?? ''
    right.value = lines[1] ?? ''
  },
  () => (place.value ? [place.value, right.value.trim()].filter(Boolean) : []),
)
const choices = computed<Choice[]>(() =>
  props.item.form!.lines.map((latex, k) => ({ value: `line ${k + 1}`, latex, mark: `${k + 1}` })),
)
</script>

<template>
  <AnswerFrame
    :number="item.number"
    :is-new="isNew"
    :closed="closed"
    :kept="lines.length > 0 && !told(0)?.verdict"
    :keys="DIGITS.slice(0, choices.length)"
    @give="give"
    @choose="place = choices[$event]!.value"
  >
    <ChoiceList
      :id="item.id"
      v-model="place"
      :choices="choices"
      legend="The line that does not follow"
      :closed="closed"
    />
    <ToldNote :told="told(0)" />
    <div v-if="place && !closed">
      <p class="muted">Right would be:</p>
      <LineEditor v-model:text="right" :decimal="decimal" label="The right line" hint="the right line" @commit="give" />
      <ToldNote :told="told(1)" />
    </div>
  </AnswerFrame>
</template>

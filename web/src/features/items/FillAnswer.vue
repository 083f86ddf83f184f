<script setup lang="ts">
import { computed, ref } from 'vue'
import AnswerFrame from './AnswerFrame.vue'
import FieldList from './FieldList.vue'
import { useAnswer, type AnswerEmits, type AnswerProps } from './answer'
import { LEFT_OPEN } from './words'
import MathText from '@/components/MathText.vue'

/** To fill in: a number for each blank of a worked solution. */
const props = defineProps<AnswerProps>()
const emit = defineEmits<AnswerEmits>()
const fields = ref<string[]>([])
const { isNew, give } = useAnswer(
  props,
  emit,
  (lines) => {
    fields.value = Array.from({ length: props.item.form!.blanks }, (_, k) =>
      lines[k] === LEFT_OPEN ? '' : (lines[k] ?? ''),
    )
  },
  () => {
    const last = fields.value.findLastIndex((each) => each.trim())
    return fields.value.slice(0, last + 1).map((each) => each.trim() || LEFT_OPEN)
  },
)
const names = computed(() => fields.value.map((_, k) => ({ shown: `${k + 1}`, says: `Blank ${k + 1}` })))
</script>

<template>
  <AnswerFrame
    :number="item.number"
    :is-new="isNew"
    :closed="closed"
    :kept="lines.length > 0 && !told(0)?.verdict"
    @give="give"
  >
    <ol class="given-lines">
      <li v-for="(latex, k) in item.form!.lines" :key="k"><MathText :latex="latex" /></li>
    </ol>
    <FieldList v-model="fields" legend="What is missing" :names="names" :told="told" :closed="closed" @give="give" />
  </AnswerFrame>
</template>

<style scoped>
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
</style>

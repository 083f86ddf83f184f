<script setup lang="ts">
import GridPad from './GridPad.vue'
import WorkAnswer from './WorkAnswer.vue'
import type { AnswerEmits, AnswerProps } from './answer'

/** Features of a function: stated line by line, or placed on a grid. */
const props = defineProps<AnswerProps>()
const emit = defineEmits<AnswerEmits>()
</script>

<template>
  <WorkAnswer v-bind="props" @answer="emit('answer', $event)" @draft="emit('draft', $event)">
    <GridPad
      v-if="!closed"
      :reach="item.form!.reach"
      :lines="lines"
      :letter="item.form!.letters[0] ?? 'x'"
      :verdict="(k) => told(k)?.verdict ?? ''"
      :closed="false"
      @place="emit('answer', [...lines, $event])"
    />
  </WorkAnswer>
</template>

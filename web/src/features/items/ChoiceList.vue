<script setup lang="ts">
import MathText from '@/components/MathText.vue'

/** What is chosen from: mathematics or words, each with a mark where it has one. */
export interface Choice {
  value: string
  latex?: string
  words?: string
  mark?: string
}
defineProps<{ choices: Choice[]; id: number; legend: string; closed: boolean }>()
const chosen = defineModel<string>({ required: true })
</script>

<template>
  <fieldset :disabled="closed">
    <legend class="visually-hidden">{{ legend }}</legend>
    <label v-for="choice in choices" :key="choice.value" class="choice" :class="{ on: chosen === choice.value }">
      <input v-model="chosen" type="radio" :name="`answer-${id}`" :value="choice.value" />
      <b v-if="choice.mark">{{ choice.mark }}</b>
      <MathText v-if="choice.latex" :latex="choice.latex" /><span v-else>{{ choice.words }}</span>
    </label>
  </fieldset>
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
</style>

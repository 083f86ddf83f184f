<script setup lang="ts">
import { nextTick, ref } from 'vue'
import type { Told } from './answer'
import ToldNote from './ToldNote.vue'

/** Short fields, one after the other; Enter goes on, and behind the last one gives the answer. */
defineProps<{
  legend: string
  names: { shown: string; says: string }[]
  told: (k: number) => Told | null
  closed: boolean
}>()
const fields = defineModel<string[]>({ required: true })
const emit = defineEmits<{ give: [] }>()
const boxes = ref<HTMLInputElement[]>([])

async function next(k: number): Promise<void> {
  if (k + 1 < boxes.value.length) boxes.value[k + 1]?.focus()
  else emit('give')
  await nextTick()
}
</script>

<template>
  <fieldset class="fields" :disabled="closed">
    <legend class="muted">{{ legend }}</legend>
    <label v-for="(name, k) in names" :key="k">
      <b>{{ name.shown }}</b>
      <input
        ref="boxes"
        v-model="fields[k]"
        inputmode="text"
        autocomplete="off"
        maxlength="40"
        :aria-label="name.says"
        @keydown.enter.prevent.stop="next(k)"
      />
      <ToldNote :told="told(k)" />
    </label>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0 0 10px;
  padding: 0;
}
label {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  margin-bottom: 6px;
}
b {
  min-width: 32px;
}
input {
  width: 130px;
  min-height: 40px;
  padding: 4px 9px;
  font: 17px var(--mono);
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
  color: var(--ink);
}
</style>

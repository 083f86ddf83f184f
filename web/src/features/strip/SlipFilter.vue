<script setup lang="ts">
import { computed } from 'vue'
import type { ProblemRow } from '@/api/client'

/** Which slips were named on this sheet; choosing one leaves only the problems that hold it. */
const props = defineProps<{ problems: ProblemRow[]; chosen: string }>()
const emit = defineEmits<{ choose: [slip: string] }>()

const named = computed(() => {
  const found = new Map<string, { name: string; count: number }>()
  for (const problem of props.problems) {
    for (const slip of problem.slips) {
      const known = found.get(slip.id) ?? { name: slip.name, count: 0 }
      found.set(slip.id, { ...known, count: known.count + 1 })
    }
  }
  return [...found].sort((a, b) => b[1].count - a[1].count)
})
</script>

<template>
  <label v-if="named.length" class="filter">
    <span class="visually-hidden">Show the problems with one slip</span>
    <select :value="chosen" @change="emit('choose', ($event.target as HTMLSelectElement).value)">
      <option value="">slips: every problem</option>
      <option v-for="[id, slip] in named" :key="id" :value="id">{{ slip.name }} · {{ slip.count }}</option>
    </select>
  </label>
</template>

<style scoped>
.filter {
  display: block;
  padding: 10px 14px 0;
}
select {
  width: 100%;
  padding: 4px 6px;
  font-size: 13px;
  border: 1px solid var(--hairline);
  border-radius: 6px;
  background: var(--paper);
}
</style>

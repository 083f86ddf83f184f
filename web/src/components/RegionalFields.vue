<script setup lang="ts">
import type { Schema } from '@/api/client'
import { DATES, DECIMALS, WEEKS } from '@/lib/regional'

/** How numbers and days are written: for an account, or for a class that differs from it. */
defineProps<{ chosen: Schema['Regional']; above?: string }>()
const emit = defineEmits<{ choose: [change: Schema['Regional']] }>()

const KINDS = [
  ['decimal', 'Decimals', DECIMALS],
  ['dates', 'Days', DATES],
  ['week', 'A week begins on', WEEKS],
] as const

function choose(kind: (typeof KINDS)[number][0], value: string): void {
  emit('choose', { [kind]: value || null }) // that alone: the answer to the choice before may still be awaited
}
</script>

<template>
  <p class="regional">
    <label v-for="[kind, label, positions] in KINDS" :key="kind"
      >{{ label }}
      <select
        :value="chosen[kind] ?? (above ? '' : positions[0][0])"
        :aria-label="label"
        @change="choose(kind, ($event.target as HTMLSelectElement).value)"
      >
        <option v-if="above" value="">{{ above }}</option>
        <option v-for="[value, words] in positions" :key="value" :value="value">{{ words }}</option>
      </select></label
    >
  </p>
</template>

<style scoped>
.regional {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
}
select {
  padding: 6px 9px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
</style>

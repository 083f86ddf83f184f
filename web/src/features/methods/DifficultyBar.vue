<script setup lang="ts">
import { computed } from 'vue'
import type { Schema } from '@/api/client'
import { useRegional } from '@/lib/regional'

/** The difficulty from 1 to 10 as a bar of its parts, each named. */
const props = defineProps<{ difficulty: Schema['Difficulty'] }>()

const { tenths } = useRegional()
const NAMES: Record<string, string> = {
  steps: 'steps',
  search: 'search',
  numbers: 'numbers',
  noticing: 'to notice',
  length: 'length',
}
const parts = computed(() => {
  const entries = Object.entries(props.difficulty.parts).filter(([, value]) => value > 0)
  const total = entries.reduce((sum, [, value]) => sum + value, 0) || 1
  return entries.map(([name, value]) => ({
    name: NAMES[name] ?? name,
    value,
    share: (value / total) * (props.difficulty.rating ?? 0) * 10,
  }))
})
const spoken = computed(() => parts.value.map((part) => `${part.name} ${tenths(part.value)}`).join(', '))
</script>

<template>
  <div class="difficulty" :title="spoken">
    <span class="rating">difficulty {{ tenths(difficulty.rating) }}</span>
    <div class="bar" role="img" :aria-label="`difficulty ${tenths(difficulty.rating)} of 10: ${spoken}`">
      <span v-for="(part, k) in parts" :key="part.name" :class="`part p${k}`" :style="{ width: `${part.share}%` }" />
    </div>
    <p class="muted names">
      {{ parts.map((part) => `${part.name} ${tenths(part.value)}`).join(' · ') }}
      <template v-if="difficulty.noticed.length"><br />to notice: {{ difficulty.noticed.join(', ') }}</template>
    </p>
  </div>
</template>

<style scoped>
.difficulty {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 10px;
  align-items: center;
  font-size: 13px;
}
.bar {
  display: flex;
  height: 9px;
  background: var(--quiet);
  border-radius: 5px;
  overflow: hidden;
}
.part {
  border-right: 1px solid var(--sheet);
  background: #8f98b8;
}
.p1 {
  background: #5f6b95;
}
.p2 {
  background: #b4a57f;
}
.p3 {
  background: #7f9f96;
}
.p4 {
  background: #c9c2b2;
}
.names {
  grid-column: 1 / -1;
  font-size: 12.5px;
}
</style>

<script setup lang="ts">
import { computed } from 'vue'

/** A square code, drawn from its rows of 0 and 1, with the margin that cameras need. */
const props = defineProps<{ rows: string[]; label: string }>()
const MARGIN = 4
const size = computed(() => props.rows.length + 2 * MARGIN)
const path = computed(() =>
  props.rows
    .flatMap((row, y) => [...row].map((each, x) => (each === '1' ? `M${x + MARGIN} ${y + MARGIN}h1v1h-1z` : '')))
    .join(''),
)
</script>

<template>
  <svg :viewBox="`0 0 ${size} ${size}`" role="img" :aria-label="label" shape-rendering="crispEdges">
    <rect :width="size" :height="size" fill="#fff" />
    <path :d="path" fill="#000" />
  </svg>
</template>

<style scoped>
svg {
  width: 200px;
  max-width: 100%;
  display: block;
}
</style>

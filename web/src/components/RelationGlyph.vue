<script setup lang="ts">
import LinkShape from './LinkShape.vue'
import type { Relation } from '@/lib/relations'

/** One link by itself, with a bead at either end; stands beside the relation's name. */
defineProps<{ relation: Relation | null; size?: number }>()
</script>

<template>
  <svg :width="(size ?? 36) * 0.6" :height="size ?? 36" viewBox="-10 -4 20 38" aria-hidden="true">
    <g transform="translate(0 5)"><LinkShape :relation="relation" :length="20" /></g>
    <circle cx="0" cy="0" r="4" class="bead" />
    <circle cx="0" cy="30" r="4" class="bead" />
  </svg>
</template>

<style scoped>
.bead {
  fill: var(--ink);
}
</style>

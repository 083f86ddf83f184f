<script setup lang="ts">
import { computed } from 'vue'
import { linkStrokes } from '@/lib/glyph'
import type { Relation } from '@/lib/relations'

/** A link drawn inside an SVG, from (0, 0) down to (0, length). */
const props = defineProps<{ relation: Relation | null; length: number; fresh?: boolean }>()
const strokes = computed(() => linkStrokes(props.relation, props.length))
</script>

<template>
  <g class="link" :class="[relation ?? 'unread', { fresh }]">
    <path
      v-for="stroke in strokes"
      :key="stroke.d"
      :d="stroke.d"
      :class="{ filled: stroke.filled, dotted: stroke.dotted }"
      :pathLength="stroke.dotted ? undefined : 1"
    />
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--relation);
  stroke-width: 3;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.filled {
  fill: var(--relation);
  stroke: none;
}
.dotted {
  stroke-dasharray: 0.1 6;
}
.fresh path:not(.filled, .dotted) {
  stroke-dasharray: 1;
  animation: draw 150ms ease-out;
}
@keyframes draw {
  from {
    stroke-dashoffset: 1;
  }
  to {
    stroke-dashoffset: 0;
  }
}
</style>

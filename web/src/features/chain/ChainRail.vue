<script setup lang="ts">
import { computed } from 'vue'
import LinkShape from '@/components/LinkShape.vue'
import type { Relation } from '@/lib/relations'

export interface Bead {
  y: number
  /** The link that leads to this bead; null on the given and while a line can't be read. */
  relation: Relation | null
  first?: boolean
  ring?: 'open' | 'closed' | null
  side?: boolean
  writing?: boolean
}

/** The rail of a chain: beads at measured heights, joined by links; side lines hang beside it. */
const props = defineProps<{ beads: Bead[]; height: number; freshFrom: number }>()

const X = 14
const RADIUS = 4
const GAP = 7

const links = computed(() => {
  const main = props.beads.filter((bead) => !bead.side)
  return main.slice(1).map((bead, k) => ({ from: main[k]!.y + GAP, length: bead.y - main[k]!.y - 2 * GAP, bead }))
})
</script>

<template>
  <svg class="rail" :width="28" :height="height" aria-hidden="true">
    <template v-for="(link, k) in links" :key="`${k}-${link.bead.relation}`">
      <g v-if="link.length > 2 && !link.bead.writing" :transform="`translate(${X} ${link.from})`">
        <LinkShape :relation="link.bead.relation" :length="link.length" :fresh="k >= freshFrom" />
      </g>
    </template>
    <template v-for="(bead, k) in beads" :key="k">
      <g v-if="bead.side" :class="bead.relation ?? 'unread'">
        <line :x1="X + 7" :x2="X + 12" :y1="bead.y" :y2="bead.y" class="stub" />
        <path v-if="bead.relation === 'breaks'" :d="`M${X + 6} ${bead.y - 4}l8 8m0 -8l-8 8`" class="stub" />
      </g>
      <circle v-else-if="bead.writing" :cx="X" :cy="bead.y" :r="RADIUS" class="bead writing" />
      <template v-else>
        <circle :cx="X" :cy="bead.y" :r="RADIUS" class="bead" />
        <circle v-if="bead.ring" :cx="X" :cy="bead.y" :r="8" class="ring" :class="bead.ring" />
      </template>
    </template>
  </svg>
</template>

<style scoped>
.rail {
  position: absolute;
  left: 0;
  top: 0;
  pointer-events: none;
}
.bead {
  fill: var(--ink);
}
.bead.writing {
  fill: none;
  stroke: var(--muted);
  stroke-width: 1.5;
  stroke-dasharray: 2 2;
}
.ring {
  fill: none;
  stroke: var(--widens);
  stroke-width: 1.75;
}
.ring.open {
  stroke-dasharray: 34 16;
  stroke-dashoffset: -8;
}
.ring.closed {
  stroke: var(--holds);
}
.stub {
  stroke: var(--relation);
  stroke-width: 2.5;
  stroke-linecap: round;
  fill: none;
}
</style>

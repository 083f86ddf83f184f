<script setup lang="ts">
import { computed } from 'vue'
import LinkShape from './LinkShape.vue'
import { isSideLine, type Relation } from '@/lib/relations'

/** A whole working at a third of its size: the same beads and links, lying down. */
const props = defineProps<{
  beads: { kind: string; relation: string | null }[]
  verdict: string
  finished: boolean
}>()

function relationOf(bead: { relation: string | null }): Relation | null {
  return bead.relation as Relation | null
}

const STEP = 34
const links = computed(() => props.beads.filter((bead) => !isSideLine(bead.kind)))
const words = computed(() => {
  const worst = ['breaks', 'narrows', 'unclear'].find((name) => links.value.some((link) => link.relation === name))
  const state =
    props.verdict === 'correct' ? (props.finished ? 'right and finished' : 'right, not finished') : props.verdict
  return `${links.value.length} lines${worst ? `, one ${worst}` : ''}; answer: ${state === 'none' ? 'none yet' : state}`
})
</script>

<template>
  <svg
    class="tiny"
    :width="Math.min(168, Math.max(14, (links.length * STEP + 24) * 0.46))"
    height="16"
    :viewBox="`-12 -18 ${links.length * STEP + 24} 36`"
    role="img"
    :aria-label="words"
  >
    <title>{{ words }}</title>
    <g v-for="(link, k) in links" :key="k" :transform="`translate(${k * STEP + 6} 0) rotate(-90)`">
      <LinkShape class="wide" :relation="relationOf(link)" :length="STEP - 12" />
    </g>
    <circle v-for="k in links.length" :key="k" :cx="(k - 1) * STEP" cy="0" r="6" class="bead" />
    <circle
      :cx="links.length * STEP"
      cy="0"
      r="7"
      class="bead"
      :class="{ done: verdict === 'correct' && finished, open: verdict === 'none' || verdict === 'unfinished' }"
    />
  </svg>
</template>

<style scoped>
.bead {
  fill: var(--ink);
}
.bead.open {
  fill: var(--sheet);
  stroke: var(--muted);
  stroke-width: 4;
}
.bead.done {
  fill: var(--holds);
}
.wide :deep(path) {
  stroke-width: 4;
}
</style>

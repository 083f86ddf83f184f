<script setup lang="ts">
import { computed, ref } from 'vue'
import { KINDS, STEPS, UNIT, lineOf, placedBy, slantThrough, told, type Kind, type Place, type Placed } from './grid'

/**
 * A grid on which points, holes, intercepts and asymptotes are placed: arrows move the cross, a letter places what it
 * stands for, each as a line of the
 * table of features, verified like any other. A finger sets the cross and presses the names below.
 */
const props = defineProps<{
  reach: number
  lines: string[]
  letter: string
  verdict: (k: number) => string
  closed: boolean
}>()
const emit = defineEmits<{ place: [line: string] }>()
const x = ref(0)
const y = ref(0)
const step = ref(1)
const SIZE = 360
const most = computed(() => Math.ceil(props.reach))
const scale = computed(() => SIZE / (2 * most.value))
const sx = (value: number): number => SIZE / 2 + value * scale.value
const sy = (value: number): number => SIZE / 2 - value * scale.value
const marks = computed(() => Array.from({ length: 2 * most.value + 1 }, (_, k) => k - most.value))
const placed = computed(() =>
  props.lines
    .map((line, k) => ({ found: placedBy(line, props.letter), wrong: props.verdict(k) === 'look', line }))
    .filter((each): each is { found: Placed; wrong: boolean; line: string } => each.found !== null),
)
const bounded = (value: number): number => Math.min(Math.max(value, -most.value * UNIT), most.value * UNIT)
const here = computed(() => `(${told(x.value)}, ${told(y.value)})`)

/** To the next place of the grid in a direction. */
const moved = (from: number, by: number): number => {
  const width = UNIT / step.value
  return bounded(by > 0 ? (Math.floor(from / width) + 1) * width : (Math.ceil(from / width) - 1) * width)
}
const ARROWS: Record<string, () => void> = {
  ArrowLeft: () => (x.value = moved(x.value, -1)),
  ArrowRight: () => (x.value = moved(x.value, 1)),
  ArrowUp: () => (y.value = moved(y.value, 1)),
  ArrowDown: () => (y.value = moved(y.value, -1)),
}
/** The first of the two places through which a slant line goes. */
const anchor = ref<Place | null>(null)
function place(kind: Kind): void {
  if (props.closed) return
  const spot = { x: x.value, y: y.value }
  if (kind !== 'oblique') return emit('place', lineOf(kind, spot.x, spot.y, props.letter))
  const line = anchor.value && slantThrough(anchor.value, spot, props.letter)
  anchor.value = line ? null : spot
  if (line) emit('place', line)
}
function byKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const kind = KINDS.find((each) => each.key === event.key.toLowerCase())
  if (ARROWS[event.key]) ARROWS[event.key]!()
  else if (STEPS.includes(Number(event.key))) step.value = Number(event.key)
  else if (kind) place(kind.kind)
  else return
  event.preventDefault()
}
function byFinger(event: MouseEvent): void {
  const box = (event.currentTarget as SVGElement).getBoundingClientRect()
  const width = UNIT / step.value
  const at = (share: number): number => bounded(Math.round((share * 2 * most.value * UNIT) / width) * width)
  x.value = at((event.clientX - box.left) / box.width - 0.5)
  y.value = at(0.5 - (event.clientY - box.top) / box.height)
}
</script>

<template>
  <div class="pad">
    <svg
      :viewBox="`0 0 ${SIZE} ${SIZE}`"
      tabindex="0"
      role="application"
      :aria-label="`Grid from −${most} to ${most}. Arrows move the cross, 1 to 6 how finely; ${KINDS.map((each) => `${each.key} ${each.words}`).join(', ')}.`"
      @keydown="byKey"
      @click="byFinger"
    >
      <path
        v-for="k in marks"
        :key="`g${k}`"
        :d="`M${sx(k)} 0V${SIZE}M0 ${sy(k)}H${SIZE}`"
        class="line"
        :class="{ axis: k === 0 }"
      />
      <template
        v-for="k in marks.filter((each) => each && Math.abs(each) < most && each % (most > 12 ? 5 : 2) === 0)"
        :key="`t${k}`"
      >
        <text :x="sx(k)" :y="sy(0) + 11" text-anchor="middle">{{ k }}</text>
        <text :x="sx(0) - 4" :y="sy(k) + 3" text-anchor="end">{{ k }}</text>
      </template>
      <g v-for="({ found, wrong }, k) in placed" :key="k" class="placed" :class="{ wrong }">
        <path v-if="found.kind === 'vertical'" :d="`M${sx(found.x)} 0V${SIZE}`" class="dashed" />
        <path v-else-if="found.kind === 'horizontal'" :d="`M0 ${sy(found.y)}H${SIZE}`" class="dashed" />
        <path
          v-else-if="found.kind === 'oblique'"
          :d="`M0 ${sy(found.y - found.slope! * most)}L${SIZE} ${sy(found.y + found.slope! * most)}`"
          class="dashed"
        />
        <circle v-else :cx="sx(found.x)" :cy="sy(found.y)" r="4.5" :class="found.kind === 'hole' ? 'open' : 'full'" />
        <path
          v-if="wrong && !['vertical', 'horizontal', 'oblique'].includes(found.kind)"
          :d="`M${sx(found.x) - 8} ${sy(found.y) + 8}l16 -16`"
          class="struck"
        />
      </g>
      <circle v-if="anchor" :cx="sx(anchor.x / UNIT)" :cy="sy(anchor.y / UNIT)" r="3" class="anchor" />
      <path :d="`M${sx(x / UNIT) - 9} ${sy(y / UNIT)}h18M${sx(x / UNIT)} ${sy(y / UNIT) - 9}v18`" class="cross" />
    </svg>
    <p class="where" aria-live="polite">
      {{ here
      }}<span v-if="anchor"> a slant line from ({{ told(anchor.x) }}, {{ told(anchor.y) }}): put its second place</span
      >{{ ' '
      }}<label class="muted"
        >in steps of
        <select v-model.number="step" aria-label="How finely the cross moves">
          <option v-for="k in STEPS" :key="k" :value="k">{{ k === 1 ? '1' : `1/${k}` }}</option>
        </select></label
      >
    </p>
    <p v-if="!closed" class="kinds">
      <button v-for="each in KINDS" :key="each.kind" type="button" class="plain-button" @click="place(each.kind)">
        <kbd>{{ each.key }}</kbd> {{ each.words.replace('x-', `${letter}-`) }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.pad {
  max-width: 420px;
}
svg {
  width: 100%;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  touch-action: manipulation;
  cursor: crosshair;
}
svg:focus-visible {
  outline: 2px solid var(--settles);
}
.line {
  stroke: var(--hairline);
  stroke-width: 0.6;
  fill: none;
}
.axis {
  stroke: var(--ink);
  stroke-width: 1.1;
}
text {
  font-size: 9px;
  fill: var(--muted);
}
.placed {
  stroke: var(--settles);
  fill: var(--settles);
}
.placed.wrong {
  stroke: var(--breaks);
  fill: var(--breaks);
}
.dashed {
  stroke-dasharray: 6 4;
  stroke-width: 1.8;
  fill: none;
}
.open {
  fill: var(--sheet);
  stroke-width: 1.8;
}
.struck {
  stroke-width: 1.6;
}
.cross {
  stroke: var(--ink);
  stroke-width: 1.8;
  fill: none;
}
.anchor {
  fill: var(--ink);
}
.where {
  flex-wrap: wrap;
  display: flex;
  gap: 16px;
  align-items: center;
  font-family: var(--mono);
  margin: 4px 0;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
kbd {
  font-family: var(--mono);
  color: var(--muted);
}
</style>

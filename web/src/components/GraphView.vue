<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Graph } from '@/api/client'

/**
 * The graph of a rational function from its data: curve pieces, dashed asymptotes, open holes, intercepts. The same
 * drawing serves the screen, where it zooms and is traced, and print.
 */
const props = withDefaults(defineProps<{ graph: Graph; width?: number; height?: number }>(), {
  width: 620,
  height: 520,
})

const zoom = ref(1)
const centre = ref<[number, number]>([0, 0])
const traced = ref<{ x: number; y: number } | null>(null)
const svg = ref<SVGSVGElement | null>(null)

/** The whole graph again, in the middle of the window. */
function showWhole() {
  zoom.value = 1
  centre.value = [0, 0]
}

watch(
  () => props.graph,
  () => {
    showWhole()
    traced.value = null
  },
)

const window_ = computed(() => {
  const [left, right, bottom, top] = props.graph.window as [number, number, number, number]
  const [cx, cy] = centre.value
  const across = (right - left) / 2 / zoom.value
  const up = (top - bottom) / 2 / zoom.value
  return { left: cx - across, right: cx + across, bottom: cy - up, top: cy + up }
})
const px = (x: number): number => ((x - window_.value.left) / (window_.value.right - window_.value.left)) * props.width
const py = (y: number): number => ((window_.value.top - y) / (window_.value.top - window_.value.bottom)) * props.height

/** 1, 2 or 5 times a power of ten: about ten lines fit. */
function stepOf(size: number): number {
  const raw = size / 10
  const power = 10 ** Math.floor(Math.log10(raw))
  return [1, 2, 5, 10].map((k) => k * power).find((step) => step >= raw) ?? raw
}
function ticks(low: number, high: number): number[] {
  const step = stepOf(high - low)
  const found: number[] = []
  for (let k = Math.ceil(low / step); k * step <= high; k++) found.push(Number((k * step).toFixed(8)))
  return found
}
const across = computed(() => ticks(window_.value.left, window_.value.right))
const up = computed(() => ticks(window_.value.bottom, window_.value.top))
/** The calls of the API lose that a place is a pair. */
type Place = [x: number, y: number]
const places = (points: number[][]): Place[] => points as Place[]

function path(points: number[][]): string {
  return places(points)
    .map(([x, y], k) => `${k ? 'L' : 'M'}${px(x).toFixed(2)} ${py(y).toFixed(2)}`)
    .join('')
}

/** The height of the curve over x, between the two nearest points of its piece; null between pieces. */
function heightAt(x: number): number | null {
  for (const piece of props.graph.pieces.map(places)) {
    const k = piece.findIndex(([at]) => at >= x)
    if (k <= 0) continue
    const [x0, y0] = piece[k - 1]!
    const [x1, y1] = piece[k]!
    return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0 || 1)
  }
  return null
}
function trace(x: number): void {
  const y = heightAt(x)
  traced.value = y === null ? null : { x, y }
}
function onMove(event: PointerEvent): void {
  const box = svg.value!.getBoundingClientRect()
  const share = (event.clientX - box.left) / box.width
  trace(window_.value.left + share * (window_.value.right - window_.value.left))
}
function onKey(event: KeyboardEvent): void {
  const step = (window_.value.right - window_.value.left) / 60
  if (event.key === '+' || event.key === '=') zoom.value = Math.min(zoom.value * 1.5, 40)
  else if (event.key === '-') zoom.value = Math.max(zoom.value / 1.5, 0.2)
  else if (event.key === '0') zoom.value = 1
  else if (event.key === 'ArrowRight') trace((traced.value?.x ?? 0) + step)
  else if (event.key === 'ArrowLeft') trace((traced.value?.x ?? 0) - step)
  else return
  if (event.key === '0') centre.value = [0, 0]
  event.preventDefault()
}
function onWheel(event: WheelEvent): void {
  zoom.value = Math.min(40, Math.max(0.2, zoom.value * (event.deltaY < 0 ? 1.15 : 1 / 1.15)))
}
/** The plain notation with a true minus, as on the axes. */
function withMinus(text: string): string {
  return text.replaceAll('-', '−')
}

const shown = (value: number): string => String(Number(value.toFixed(2))).replace('-', '−')
</script>

<template>
  <div class="graph">
    <svg
      ref="svg"
      :viewBox="`0 0 ${width} ${height}`"
      tabindex="0"
      role="img"
      class="drawing"
      aria-label="Graph; + and − zoom, left and right trace the curve"
      @pointermove="onMove"
      @pointerleave="traced = null"
      @keydown="onKey"
      @wheel.prevent="onWheel"
    >
      <g class="grid">
        <path v-for="x in across" :key="`x${x}`" :d="`M${px(x)} 0V${height}`" />
        <path v-for="y in up" :key="`y${y}`" :d="`M0 ${py(y)}H${width}`" />
      </g>
      <g class="axes">
        <path :d="`M${px(0)} 0V${height}M0 ${py(0)}H${width}`" />
        <text
          v-for="x in across.filter((t) => t !== 0 && px(t) > 14 && px(t) < width - 14)"
          :key="`tx${x}`"
          :x="px(x)"
          :y="Math.min(Math.max(py(0) + 15, 14), height - 4)"
        >
          {{ shown(x) }}
        </text>
        <text
          v-for="y in up.filter((t) => t !== 0 && py(t) > 10 && py(t) < height - 10)"
          :key="`ty${y}`"
          class="up"
          :x="Math.min(Math.max(px(0) - 6, 26), width - 6)"
          :y="py(y) + 4"
        >
          {{ shown(y) }}
        </text>
      </g>
      <g class="asymptotes">
        <path v-for="line in graph.vertical" :key="line.text" :d="`M${px(line.x)} 0V${height}`" />
        <path v-if="graph.horizontal" :d="`M0 ${py(graph.horizontal.y)}H${width}`" />
        <path v-if="graph.oblique" :d="path(graph.oblique.points)" />
      </g>
      <path v-for="(piece, k) in graph.pieces" :key="k" class="curve" :d="path(piece)" />
      <g v-for="point in graph.intercepts" :key="point.text" class="intercept">
        <circle :cx="px(point.x)" :cy="py(point.y)" r="4.5" />
        <title>{{ withMinus(point.text) }}</title>
      </g>
      <g v-for="point in graph.check_points" :key="`c${point.text}`" class="check">
        <path :d="`M${px(point.x) - 5} ${py(point.y) - 5}l10 10m0 -10l-10 10`" />
        <text :x="px(point.x) + 8" :y="py(point.y) - 7">{{ withMinus(point.text) }}</text>
      </g>
      <g v-for="point in graph.holes" :key="point.text" class="hole">
        <circle :cx="px(point.x)" :cy="py(point.y)" r="5.5" />
        <text :x="px(point.x) + 9" :y="py(point.y) + 16">{{ withMinus(point.text) }}</text>
      </g>
      <g v-if="traced" class="trace">
        <path :d="`M${px(traced.x)} ${py(0)}V${py(traced.y)}H${px(0)}`" />
        <circle :cx="px(traced.x)" :cy="py(traced.y)" r="4" />
      </g>
    </svg>
    <div class="tools">
      <button class="plain-button" aria-label="Zoom in" @click="zoom = Math.min(zoom * 1.5, 40)">+</button>
      <button class="plain-button" aria-label="Zoom out" @click="zoom = Math.max(zoom / 1.5, 0.2)">−</button>
      <button class="plain-button" @click="showWhole">whole</button>
      <span class="muted" role="status">{{
        traced ? `x ≈ ${shown(traced.x)}, y ≈ ${shown(traced.y)}` : 'move over the curve to trace it'
      }}</span>
    </div>
  </div>
</template>

<style scoped>
.drawing {
  width: 100%;
  height: auto;
  display: block;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 8px;
  touch-action: pan-y;
}
.grid path {
  stroke: var(--hairline);
  stroke-width: 1;
}
.axes path {
  stroke: var(--muted);
  stroke-width: 1.6;
  fill: none;
}
text {
  font-size: 12px;
  text-anchor: middle;
  fill: var(--muted);
}
.axes text {
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
}
.axes .up {
  text-anchor: end;
}
.asymptotes path {
  fill: none;
  stroke: var(--narrows);
  stroke-width: 1.8;
  stroke-dasharray: 7 6;
}
.curve {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
  stroke-linejoin: round;
}
.intercept circle {
  fill: var(--ink);
}
.check path {
  stroke: var(--holds);
  stroke-width: 2;
}
.check text,
.hole text {
  text-anchor: start;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
}
.hole circle {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2.2;
}
.trace path {
  fill: none;
  stroke: var(--settles);
  stroke-dasharray: 3 3;
}
.trace circle {
  fill: var(--settles);
}
.tools {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 14px;
}
@media print {
  .tools {
    display: none;
  }
}
</style>

<script setup lang="ts">
import { useRegional } from '@/lib/regional'
import { computed, ref, watch } from 'vue'
import type { ProblemRow } from '@/api/client'
import MathText from '@/components/MathText.vue'
import TinyChain from '@/components/TinyChain.vue'
import SlipFilter from './SlipFilter.vue'

/** The problems of the sheet: number, the given set small, its tiny chain. Reordered by drag or Alt+arrows. */
const props = defineProps<{ problems: ProblemRow[]; current: number | null }>()
const emit = defineEmits<{ open: [place: number]; add: []; order: [ids: number[]]; copy: []; remove: [] }>()
const { tenths } = useRegional()

const dragged = ref<number | null>(null)
const list = ref<HTMLElement | null>(null)
const slip = ref('')
/** The rows shown, each with its place on the sheet; a filter that fits none any more is let go. */
const shown = computed(() => {
  const all = props.problems.map((problem, place) => ({ problem, place }))
  const held = all.filter(({ problem }) => problem.slips.some((each) => each.id === slip.value))
  return held.length ? held : all
})

watch(
  () => [props.current, props.problems.length],
  () => list.value?.querySelector('.current')?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
)

function moved(from: number, to: number): void {
  if (to < 0 || to >= props.problems.length || from === to) return
  const ids = props.problems.map((problem) => problem.id)
  ids.splice(to, 0, ...ids.splice(from, 1))
  emit('order', ids)
}

function onKey(event: KeyboardEvent, at: number): void {
  if (event.altKey && event.key === 'ArrowUp') moved(at, at - 1)
  else if (event.altKey && event.key === 'ArrowDown') moved(at, at + 1)
  else if (event.key === 'ArrowUp') focusRow(event, -1)
  else if (event.key === 'ArrowDown') focusRow(event, 1)
  else return
  event.preventDefault()
}

function focusRow(event: KeyboardEvent, by: -1 | 1): void {
  const item = (event.currentTarget as HTMLElement).parentElement
  const next = by < 0 ? item?.previousElementSibling : item?.nextElementSibling
  next?.querySelector('button')?.focus()
}
</script>

<template>
  <nav class="strip" aria-label="Problems of this sheet">
    <SlipFilter :problems="problems" :chosen="slip" @choose="slip = $event" />
    <ol ref="list">
      <li
        v-for="{ problem, place: k } in shown"
        :key="problem.id"
        draggable="true"
        @dragstart="dragged = k"
        @dragover.prevent
        @drop.prevent="dragged !== null && moved(dragged, k)"
      >
        <button
          class="item"
          :class="{ current: problem.id === current }"
          :aria-current="problem.id === current"
          @click="emit('open', k + 1)"
          @keydown="onKey($event, k)"
        >
          <span class="visually-hidden">Problem {{ k + 1 }}: {{ problem.task }} {{ problem.given }}</span>
          <span class="number" aria-hidden="true">{{ k + 1 }}</span>
          <span class="given" aria-hidden="true"><MathText :latex="problem.given_latex" :display="false" /></span>
          <span v-if="problem.difficulty" class="rating" :title="`difficulty ${tenths(problem.difficulty)} of 10`">{{
            tenths(problem.difficulty)
          }}</span>
          <TinyChain class="tiny" :beads="problem.beads" :verdict="problem.verdict" :finished="problem.finished" />
        </button>
      </li>
    </ol>
    <div class="tools">
      <button class="plain-button" title="New problem (Alt+N)" @click="emit('add')">New problem</button>
      <button class="plain-button" :disabled="current === null" title="Duplicate (Alt+D)" @click="emit('copy')">
        Duplicate
      </button>
      <button class="plain-button" :disabled="current === null" title="Delete this problem" @click="emit('remove')">
        Delete
      </button>
    </div>
  </nav>
</template>

<style scoped>
.strip {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 12px 10px;
  overflow-y: auto;
  flex: 1;
}
.item {
  display: grid;
  grid-template-columns: 24px 1fr;
  row-gap: 5px;
  width: 100%;
  text-align: left;
  padding: 9px 8px;
  border: 1px solid transparent;
  border-radius: 8px;
  background: none;
  cursor: pointer;
}
.item:hover {
  background: var(--quiet);
}
.item.current {
  background: var(--sheet);
  border-color: var(--hairline);
}
.number {
  color: var(--muted);
  font-size: 13px;
  padding-top: 2px;
}
.given {
  font-size: 13.5px;
  overflow: hidden;
  mask-image: linear-gradient(to right, #000 85%, transparent);
}
.rating {
  grid-column: 1;
  grid-row: 2;
  color: var(--muted);
  font-size: 11.5px;
}
.tiny {
  grid-column: 2;
  grid-row: 2;
  max-width: 100%;
}
.tools {
  border-top: 1px solid var(--hairline);
  padding: 8px 8px;
  display: flex;
  flex-wrap: wrap;
}
.tools button {
  font-size: 13.5px;
}
@media (max-width: 900px) {
  ol {
    position: relative; /* what is hidden in it for screen readers must not widen the page */
    display: flex;
    overflow: auto hidden;
    padding: 6px 10px;
    gap: 4px;
  }
  li {
    flex: none;
    max-width: 200px;
  }
  .rating {
    display: none;
  }
  .tools {
    border-top: 0;
    padding-top: 0;
  }
}
.tools button:disabled {
  color: var(--muted);
  cursor: default;
}
</style>

<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useBoardRoom } from './room'
import { FORESEEN, useBoard } from './store'
import MathText from '@/components/MathText.vue'
import SideWork from '@/components/SideWork.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import AskTally from '@/features/room/AskTally.vue'
import { useAsks } from '@/features/room/asks'
import { keep, kept } from '@/lib/keep'

/**
 * A working for the class, one line at a time. Everything it needs is there when it opens, so it goes on without a
 * connection; only a detour needs one, to be judged.
 */
const props = defineProps<{ problem: number; given: string; instruction: string; start: string }>()
const emit = defineEmits<{ close: [] }>()

const board = useBoard()
const dark = ref(kept<boolean>('board.dark') ?? true)
const pausing = ref(kept<boolean>('board.pause') ?? false)
const reasons = ref(kept<boolean>('board.reasons') ?? true)
const root = ref<HTMLElement | null>(null)
const field = ref<HTMLInputElement | null>(null)
const detouring = ref(false)
const typed = ref('')
const room = useBoardRoom()
const asks = useAsks()
/** Whether the verdicts on the room's answers are to be seen. */
const judged = ref(false)

const lines = computed(() => board.lines)
/** An equation stands in the columns of its chain; an expression stands above it. */
const aligned = computed(() => !!board.given?.left)
/** How many lines stand; between two of them, with pauses, the class tries first. */
const shown = ref(0)
const asking = ref(false)
const current = computed(() => lines.value[shown.value - 1] ?? null)
const coming = computed(() => lines.value[shown.value] ?? null)
const before = computed(() => lines.value.slice(0, shown.value))

watch(
  () => [props.problem, props.start],
  () => void open(),
  { immediate: true },
)
watch(
  () => board.source,
  () => {
    shown.value = 0
    asking.value = false
    board.back()
  },
)
watch([dark, pausing, reasons], () => {
  keep('board.dark', dark.value)
  keep('board.pause', pausing.value)
  keep('board.reasons', reasons.value)
})
watch(
  () => [shown.value, asking.value, board.detour.length],
  () => nextTick(() => root.value?.querySelector('.newest')?.scrollIntoView({ block: 'center', behavior: 'smooth' })),
)

async function open(): Promise<void> {
  void room.load(props.problem)
  await board.load(props.problem, props.start)
  if (props.start !== FORESEEN || !board.foreseen) return
  await nextTick()
  // the right way up to where the foreseen one parts from it, then the wrong lines beside it
  let chain = 0
  shown.value = 0
  while (chain < board.foreseen.at - 1 && shown.value < lines.value.length)
    if (!lines.value[shown.value++]!.side) chain++
  await board.foresee(before.value.map((each) => each.text))
}

function forward(): void {
  if (board.detour.length) return void (board.more() || board.back())
  if (shown.value >= lines.value.length) return
  if (pausing.value && !asking.value) {
    asking.value = true
    return
  }
  asking.value = false
  void asks.stop()
  shown.value++
}

/** Has the class try: its answers come from the room. */
async function askRoom(): Promise<void> {
  if (!room.item) return
  asking.value = shown.value < lines.value.length
  judged.value = false
  await asks.start(room.set, {
    kind: 'try',
    item: room.item,
    lines: before.value.filter((each) => !each.side).map((each) => each.text.split('|')[0]!.trim()),
  })
}

/** What somebody in the room has written, beside the way. */
async function showWritten(written: string[]): Promise<void> {
  room.listed = false
  shown.value = 0
  await board.show(written)
}

function backward(): void {
  if (board.detour.length) board.back()
  else if (asking.value) asking.value = false
  else if (shown.value > 0) shown.value--
}

async function wander(): Promise<void> {
  detouring.value = true
  await nextTick()
  field.value?.focus()
}

async function take(): Promise<void> {
  const line = typed.value.trim()
  if (!line) return
  typed.value = ''
  await board.wander(
    before.value.map((each) => each.text),
    line,
  )
}

function leave(): void {
  detouring.value = false
  typed.value = ''
  board.back()
  root.value?.focus()
}

function onKey(event: KeyboardEvent): void {
  if (event.target === field.value) {
    if (event.key === 'Escape') leave()
    else if (event.key === 'Enter') void take()
    else return
    event.preventDefault()
    return
  }
  if (event.altKey || event.ctrlKey || event.metaKey || (event.target as HTMLElement).tagName === 'SELECT') return
  const key = event.key.toLowerCase()
  if (['arrowright', 'arrowdown', 'pagedown', ' ', 'enter', 'n'].includes(key)) forward()
  else if (['arrowleft', 'arrowup', 'pageup', 'backspace'].includes(key)) backward()
  else if (key === 'home') shown.value = 0
  else if (key === 'end') shown.value = lines.value.length
  else if (key === 'd') dark.value = !dark.value
  else if (key === 'p') pausing.value = !pausing.value
  else if (key === 'r') reasons.value = !reasons.value
  else if (key === 'w') void wander()
  else if (key === 'c' && room.item) void room.list(props.problem)
  else if (key === 'a' && room.item) void askRoom()
  else if (key === 'v' && asks.ask) judged.value = !judged.value
  else if (key === 'b' || key === '.') root.value?.classList.toggle('blank')
  else if (key === 'escape') {
    if (detouring.value) leave()
    else emit('close')
  } else return
  event.preventDefault()
}

function onTap(event: MouseEvent): void {
  if ((event.target as HTMLElement).closest('button, input, select, label, .bar')) return
  if (event.clientX < window.innerWidth / 3) backward()
  else forward()
}

/** The move made on both sides of a line (−1: the given), once the next line stands or is being tried. */
function below(at: number): string {
  const next = lines.value[at + 1]
  if (board.moves !== 'below' || !next || board.detour.length) return ''
  return at + 1 < shown.value || (asking.value && at + 1 === shown.value) ? next.move : ''
}

onMounted(() => {
  window.addEventListener('keydown', onKey)
  root.value?.focus()
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', onKey)
  board.back()
  void asks.stop()
})
</script>

<template>
  <div
    ref="root"
    class="board before-class"
    :class="{ 'dark-board': dark }"
    tabindex="-1"
    role="region"
    aria-label="Board"
    @click="onTap"
  >
    <div class="given">
      <p class="task">{{ instruction }}</p>
      <MathText v-if="board.givenLatex && !aligned" :latex="board.givenLatex" />
    </div>
    <ol class="lines" aria-live="polite">
      <li v-if="aligned" class="line start">
        <span class="left"><MathText :latex="board.given!.left" /></span>
        <span class="right"><MathText :latex="` ${board.given!.right}`" /></span>
        <template v-if="below(-1)">
          <span class="done left"><MathText :latex="below(-1)" :display="false" /></span>
          <span class="done right"><MathText :latex="below(-1)" :display="false" /></span>
        </template>
      </li>
      <li
        v-for="(line, k) in before"
        :key="k"
        class="line"
        :class="{
          newest: k === shown - 1 && !asking && !board.detour.length,
          past: k < shown - 1,
          previous: k === shown - 2,
          side: line.side,
        }"
      >
        <span class="left"
          ><MathText v-if="line.left" :latex="k === shown - 2 && current?.beforeLeft ? current.beforeLeft : line.left"
        /></span>
        <span class="right">
          <span v-if="line.prefix" class="prefix">{{ line.prefix }}</span>
          <MathText :latex="` ${k === shown - 2 && current?.beforeRight ? current.beforeRight : line.right}`" />
        </span>
        <span v-if="line.move && board.moves === 'margin'" class="margin"
          ><MathText :latex="line.move" :display="false"
        /></span>
        <template v-if="below(k)">
          <span class="done left"><MathText :latex="below(k)" :display="false" /></span>
          <span class="done right"><MathText :latex="below(k)" :display="false" /></span>
        </template>
      </li>
      <li v-if="asking && coming" class="try newest">
        <p>Pause and try</p>
        <p v-if="reasons && coming.name" class="hint">{{ coming.name }}?</p>
        <AskTally v-if="asks.ask" :ask="asks.ask" :seen="judged" />
      </li>
      <li v-for="(line, k) in board.detour" :key="`d${k}`" class="line detour newest">
        <span class="left"><MathText v-if="line.left" :latex="line.left" /></span>
        <span class="right"
          ><MathText v-if="line.right" :latex="` ${line.right}`" /><span v-else>{{ line.text }}</span></span
        >
        <p class="verdict" :class="line.relation ?? 'unread'">
          <b>{{ line.word }}</b> {{ line.evidence }}
        </p>
      </li>
    </ol>
    <div
      v-if="reasons && current && !asking && !board.detour.length && (current.reason || current.sideWork.length)"
      class="because"
    >
      <p v-if="current.name">
        <b>{{ current.name }}</b>
      </p>
      <p v-if="current.reason">{{ current.reason }}</p>
      <div class="figures"><SideWork v-for="(work, k) in current.sideWork" :key="k" :work="work" /></div>
    </div>
    <TroubleNote class="trouble" :request="board.request" />
    <section v-if="room.listed" class="written" aria-label="What the room has written">
      <p v-if="!room.written.length" class="hint">The room has written nothing for this one yet.</p>
      <button v-for="(each, k) in room.written" :key="k" class="plain-button" @click="showWritten(each.lines)">
        <b>{{ each.count }}×</b>{{ ' ' }}<code>{{ each.lines[(each.broken || each.lines.length) - 1] }}</code
        >{{ ' ' }}<small v-if="each.broken">breaks at line {{ each.broken }}</small>
      </button>
    </section>
    <form v-if="detouring" class="detour-field" @submit.prevent="take">
      <label
        >What if one writes <input ref="field" v-model="typed" autocomplete="off" spellcheck="false" maxlength="600"
      /></label>
      <button type="submit" class="plain-button">See</button>
      <button type="button" class="plain-button" @click="leave">Back to the way</button>
    </form>
    <nav class="bar">
      <button class="plain-button" aria-label="Back" :disabled="!shown && !asking" @click="backward">◀</button>
      <span aria-live="off">{{ shown }} / {{ lines.length }}</span>
      <button class="plain-button" aria-label="Forward" :disabled="shown >= lines.length" @click="forward">▶</button>
      <label>
        <span class="visually-hidden">Which working</span>
        <select v-model="board.source">
          <option v-for="each in board.sources" :key="each.id" :value="each.id">{{ each.name }}</option>
        </select>
      </label>
      <button class="plain-button" :aria-pressed="pausing" @click="pausing = !pausing">
        pause and try <kbd>P</kbd>
      </button>
      <button class="plain-button" :aria-pressed="reasons" @click="reasons = !reasons">reasons <kbd>R</kbd></button>
      <button class="plain-button" @click="wander">a wrong path <kbd>W</kbd></button>
      <template v-if="room.item">
        <button class="plain-button" :aria-pressed="room.listed" @click="room.list(problem)">
          from the room <kbd>C</kbd>
        </button>
        <button class="plain-button" @click="askRoom">ask the room <kbd>A</kbd></button>
        <button v-if="asks.ask" class="plain-button" :aria-pressed="judged" @click="judged = !judged">
          verdicts <kbd>V</kbd>
        </button>
      </template>
      <button class="plain-button" @click="dark = !dark">{{ dark ? 'light' : 'dark' }} <kbd>D</kbd></button>
      <button class="plain-button" @click="emit('close')">leave <kbd>Esc</kbd></button>
    </nav>
  </div>
</template>

<style scoped>
.board.blank > * {
  visibility: hidden;
}
.written {
  display: grid;
  gap: 6px;
  max-width: 900px;
  margin: 2vh auto;
  font-size: 0.75em;
}
.written button {
  text-align: left;
}
.given .task {
  margin-bottom: 10px;
}
.given {
  text-align: center;
  font-size: 1.35em;
  margin-bottom: 3vh;
}
.task {
  color: var(--muted);
  font-size: 0.6em;
}
.lines {
  list-style: none;
  margin: 0 auto;
  padding: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.15fr);
  max-width: 1500px;
}
.line,
.try {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: subgrid;
  padding: 0.28em 0;
  align-items: center;
  position: relative;
}
.line.newest {
  font-size: 1.22em;
}
.past {
  opacity: 0.82;
}
.left {
  grid-column: 1;
  text-align: right;
}
.right {
  grid-column: 2;
  padding-left: 0.3em;
}
.line:not(:has(.left > *)) .right {
  grid-column: 1 / -1;
  grid-row: 1;
  justify-self: center;
  padding: 0;
}
.past:not(.previous) :deep(.mark-focus) {
  background: none;
}
.prefix {
  color: var(--muted);
  font-size: 0.6em;
  margin-right: 0.6em;
}
.side {
  font-size: 0.85em;
}
.done {
  color: var(--settles);
  font-size: 0.62em;
  order: 2;
}
.done.right {
  padding-left: 1.6em;
}
.start {
  font-size: 1.2em;
}
.margin {
  position: absolute;
  right: 2vw;
  color: var(--settles);
  border-left: 2px solid var(--hairline);
  padding-left: 0.4em;
  font-size: 0.75em;
}
.try {
  display: block;
  text-align: center;
  color: var(--widens);
  font-size: 1.3em;
  padding: 0.8em;
}
.hint {
  color: var(--muted);
  font-size: 0.6em;
}
.detour {
  border-left: 4px dashed var(--breaks);
  background: color-mix(in srgb, var(--breaks) 8%, transparent);
}
.verdict {
  grid-column: 1 / -1;
  text-align: center;
  font-size: 0.6em;
  color: var(--relation);
}
.because {
  max-width: 900px;
  margin: 3vh auto 0;
  padding: 14px 20px;
  border-top: 1px solid var(--hairline);
  font-size: 0.68em;
  text-align: center;
}
.figures {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 14px;
  text-align: left;
}
.trouble {
  text-align: center;
  color: var(--breaks);
  font-size: 0.7em;
}
.detour-field {
  position: fixed;
  inset: auto 0 54px;
  display: flex;
  justify-content: center;
  gap: 10px;
  padding: 10px;
  background: var(--sheet);
  font-size: 18px;
}
.detour-field input {
  margin-left: 8px;
  font: 20px/1.4 var(--mono);
  width: 34vw;
  padding: 4px 8px;
  color: inherit;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 6px;
}
.bar select {
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 6px;
  padding: 3px 6px;
}
</style>

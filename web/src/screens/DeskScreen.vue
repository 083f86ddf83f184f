<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import TroubleNote from '@/components/TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'
import AnticipateFace from '@/features/anticipate/AnticipateFace.vue'
import BoardFace from '@/features/board/BoardFace.vue'
import { FORESEEN, useBoard } from '@/features/board/store'
import ChainPaper from '@/features/chain/ChainPaper.vue'
import { useChain } from '@/features/chain/store'
import DeskDialogs from '@/features/desk/DeskDialogs.vue'
import DeskHeader from '@/features/desk/DeskHeader.vue'
import DeskNotes from '@/features/desk/DeskNotes.vue'
import { facesOf, isWide } from '@/features/desk/faces'
import type { Opened } from '@/features/desk/opened'
import GraphFace from '@/features/graph/GraphFace.vue'
import MethodsFace from '@/features/methods/MethodsFace.vue'
import { useNextStep } from '@/features/next/store'
import { useSheets } from '@/features/sheets/store'
import ProblemStrip from '@/features/strip/ProblemStrip.vue'
import { actionOf, HELP, SHEET, type SheetAction } from '@/lib/shortcuts'
import { instruction, unknownOf } from '@/lib/tasks'

/** The desk: the sheet's problems on the left, the paper in the middle, what is to be said on the right. */
const props = defineProps<{ sheetId: number; place: number; face: string }>()

const sheets = useSheets()
const chain = useChain()
const next = useNextStep()
const board = useBoard()
const router = useRouter()
const request = useRequest('The server does not answer. What you typed is kept here.')
const opened = ref<Opened | null>(null)
const boardStart = ref('')
const at = ref(-1)

const problems = computed(() => sheets.sheet?.problems ?? [])
const current = computed(() => problems.value[props.place - 1] ?? null)
const faces = computed(() => facesOf(current.value && (chain.problem?.task ?? '')))
const wide = computed(() => isWide(props.face) && faces.value.some(({ name }) => name === props.face))

function go(place: number): void {
  if (place >= 1 && place <= problems.value.length) void router.push(address(place, props.face))
}

function address(place: number, face: string): string {
  return `/sheets/${props.sheetId}/${place}${face === 'work' ? '' : `/${face}`}`
}

async function show(face: string): Promise<void> {
  if (!faces.value.some(({ name }) => name === face)) return
  await chain.flush()
  board.conventions = sheets.sheet?.conventions ?? {}
  if (face !== 'board') boardStart.value = ''
  void router.push(address(props.place, face))
}

function onBoard(method: string): void {
  boardStart.value = method
  void show('board')
}

function onWrongPath(lines: string[], at: number): void {
  board.foreseen = { lines, at }
  onBoard(FORESEEN)
}

function use(lines: string[]): void {
  if (chain.lines.length) opened.value = { kind: 'replace', lines }
  else putOnPaper(lines)
}

function putOnPaper(lines: string[]): void {
  opened.value = null
  chain.fill(lines)
  void show('work')
}

function tellMore(): Promise<boolean> {
  return request.run(async () => {
    if (!current.value) return
    const line = await next.more(current.value.id, chain.lines)
    if (line !== null) chain.insert(chain.lines.length, line)
  })
}

function copy(): Promise<boolean> {
  return request.run(async () => {
    if (!current.value) return
    await chain.flush()
    await sheets.copyProblem(current.value.id)
    go(props.place + 1)
  })
}

function remove(): Promise<boolean> {
  opened.value = null
  return request.run(async () => {
    if (!current.value) return
    await sheets.removeProblem(current.value.id)
    if (props.place > problems.value.length) go(problems.value.length)
  })
}

/**
 * Where F6 goes in turn; a line of the chain has a part called right as well, so the notes are named by their place.
 */
const REGIONS = [
  { inside: '.strip', focus: '.strip .current, .strip button' },
  { inside: '.middle', focus: '.middle input' },
  { inside: '.desk > .right', focus: '.desk > .right' },
]
function nextRegion(): void {
  const here = REGIONS.findIndex(({ inside }) => document.activeElement?.closest(inside))
  const next = REGIONS[(here + 1) % REGIONS.length]!
  document.querySelector<HTMLElement>(next.focus)?.focus()
}

const DOES: Record<SheetAction, () => void> = {
  'problem-before': () => go(props.place - 1),
  'problem-after': () => go(props.place + 1),
  new: () => (opened.value = { kind: 'new' }),
  change: () => chain.problem && (opened.value = { kind: 'change' }),
  copy: () => void copy(),
  conventions: () => (opened.value = { kind: 'conventions' }),
  taught: () => (opened.value = { kind: 'taught' }),
  'next-region': nextRegion,
  help: () => (opened.value = { kind: 'keys' }),
}

function onKey(event: KeyboardEvent): void {
  if (opened.value) return
  const action = actionOf(SHEET, event)
  // the board has keys of its own, and what a line or a field has taken is done with
  if (action !== 'help' && (event.defaultPrevented || (props.face === 'board' && !event.altKey))) return
  const help = actionOf(HELP, event)
  if (action !== null) DOES[action]()
  else if (help === 'next-step' && props.face === 'work') void tellMore()
  else if (help !== null && faces.value.some(({ name }) => name === help)) void show(help)
  else if (event.key === '?' && !(event.target instanceof HTMLInputElement)) DOES.help()
  else return
  event.preventDefault()
}

function beforeUnload(event: BeforeUnloadEvent): void {
  if (chain.state === 'saving') event.preventDefault()
}

onMounted(() => {
  window.addEventListener('keydown', onKey)
  window.addEventListener('beforeunload', beforeUnload)
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', onKey)
  window.removeEventListener('beforeunload', beforeUnload)
  void chain.flush()
})

const loading = useRequest('The server does not answer. What you typed is kept here.')
watch(
  () => props.sheetId,
  (id) => request.run(() => sheets.open(id)),
  { immediate: true },
)
watch(
  () => current.value?.id,
  (id) => {
    next.clear()
    board.foreseen = null
    if (id) void loading.run(() => chain.open(id))
    else chain.problem = null
  },
  { immediate: true },
)
</script>

<template>
  <div class="desk">
    <DeskHeader
      class="bar"
      :place="place"
      :faces="faces"
      :face="face"
      @show="show"
      @conventions="DOES.conventions()"
      @taught="DOES.taught()"
      @keys="DOES.help()"
    />
    <ProblemStrip
      class="left"
      :problems="problems"
      :current="current?.id ?? null"
      @open="go"
      @add="DOES.new()"
      @copy="copy"
      @remove="opened = { kind: 'remove' }"
      @order="(ids) => request.run(() => sheets.reorder(ids))"
    />
    <main class="middle" :class="{ wide }" :aria-busy="current !== null && chain.problem?.id !== current.id">
      <TroubleNote class="banner" :request="request" />
      <TroubleNote class="banner" :request="loading" />
      <div v-if="chain.state === 'conflict'" class="banner" role="alert">
        <p>
          This working was changed in another window. Yours has {{ chain.lines.length }} lines, the other
          {{ chain.theirs?.lines.length }}.
        </p>
        <el-button size="small" @click="chain.resolve('theirs')">Take the other</el-button>
        <el-button size="small" type="primary" @click="chain.resolve('mine')">Keep mine</el-button>
      </div>
      <p v-if="chain.state === 'refused'" class="banner" role="alert">{{ chain.trouble }}</p>
      <template v-if="current">
        <MethodsFace
          v-if="face === 'methods'"
          :problem="current.id"
          :has-lines="chain.lines.length > 0"
          @use="(solution) => use(solution.steps.map((step) => step.text))"
          @board="onBoard"
        />
        <AnticipateFace
          v-else-if="face === 'anticipate'"
          :problem="current.id"
          :given="current.given"
          @board="onWrongPath"
          @use="use"
        />
        <GraphFace
          v-else-if="face === 'graph' && wide"
          :problem="current.id"
          :given="current.given"
          :letter="unknownOf(chain.problem)"
        />
        <ChainPaper v-else-if="face !== 'board'" @help="DOES.help()" @at="at = $event" @edit-given="DOES.change()" />
      </template>
      <div v-else-if="sheets.sheet" class="empty">
        <p>This sheet is empty.</p>
        <el-button type="primary" @click="DOES.new()">New problem</el-button>
        <p class="muted small">or <kbd>Alt N</kbd></p>
      </div>
    </main>
    <DeskNotes v-if="current && !wide" class="right" :face="face" :at="at" @more="tellMore" />
    <div v-else-if="!current" class="right" />

    <section>
      <!-- so that the heads of dialogs are not taken for that of the page -->
      <DeskDialogs
        :opened="opened"
        :place="place"
        :face="face"
        @close="opened = null"
        @go="go"
        @fill="putOnPaper"
        @remove="remove"
      />
    </section>
    <BoardFace
      v-if="current && face === 'board'"
      :problem="current.id"
      :given="current.given"
      :start="boardStart"
      :instruction="instruction(chain.problem?.task ?? 'solve', chain.problem?.variable ?? '')"
      @close="show('work')"
    />
  </div>
</template>

<style scoped>
.desk {
  height: 100vh;
  display: grid;
  grid-template: minmax(48px, auto) minmax(0, 1fr) / 230px minmax(0, 1fr) 290px;
}
.bar {
  grid-column: 1 / -1;
}
.small {
  font-size: 13px;
}
.left {
  border-right: 1px solid var(--hairline);
}
.middle {
  overflow: auto;
  padding: 22px 24px 60px;
}
.wide {
  grid-column: 2 / -1;
}
.right {
  border-left: 1px solid var(--hairline);
  overflow: auto;
}
.right:focus {
  outline: none;
}
.banner {
  max-width: 820px;
  margin: 0 auto 14px;
  padding: 10px 14px;
  border: 1px solid var(--breaks);
  border-radius: 8px;
  background: var(--sheet);
}
.banner p {
  margin-bottom: 8px;
}
.empty {
  display: grid;
  justify-items: center;
  gap: 10px;
  padding-top: 18vh;
}
@media (max-width: 900px) {
  .desk {
    height: auto;
    min-height: 100vh;
    grid-template: auto auto auto auto / minmax(0, 1fr);
    align-content: start;
  }
  .wide {
    grid-column: 1;
  }
  .left,
  .right {
    border: 0;
    border-bottom: 1px solid var(--hairline);
  }
  .middle {
    padding: 12px;
  }
}
</style>

<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import ChainPaper from '@/features/chain/ChainPaper.vue'
import { useChain } from '@/features/chain/store'
import NotesPanel from '@/features/evidence/NotesPanel.vue'
import AnticipateFace from '@/features/anticipate/AnticipateFace.vue'
import BoardFace from '@/features/board/BoardFace.vue'
import { FORESEEN, useBoard } from '@/features/board/store'
import GraphFace from '@/features/graph/GraphFace.vue'
import KeyPanel from '@/features/keys/KeyPanel.vue'
import MethodsFace from '@/features/methods/MethodsFace.vue'
import StepNotes from '@/features/methods/StepNotes.vue'
import { useMethods } from '@/features/methods/store'
import NextStepCard from '@/features/next/NextStepCard.vue'
import { useNextStep } from '@/features/next/store'
import { useSession } from '@/features/session/store'
import ConventionsDrawer from '@/features/sheets/ConventionsDrawer.vue'
import { useSheets } from '@/features/sheets/store'
import TaughtDrawer from '@/features/sheets/TaughtDrawer.vue'
import ProblemDialog from '@/features/strip/ProblemDialog.vue'
import ProblemStrip from '@/features/strip/ProblemStrip.vue'
import { inForce, type Conventions } from '@/lib/conventions'
import { actionOf, HELP, SHEET, type SheetAction } from '@/lib/shortcuts'
import { instruction, unknownOf, type Numbers, type Task } from '@/lib/tasks'

/** The desk: the sheet's problems on the left, the paper in the middle, what is to be said on the right. */
const props = defineProps<{ sheetId: number; place: number; face: string }>()

const sheets = useSheets()
const chain = useChain()
const session = useSession()
const methods = useMethods()
const next = useNextStep()
const board = useBoard()
const router = useRouter()
const keysOpen = ref(false)
const dialog = ref<'new' | 'change' | null>(null)
const removing = ref(false)
const settling = ref(false)
const teaching = ref(false)
const boardStart = ref('')
const pending = ref<string[] | null>(null)
const at = ref(-1)
const trouble = ref('')

const problems = computed(() => sheets.sheet?.problems ?? [])
const current = computed(() => problems.value[props.place - 1] ?? null)
const unknown = computed(() => unknownOf(chain.problem))
const link = computed(() => (at.value >= 0 ? chain.linkAt(at.value) : null))
const start = computed(() => {
  const problem = chain.problem
  if (dialog.value === 'change' && problem) {
    const { given, variable, method } = problem
    return { task: problem.task as Task, given, variable, numbers: problem.numbers as Numbers, method }
  }
  return { task: (problem?.task ?? 'solve') as Task, given: '', variable: '', numbers: (problem?.numbers ?? 'real') as Numbers, method: '' }
})
const SAVE_WORDS = {
  saved: 'saved',
  saving: 'saving…',
  offline: 'No connection: kept in this browser, will be sent',
  conflict: 'Changed in another window',
  refused: 'Not saved',
} as const

async function attempt(work: () => Promise<unknown>): Promise<void> {
  trouble.value = ''
  try {
    await work()
  } catch (found) {
    trouble.value = found instanceof TypeError ? 'The server does not answer. What you typed is kept here.' : (found as Error).message
  }
}

function go(place: number): void {
  if (place >= 1 && place <= problems.value.length) void router.push(address(place, props.face))
}

function address(place: number, face: string): string {
  return `/sheets/${props.sheetId}/${place}${face === 'work' ? '' : `/${face}`}`
}

const isFunction = computed(() => chain.problem?.task === 'analyze')
const wide = computed(() => props.face === 'anticipate' || (props.face === 'graph' && isFunction.value))
const FACES = computed<[string, string, string][]>(() => [
  ['work', 'Work', 'W'],
  ['anticipate', 'Anticipate', 'A'],
  ['methods', 'Methods', 'M'],
  ['board', 'Board', 'B'],
  ...(isFunction.value ? ([['graph', 'Graph', 'G']] as [string, string, string][]) : []),
])
async function show(face: string): Promise<void> {
  if (!current.value || (face === 'graph' && !isFunction.value)) return
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
  boardStart.value = FORESEEN
  void show('board')
}

function use(lines: string[]): void {
  if (chain.lines.length) pending.value = lines
  else putOnPaper(lines)
}

function putOnPaper(lines: string[]): void {
  pending.value = null
  chain.fill(lines)
  void show('work')
}

function tellMore(): Promise<void> {
  return attempt(async () => {
    if (!current.value) return
    const line = await next.more(current.value.id, chain.lines)
    if (line !== null) chain.insert(chain.lines.length, line)
  })
}

async function saveTaught(untaught: string[]): Promise<void> {
  await sheets.setUntaught(untaught)
  next.clear()
  if (current.value && props.face === 'methods') await methods.load(current.value.id)
}

async function saveProblem(task: Task, given: string, variable: string, numbers: Numbers, method: string): Promise<void> {
  if (dialog.value === 'change' && chain.problem) {
    const { id } = chain.problem
    await chain.flush()
    await sheets.changeProblem(id, task, given, variable, numbers, method)
    await chain.open(id)
  } else {
    await sheets.addProblem(task, given, variable, numbers, method)
    go(problems.value.length)
  }
}

const conventionWords = computed(() => {
  const words = inForce(sheets.sheet?.conventions ?? {})
  return words.length ? `${words.length} convention${words.length === 1 ? '' : 's'} set` : 'usual conventions'
})

async function saveConventions(chosen: Conventions): Promise<void> {
  await chain.flush()
  await sheets.setConventions(chosen)
  if (current.value) await chain.open(current.value.id)
}

function copy(): Promise<void> {
  return attempt(async () => {
    if (!current.value) return
    await chain.flush()
    await sheets.copyProblem(current.value.id)
    go(props.place + 1)
  })
}

function remove(): Promise<void> {
  removing.value = false
  return attempt(async () => {
    if (!current.value) return
    await sheets.removeProblem(current.value.id)
    if (props.place > problems.value.length) go(problems.value.length)
  })
}

/** Where F6 goes in turn; a line of the chain has a part called right as well, so the notes are named by their place. */
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
  new: () => (dialog.value = 'new'),
  change: () => chain.problem && (dialog.value = 'change'),
  copy: () => void copy(),
  conventions: () => (settling.value = true),
  taught: () => (teaching.value = true),
  'next-region': nextRegion,
  help: () => (keysOpen.value = true),
}

function onKey(event: KeyboardEvent): void {
  if (keysOpen.value || dialog.value || removing.value || settling.value || teaching.value || pending.value) return
  const action = actionOf(SHEET, event)
  // the board has keys of its own, and what a line or a field has taken is done with
  if (action !== 'help' && (event.defaultPrevented || (props.face === 'board' && !event.altKey))) return
  const help = actionOf(HELP, event)
  if (action !== null) DOES[action]()
  else if (help === 'next-step' && props.face === 'work') void tellMore()
  else if (help !== null && FACES.value.some(([name]) => name === help)) void show(help)
  else if (event.key === '?' && !(event.target instanceof HTMLInputElement)) keysOpen.value = true
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

watch(() => props.sheetId, (id) => attempt(() => sheets.open(id)), { immediate: true })
watch(
  () => current.value?.id,
  (id) => {
    next.clear()
    board.foreseen = null
    if (id) void attempt(() => chain.open(id))
    else chain.problem = null
  },
  { immediate: true },
)
</script>

<template>
  <div class="desk">
    <header class="bar">
      <RouterLink to="/" class="home" title="All sheets">Uchuu</RouterLink>
      <span class="title">{{ sheets.sheet?.title }}</span>
      <span v-if="current" class="muted">problem {{ place }} of {{ problems.length }}</span>
      <nav v-if="current" class="faces" aria-label="Faces of this problem">
        <button
          v-for="[name, word, letter] in FACES" :key="name" class="plain-button face" :class="{ on: face === name }"
          :aria-current="face === name ? 'page' : undefined" :title="`${word} (Alt+${letter})`" @click="show(name)"
        >{{ word }}</button>
      </nav>
      <span class="space" />
      <span class="save" :class="chain.state" role="status">{{ current ? SAVE_WORDS[chain.state] : '' }}</span>
      <button class="plain-button muted small" title="Conventions of this sheet (Alt+C)" @click="settling = true">
        {{ chain.problem?.numbers ?? 'real' }} numbers · {{ conventionWords }}
      </button>
      <button class="plain-button muted small" title="What the class knows (Alt+K)" @click="teaching = true">
        {{ sheets.sheet?.untaught.length ? `${sheets.sheet.untaught.length} not taught yet` : 'all taught' }}
      </button>
      <button class="plain-button" title="Keys and notation (?)" @click="keysOpen = true">Keys <kbd>?</kbd></button>
      <span class="muted small">{{ session.teacher?.name }}</span>
    </header>
    <ProblemStrip
      class="left" :problems="problems" :current="current?.id ?? null"
      @open="go" @add="dialog = 'new'" @copy="copy" @remove="removing = true"
      @order="(ids) => attempt(() => sheets.reorder(ids))"
    />
    <main class="middle" :class="{ wide }" :aria-busy="current !== null && chain.problem?.id !== current.id">
      <p v-if="trouble" class="banner" role="alert">{{ trouble }}</p>
      <div v-if="chain.state === 'conflict'" class="banner" role="alert">
        <p>This working was changed in another window. Yours has {{ chain.lines.length }} lines, the other {{ chain.theirs?.lines.length }}.</p>
        <el-button size="small" @click="chain.resolve('theirs')">Take the other</el-button>
        <el-button size="small" type="primary" @click="chain.resolve('mine')">Keep mine</el-button>
      </div>
      <p v-if="chain.state === 'refused'" class="banner" role="alert">{{ chain.trouble }}</p>
      <MethodsFace v-if="current && face === 'methods'" :problem="current.id" :has-lines="chain.lines.length > 0" @use="(solution) => use(solution.steps.map((step) => step.text))" @board="onBoard" />
      <AnticipateFace v-else-if="current && face === 'anticipate'" :problem="current.id" :given="current.given" @board="onWrongPath" @use="use" />
      <GraphFace
        v-else-if="current && face === 'graph' && isFunction" :problem="current.id" :given="current.given" :letter="unknown"
      />
      <ChainPaper v-else-if="current && face !== 'board'" @help="keysOpen = true" @at="at = $event" @edit-given="dialog = 'change'" />
      <div v-else-if="sheets.sheet && !current" class="empty">
        <p>This sheet is empty.</p>
        <el-button type="primary" @click="dialog = 'new'">New problem</el-button>
        <p class="muted small">or <kbd>Alt N</kbd></p>
      </div>
    </main>
    <StepNotes
      v-if="current && face === 'methods'" class="right" tabindex="-1" :number="methods.at + 1"
      :step="methods.found?.methods[methods.chosen]?.steps[methods.at] ?? null"
    />
    <div v-else-if="current && !wide" class="right" tabindex="-1">
      <NextStepCard v-if="face === 'work'" @more="tellMore" />
      <p v-if="face === 'work' && !next.hint && !next.trouble" class="ask">
        <button class="plain-button muted small" @click="tellMore">Next step <kbd>Alt H</kbd></button>
      </p>
      <NotesPanel @use="(line) => chain.replace(at, line)" :number="at + 1" :text="chain.lines[at] ?? ''" :link="link"
      :report="chain.judged ? (chain.problem?.report ?? null) : null" :unknown="unknown"
      :task="chain.problem?.task ?? ''" />
    </div>
    <div v-else-if="!current" class="right" />

    <KeyPanel :open="keysOpen" @close="keysOpen = false" />
    <ProblemDialog
      :open="dialog !== null" :title="dialog === 'change' ? 'Change the problem' : 'New problem'"
      :decimal="sheets.decimal" :start="start" :save="saveProblem" @close="dialog = null"
    />
    <ConventionsDrawer
      :open="settling" :chosen="sheets.sheet?.conventions ?? {}" :save="saveConventions" @close="settling = false"
    />
    <TaughtDrawer :open="teaching" :untaught="sheets.sheet?.untaught ?? []" :save="saveTaught" @close="teaching = false" />
    <BoardFace
      v-if="current && face === 'board'" :problem="current.id" :given="current.given" :start="boardStart"
      :instruction="instruction(chain.problem?.task ?? 'solve', chain.problem?.variable ?? '')" @close="show('work')"
    />
    <el-dialog :model-value="pending !== null" title="Replace the lines on the paper?" width="440" @close="pending = null">
      <p>The {{ chain.lines.length }} lines that stand there give way to the {{ pending?.length }} new ones. Undo brings them back.</p>
      <template #footer>
        <el-button @click="pending = null">Keep mine</el-button>
        <el-button type="primary" @click="pending && putOnPaper(pending)">Replace them</el-button>
      </template>
    </el-dialog>
    <el-dialog v-model="removing" title="Delete this problem?" width="420">
      <p>Problem {{ place }} and its {{ chain.lines.length }} lines will be gone for good.</p>
      <template #footer>
        <el-button @click="removing = false">Keep it</el-button>
        <el-button type="danger" @click="remove">Delete it</el-button>
      </template>
    </el-dialog>
  </div>
</template>

<style scoped>
.desk {
  height: 100vh;
  display: grid;
  grid-template: 48px minmax(0, 1fr) / 230px minmax(0, 1fr) 290px;
}
.bar {
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 0 18px;
  border-bottom: 1px solid var(--hairline);
  white-space: nowrap;
}
.home {
  font-weight: 700;
  color: inherit;
  text-decoration: none;
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
}
.space {
  flex: 1;
}
.faces {
  display: flex;
  gap: 2px;
  margin-left: 10px;
}
.face {
  padding: 5px 11px;
}
.face.on {
  font-weight: 700;
  box-shadow: inset 0 -3px var(--settles);
  border-radius: 6px 6px 0 0;
}
.ask {
  padding: 14px 16px 0;
}
.small {
  font-size: 13px;
}
.save {
  font-size: 13px;
  color: var(--muted);
}
.save.offline,
.save.conflict,
.save.refused {
  color: var(--breaks);
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
    grid-template: 48px auto auto auto / 1fr;
  }
  .left,
  .right {
    border: 0;
    border-bottom: 1px solid var(--hairline);
  }
  .left {
    max-height: 190px;
  }
  .bar {
    gap: 8px;
    overflow-x: auto;
  }
  .middle {
    padding: 12px;
  }
}
</style>

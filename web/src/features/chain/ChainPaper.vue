<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import ChainRail, { type Bead } from './ChainRail.vue'
import ChainRow from './ChainRow.vue'
import LineEditor from './LineEditor.vue'
import { useChain } from './store'
import type { Echo } from '@/api/client'
import PlainMath from '@/components/PlainMath.vue'
import MathText from '@/components/MathText.vue'
import { useSheets } from '@/features/sheets/store'
import { keep, kept } from '@/lib/keep'
import { isSideLine, relationWord, type Relation } from '@/lib/relations'
import { actionOf, ON_A_LINE, type LineAction } from '@/lib/shortcuts'
import { instruction, unknownOf } from '@/lib/tasks'

/**
 * The paper: the given, the ledger, the chain, and the line being written. All of it works by keyboard: in the
 * editor ↑ goes to the lines; on a line Enter edits, Insert opens a line before it, Delete removes it.
 */
const emit = defineEmits<{ help: []; at: [index: number]; page: [by: -1 | 1]; editGiven: [] }>()

interface Draft {
  mode: 'append' | 'insert' | 'edit'
  at: number
  text: string
}

const chain = useChain()
const sheets = useSheets()
const cursor = ref<number | null>(null)
const draft = ref<Draft>({ mode: 'append', at: 0, text: '' })
const editor = shallowRef<InstanceType<typeof LineEditor> | null>(null)
// the editor stands at one of several places; a plain template ref inside v-for would be a list
function setEditor(found: unknown): void {
  if (found) editor.value = found as InstanceType<typeof LineEditor>
}
const paper = ref<HTMLElement | null>(null)
const beads = ref<Bead[]>([])
const height = ref(0)
const freshFrom = ref(9999)
const spoken = ref('')

const problem = computed(() => chain.problem)
const report = computed(() => problem.value?.report ?? null)
const echoes = computed(() => {
  const byText = new Map<string, Echo>()
  for (const line of problem.value?.lines ?? []) byText.set(line.text, line.echo)
  return byText
})
/** Echoes with the place of the slip tinted, of the line one is on and of the one before it (-1: the given). */
const tinted = computed(() => {
  const tint = chain.judged ? problem.value?.tints.find((each) => each.line === (cursor.value ?? -2) + 1) : undefined
  const found = new Map<number, Echo>()
  if (tint) found.set(tint.before_line - 1, tint.before).set(tint.line - 1, tint.after)
  return found
})
const givenEcho = computed(() => tinted.value.get(-1) ?? problem.value!.given_echo)
const editorAt = computed(() => (draft.value.mode === 'append' ? chain.lines.length : draft.value.at))
const rows = computed(() => chain.lines.map((text, k) => ({ key: k, text, link: chain.linkAt(k) })))
const hint = computed(() =>
  chain.lines.length ? 'the next line' : 'the first line; Enter commits it, ? shows all keys',
)
const ledger = computed(() => {
  const values = report.value?.excluded ?? []
  if (!values.length) return ''
  if (values.some((value) => value.includes('≠'))) return values.join(',  ')
  return `${unknownOf(problem.value)} ≠ ${values.join(', ')}`
})
const answer = computed(() => report.value?.answer ?? null)
const state = computed(() => {
  if (!answer.value || !chain.judged) return 'waiting'
  if (answer.value.verdict === 'correct') return report.value!.finish.finished ? 'done' : 'nearly'
  return answer.value.verdict === 'unfinished' || answer.value.verdict === 'none' ? 'open' : 'off'
})

const below = computed(() => (sheets.sheet?.conventions['moves'] ?? 'below') === 'below')

/** The move made on both sides of a line (−1: the given) to get to the next, where it is set below both sides. */
function moveAfter(at: number): string {
  if (!below.value) return ''
  const row = rows.value[at + 1]
  if (!row || (draft.value.mode !== 'append' && draft.value.at === at + 1) || misstated(at + 1)) return ''
  return echoes.value.get(row.text)?.move ?? ''
}
function misstated(at: number): boolean {
  return rows.value[at]?.link?.move?.as_stated === false
}

function saveDraft(): void {
  const id = problem.value?.id
  if (id) keep(`draft.${id}`, draft.value.text ? draft.value : null)
}

function write(text: string): void {
  draft.value = { ...draft.value, text }
  saveDraft()
}

function toEnd(text = ''): void {
  draft.value = { mode: 'append', at: chain.lines.length, text }
  cursor.value = null
  saveDraft()
  void nextTick(() => editor.value?.focus())
}

function commit(text: string): void {
  const { mode, at } = draft.value
  freshFrom.value = mode === 'append' ? chain.lines.length : at
  if (mode === 'edit') chain.replace(at, text)
  else chain.insert(mode === 'append' ? chain.lines.length : at, text)
  if (mode === 'insert') draft.value = { mode: 'insert', at: at + 1, text: '' }
  if (mode === 'insert') saveDraft()
  else toEnd()
  emit('at', mode === 'append' ? chain.lines.length - 1 : at)
}

function edit(at: number): void {
  draft.value = { mode: 'edit', at, text: chain.lines[at] ?? '' }
  cursor.value = null
  emit('at', at)
  void nextTick(() => editor.value?.focus())
}

function openBefore(at: number): void {
  draft.value = { mode: 'insert', at, text: '' }
  cursor.value = null
  void nextTick(() => editor.value?.focus())
}

function select(at: number): void {
  if (at < 0 || at >= chain.lines.length) return
  if (draft.value.mode !== 'append') draft.value = { mode: 'append', at: 0, text: '' }
  cursor.value = at
  emit('at', at)
}

function leave(direction: 'up' | 'down'): void {
  const at = editorAt.value
  if (direction === 'up') select(Math.min(at, chain.lines.length) - 1)
  else if (draft.value.mode !== 'append') select(draft.value.mode === 'edit' ? at + 1 : at)
}

function cancel(): void {
  if (draft.value.mode === 'append') write('')
  else toEnd()
}

function remove(at: number): void {
  chain.remove(at)
  if (chain.lines.length) select(Math.min(at, chain.lines.length - 1))
  else toEnd()
}

function onRowKey(at: number, event: KeyboardEvent): void {
  const action = actionOf(ON_A_LINE, event)
  if (action === null) return
  act(at, action)
  event.preventDefault()
  event.stopPropagation()
}

function act(at: number, action: LineAction): void {
  const write = (): void => toEnd(draft.value.mode === 'append' ? draft.value.text : '')
  const does: Record<LineAction, () => void> = {
    'move-up': () => (cursor.value = chain.move(at, -1)),
    'move-down': () => (cursor.value = chain.move(at, 1)),
    up: () => select(at - 1),
    down: () => (at === chain.lines.length - 1 ? write() : select(at + 1)),
    first: () => select(0),
    write,
    edit: () => edit(at),
    'open-before': () => openBefore(at),
    'open-after': () => openBefore(at + 1),
    remove: () => remove(at),
    undo: () => undo(false),
    redo: () => undo(true),
    help: () => emit('help'),
  }
  does[action]()
}

function undo(again: boolean): void {
  if (again) chain.redo()
  else chain.undo()
  if (cursor.value !== null && cursor.value >= chain.lines.length) toEnd()
}

/** Where the beads stand, read from the laid-out rows. */
function measure(): void {
  const box = paper.value
  if (!box) return
  const top = box.getBoundingClientRect().top
  const owed = new Set(report.value?.owed.map((each) => each.value))
  const statementAt = lastStatement()
  beads.value = [...box.querySelectorAll<HTMLElement>('[data-bead]')].map((element) => {
    const rect = element.getBoundingClientRect()
    const tools = element.querySelector<HTMLElement>('.tools')?.offsetHeight ?? 0
    const y = rect.top - top + (rect.height - tools) / 2
    const number = element.dataset['bead']
    if (number === 'writing') return { y, relation: null, writing: true }
    if (number === '0') return { y, relation: null, first: true }
    const at = Number(number) - 1
    const link = chain.linkAt(at)
    const ring = at === statementAt && chain.judged ? (owed.size ? 'open' : hasChecks.value ? 'closed' : null) : null
    return { y, relation: (link?.relation ?? null) as Relation | null, side: !!link && isSideLine(link.kind), ring }
  })
  height.value = box.scrollHeight
}

const hasChecks = computed(() => report.value?.links.some((link) => link.kind === 'check' && link.relation === 'holds'))

function lastStatement(): number {
  const links = report.value?.links ?? []
  for (let k = links.length - 1; k >= 0; k--) if (!isSideLine(links[k]!.kind)) return k
  return -1
}

let observer: ResizeObserver | null = null
onMounted(() => {
  observer = new ResizeObserver(measure)
  if (paper.value) observer.observe(paper.value)
})
onBeforeUnmount(() => observer?.disconnect())
watch([rows, draft, cursor, () => chain.problem], () => void nextTick(measure), { deep: true, flush: 'post' })

watch(
  () => problem.value?.id,
  (id) => {
    if (!id) return
    const left = kept<Draft>(`draft.${id}`)
    const fits = left && left.at <= chain.lines.length
    draft.value = fits ? left : { mode: 'append', at: chain.lines.length, text: left?.text ?? '' }
    cursor.value = null
    freshFrom.value = 9999
    emit('at', chain.lines.length - 1)
    void nextTick(() => editor.value?.focus())
  },
  { immediate: true },
)

watch(
  () => chain.problem,
  (now) => {
    const links = now?.report.links ?? []
    const at = Math.min(freshFrom.value, links.length - 1)
    const link = links[at]
    if (!link || freshFrom.value === 9999) return
    spoken.value = `Line ${at + 1} ${relationWord(link.relation, link.kind)}. ${link.evidence?.text ?? link.error?.message ?? ''}`
  },
)

defineExpose({ focusEditor: () => editor.value?.focus(), openBefore, edit, toEnd })
</script>

<template>
  <section v-if="problem" class="sheet" aria-label="Working">
    <header class="task">
      <h2>{{ instruction(problem.task, problem.variable) }}</h2>
      <button class="plain-button muted" title="Change the problem (Alt+E)" @click="emit('editGiven')">change</button>
    </header>
    <div ref="paper" class="chain">
      <ChainRail :beads="beads" :height="height" :fresh-from="freshFrom" />
      <div class="given" data-bead="0">
        <template v-if="!problem.given_echo.error">
          <span class="left"><MathText v-if="givenEcho.left" :latex="givenEcho.left" /></span>
          <span class="right"><MathText :latex="` ${givenEcho.right}`" /></span>
        </template>
        <span v-else class="raw">{{ problem.given }}</span>
      </div>
      <div v-if="moveAfter(-1)" class="both" aria-hidden="true">
        <span class="left"><MathText :latex="moveAfter(-1)" :display="false" /></span>
        <span class="right"><MathText :latex="moveAfter(-1)" :display="false" /></span>
      </div>
      <p v-if="report?.error && report.error.line === 0" class="wide trouble" role="alert">
        {{ report.error.message }} Change the problem to go on.
      </p>
      <p v-if="ledger" class="wide ledger"><span class="muted">excluded</span> <PlainMath :text="ledger" /></p>
      <div class="rows" role="list" aria-label="Lines">
        <template v-for="(row, k) in rows" :key="row.key">
          <div v-if="draft.mode !== 'append' && draft.at === k" class="writing" role="listitem" data-bead="writing">
            <LineEditor
              :ref="setEditor"
              :text="draft.text"
              :decimal="sheets.decimal"
              :label="draft.mode === 'edit' ? `Edit line ${k + 1}` : `New line before line ${k + 1}`"
              hint="Enter keeps it, Escape leaves it"
              @update:text="write"
              @commit="commit"
              @cancel="cancel"
              @leave="leave"
              @undo="undo(false)"
              @redo="undo(true)"
              @help="emit('help')"
            />
          </div>
          <ChainRow
            v-if="!(draft.mode === 'edit' && draft.at === k)"
            :number="k + 1"
            :text="row.text"
            :echo="tinted.get(k) ?? echoes.get(row.text) ?? null"
            :link="row.link"
            :selected="cursor === k"
            :beside="!below || misstated(k)"
            @select="select(k)"
            @edit="edit(k)"
            @key="onRowKey(k, $event)"
            @act="act(k, $event)"
          />
          <div v-if="moveAfter(k)" class="both" aria-hidden="true">
            <span class="left"><MathText :latex="moveAfter(k)" :display="false" /></span>
            <span class="right"><MathText :latex="moveAfter(k)" :display="false" /></span>
          </div>
        </template>
        <div
          v-if="draft.mode === 'append' || draft.at >= chain.lines.length"
          class="writing"
          role="listitem"
          data-bead="writing"
        >
          <LineEditor
            :ref="setEditor"
            :text="draft.text"
            :decimal="sheets.decimal"
            label="Next line"
            :hint="hint"
            @update:text="write"
            @commit="commit"
            @cancel="cancel"
            @leave="leave"
            @undo="undo(false)"
            @redo="undo(true)"
            @help="emit('help')"
          />
        </div>
      </div>
    </div>
    <footer v-if="report" class="answer" :class="state" aria-live="polite">
      <p class="sentence">
        {{ state === 'done' ? 'The answer is right and finished.' : answer?.text }}
        <span v-if="state === 'nearly'"> It is not finished:</span>
      </p>
      <ul v-if="report.finish.remaining.length && state !== 'off'">
        <li v-for="(item, k) in report.finish.remaining" :key="k">{{ item.text }}</li>
      </ul>
    </footer>
    <p class="visually-hidden" role="status">{{ spoken }}</p>
  </section>
</template>

<style scoped>
.sheet {
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 10px;
  padding: 20px 26px 22px 22px;
  max-width: 820px;
  margin: 0 auto;
}
.task {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding-left: 36px;
}
.task h2 {
  font-size: 15px;
  font-weight: 400;
  color: var(--muted);
}
.task button {
  font-size: 13px;
}
.chain {
  position: relative;
  display: grid;
  grid-template-columns: 36px max-content max-content max-content minmax(0, auto) 1fr;
  overflow-x: auto;
  padding-right: 3px;
}
.given {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: subgrid;
  align-items: center;
  min-height: 68px;
  padding-block: 8px;
}
.both {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: subgrid;
  color: var(--settles);
  font-size: 0.95em;
  margin-top: -4px;
}
.both .left {
  grid-column: 2;
  text-align: right;
}
.both .right {
  grid-column: 3;
  padding-left: 26px;
}
.given .left {
  grid-column: 2;
  text-align: right;
  font-size: 1.5em;
}
.given .right {
  grid-column: 3;
  padding-left: 7px;
  font-size: 1.5em;
}
.raw {
  grid-column: 2 / -1;
  font: 16px/1.4 var(--mono);
}
.wide {
  grid-column: 2 / -1;
  font-size: 14px;
  padding: 0 0 6px;
}
.ledger .muted {
  margin-right: 6px;
}
.trouble {
  color: var(--breaks);
}
.rows {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: subgrid;
}
.writing {
  grid-column: 1 / -1;
  padding-left: 36px;
}
@media (max-width: 900px) {
  .writing {
    position: sticky;
    left: 0;
    max-width: calc(100vw - 62px);
  }
}
@media (max-width: 600px) {
  .sheet {
    padding: 12px 8px 14px;
  }
  .given .left,
  .given .right {
    font-size: 1.25em;
  }
}
.answer {
  margin: 14px 0 0 36px;
  padding: 10px 14px;
  border-left: 3px solid var(--hairline);
  background: var(--paper);
  border-radius: 0 8px 8px 0;
}
.answer.done {
  border-left-color: var(--holds);
}
.answer.nearly {
  border-left-color: var(--widens);
}
.answer.off {
  border-left-color: var(--breaks);
}
.answer ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
.answer.waiting {
  opacity: 0.55;
}
</style>

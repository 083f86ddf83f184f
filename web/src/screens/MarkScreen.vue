<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import PageHeader from '@/features/session/PageHeader.vue'
import KeyList from '@/components/KeyList.vue'
import MathText from '@/components/MathText.vue'
import TinyChain from '@/components/TinyChain.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import OpenedWorking from '@/features/marking/OpenedWorking.vue'
import PagesFace from '@/features/marking/PagesFace.vue'
import RoomFace from '@/features/room/RoomFace.vue'
import PatternsFace from '@/features/marking/PatternsFace.vue'
import SlipsFace from '@/features/marking/SlipsFace.vue'
import SchemeForm from '@/features/marking/SchemeForm.vue'
import CountsForm from '@/features/marking/CountsForm.vue'
import LogOf from '@/features/marking/LogOf.vue'
import RecordsForm from '@/features/marking/RecordsForm.vue'
import TypeLines from '@/features/marking/TypeLines.vue'
import TakePile from '@/features/marking/TakePile.vue'
import { useMarking, type Cell } from '@/features/marking/store'
import { EYE_WORDS } from '@/lib/marking'
import { useRegional } from '@/lib/regional'
import { actionOf, MARKING, type MarkAction } from '@/lib/shortcuts'

/** A class set: students down, items across, each cell the tiny chain and the mark that is proposed or confirmed. */
const props = defineProps<{ setId: number; face: string; working?: number }>()
const marking = useMarking()
const { number } = useRegional(() => marking.set?.in_force)
const grid = ref<HTMLElement | null>(null)
const writing = ref<string | null>(null)
type Panel = 'take' | 'counts' | 'records' | 'log'
const panel = ref<Panel | null>(null)
const toggle = (name: Panel): void => void (panel.value = panel.value === name ? null : name)
const scheme = ref<number | null>(null)
let left = false
onBeforeUnmount(() => (left = true))
watch(
  () => props.setId,
  async (id) => {
    if (!(await marking.load(id))) return
    if (props.face === 'patterns') void marking.loadPatterns()
    if (props.working) await marking.jump(props.working)
  },
  { immediate: true },
)
watch(
  () => !!marking.set && marking.set.id === props.setId && marking.set.done < marking.set.total,
  (waits) => waits && marking.follow(() => left),
  { immediate: true },
)
watch(
  () => props.face,
  (face) => {
    if (face === 'patterns') void marking.loadPatterns()
    if (face === 'table') void marking.load(props.setId) // what pages brought meanwhile
  },
)

const share = computed(() => (marking.set?.total ? Math.round((100 * marking.set.done) / marking.set.total) : 100))
const name = (k: number): string => (marking.names ? (marking.table.students[k]?.name ?? '') : `student ${k + 1}`)
/** The marks that a finger can give; with many, keys are quicker. */
const marksOf = computed(() => {
  const total = marking.table.items[marking.column]?.scheme.total ?? 0
  return total <= 6 ? Array.from({ length: Math.floor(total) + 1 }, (_, k) => k) : []
})
const needsEye = (cell: Cell): boolean => cell.mark === null && cell.eye.length > 0
const open = (cell: Cell): boolean => cell.mark === null

async function focusCell(): Promise<void> {
  await nextTick()
  grid.value?.querySelector<HTMLElement>('[tabindex="0"]')?.focus()
}
async function followOpen(): Promise<void> {
  if (marking.opened && marking.here && marking.here.working !== marking.opened.id)
    await marking.open(marking.here.working)
}
/** After a decision one stands on the next that is open, without waiting for the server. */
async function decided(done: Promise<boolean>, goOn: boolean): Promise<void> {
  if (goOn) marking.goOn(open)
  else await done
  await followOpen()
  await focusCell()
}

function onKey(event: KeyboardEvent): void {
  if (/^[0-9]$/.test(event.key) && !event.ctrlKey && !event.altKey && !event.metaKey) {
    event.preventDefault()
    give(Number(event.key))
    return
  }
  const action = actionOf(MARKING, event)
  if (action === null) return
  event.preventDefault()
  act(action)
}
function give(mark: number): void {
  if (marking.here) void decided(marking.decide(marking.here, mark), false)
}
function act(action: MarkAction): void {
  const here = marking.here
  const does: Record<MarkAction, () => unknown> = {
    up: () => marking.move([-1, 0]),
    down: () => marking.move([1, 0]),
    left: () => marking.move([0, -1]),
    right: () => marking.move([0, 1]),
    first: () => (marking.row = 0),
    last: () => (marking.row = Math.max(0, marking.table.students.length - 1)),
    confirm: () => here && decided(marking.decide(here, here.mark), true), // a mark that was given stays
    alike: () => here && decided(marking.decide(here, here.mark, true), true),
    half: () => here?.mark !== null && here && decided(marking.decide(here, here.mark! + 0.5), false),
    open: () => here && marking.open(here.working).then(focusCell),
    close: () => (marking.opened = null),
    undo: () => decided(marking.takeBack(), false),
    redo: () => decided(marking.doAgain(), false),
    eye: () => marking.goOn(needsEye),
    names: () => (marking.names = !marking.names),
    shuffle: () => marking.mix(),
    write: () => write(),
  }
  does[action]()
  if (['up', 'down', 'left', 'right', 'first', 'last', 'eye', 'close', 'names', 'shuffle'].includes(action))
    void followOpen().then(focusCell)
}

/** Types the lines of the place where one stands; what is typed before those that stand there have come is kept. */
let shown = ''
async function write(): Promise<void> {
  writing.value = shown = ''
  const here = marking.here
  if (!here) marking.opened = null
  else if ((await marking.open(here.working)) && writing.value === '' && marking.here === here)
    writing.value = shown = marking.opened?.lines.join('\n') ?? ''
}
/** Lines that could not be kept while one typed on. */
const unkept = ref<{ row: number; column: number; text: string }[]>([])
function goBackTo(k: number): void {
  const [last] = unkept.value.splice(k, 1)
  if (last) Object.assign(marking, { row: last.row, column: last.column, opened: null })
  writing.value = last?.text ?? ''
}
async function keepTyped(next: 'down' | 'stay'): Promise<void> {
  if (writing.value === null) return
  const text = writing.value
  const { row, column } = marking
  const kept = marking.type(
    text
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean),
    row,
    column,
  )
  const last = row === marking.table.students.length - 1
  if (next === 'down' && !(last && column === marking.table.items.length - 1)) {
    if (last)
      Object.assign(marking, { row: 0, column: column + 1 }) // the next item, from the first student
    else marking.move([1, 0])
    void write() // at once: who types on must not wait for the server
    if (await kept) return
    unkept.value.push({ row, column, text })
    if (writing.value === shown) goBackTo(unkept.value.length - 1)
    return
  }
  if (!(await kept)) return
  writing.value = null
  if (marking.here) await marking.open(marking.here.working)
  await focusCell()
}
async function leaveTyping(): Promise<void> {
  writing.value = null
  await focusCell()
}
/** What a student reached, in short. */
const sumOf = (student: number): string => {
  const total = marking.totalOf(student)
  if (!total) return '–'
  if (total.state !== 'complete') return total.state === 'absent' ? 'absent' : total.late ? 'late' : '–'
  const words = [
    number(total.counts ?? total.total),
    total.grade,
    total.late ? 'late' : '',
    total.first !== null && total.counts !== total.total ? 'first attempt' : '',
  ]
  return words.filter(Boolean).join(', ')
}
const said = (cell: Cell | null): string => {
  if (!cell) return 'nothing written'
  if (cell.outdated)
    return `mark ${number(cell.mark)}, confirmed by an older scheme; ${number(cell.proposed)} proposed now`
  if (cell.mark !== null) return `mark ${number(cell.mark)}, confirmed`
  if (cell.waits) return 'not verified yet'
  return `${number(cell.proposed)} proposed${cell.slip ? `, ${cell.slip}` : ''}${cell.eye.length ? `, look: ${cell.eye.map((eye) => EYE_WORDS[eye] ?? eye).join(' ')}` : ''}`
}
</script>

<template>
  <main class="page">
    <PageHeader :title="marking.set ? `${marking.set.title}, ${marking.set.class_name}` : 'Mark'" />
    <TroubleNote :request="marking.request" />
    <nav v-if="marking.set" class="faces" aria-label="This set">
      <RouterLink :to="`/sets/${setId}`">Marking table</RouterLink>
      <RouterLink :to="`/sets/${setId}/pages`">Pages</RouterLink>
      <RouterLink :to="`/sets/${setId}/room`">Room</RouterLink>
      <RouterLink :to="`/sets/${setId}/patterns`">Patterns</RouterLink>
      <button class="plain-button" :aria-expanded="panel === 'take'" @click="toggle('take')">Take in</button>
      <button class="plain-button" :aria-expanded="panel === 'counts'" @click="toggle('counts')">Counts by</button>
      <button class="plain-button" :aria-expanded="panel === 'records'" @click="toggle('records')">Marks out</button>
      <button class="plain-button" :aria-expanded="panel === 'log'" @click="toggle('log')">Who looked</button>
      <RouterLink :to="`/sets/${setId}/slips`">Feedback slips</RouterLink>
      <span class="muted" role="status">
        {{ marking.decided }} of {{ marking.table.cells.length }} confirmed<template v-if="share < 100"
          >; verifying, {{ share }} %</template
        >
        <template v-if="marking.told"> · {{ marking.told }}</template>
      </span>
    </nav>
    <p v-if="marking.outdated.length" class="older" role="status">
      {{ marking.outdated.length }} {{ marking.outdated.length === 1 ? 'mark was' : 'marks were' }} confirmed by an
      older scheme, and another is proposed now.
      <button class="plain-button" @click="marking.proposeAnew(marking.outdated)">propose all of them anew</button>
      <button
        v-if="marking.here?.outdated"
        class="plain-button"
        @click="marking.here && marking.proposeAnew([marking.here])"
      >
        only {{ name(marking.row) }}, {{ marking.table.items[marking.column]?.number }}
      </button>
    </p>
    <p v-for="(each, k) in unkept" :key="k" role="alert">
      {{ name(each.row) }}, {{ marking.table.items[each.column]?.number }} was not kept.
      <button class="plain-button" @click="goBackTo(k)">Go back to it</button>
    </p>
    <progress v-if="share < 100" :value="share" max="100" aria-label="Verified" />
    <TakePile v-if="panel === 'take'" @done="panel = null" />
    <CountsForm v-if="panel === 'counts' && marking.set" />
    <RecordsForm v-if="panel === 'records' && marking.set" />
    <LogOf v-if="panel === 'log' && marking.set" />
    <PatternsFace v-if="face === 'patterns'" />
    <PagesFace v-else-if="face === 'pages'" />
    <RoomFace v-else-if="face === 'room'" />
    <SlipsFace v-else-if="face === 'slips'" />
    <div v-else-if="marking.set" class="halves" :class="{ beside: marking.opened || writing !== null }">
      <div class="scroll">
        <p v-if="!marking.table.students.length" class="muted">
          This class has no students yet. Add their names on the page of the class.
        </p>
        <div v-if="marking.table.students.length" class="tools" role="toolbar" aria-label="The working that is chosen">
          <span>{{ name(marking.row) }}, {{ marking.table.items[marking.column]?.number }}</span>
          <template v-if="marking.here && !marking.here.waits">
            <button class="plain-button" @click="act('open')">open</button>
            <button class="plain-button" @click="act('confirm')">
              confirm {{ number(marking.here.mark ?? marking.here.proposed) }}
            </button>
            <button class="plain-button" @click="act('alike')">for all alike</button>
            <button
              v-for="mark in marksOf"
              :key="mark"
              class="plain-button"
              :aria-label="`${number(mark)} as its mark`"
              @click="give(mark)"
            >
              {{ number(mark) }}
            </button>
          </template>
          <button class="plain-button" @click="act('write')">type its lines</button>
          <button class="plain-button" @click="act('eye')">next to look at</button>
          <button class="plain-button" @click="act('undo')">take back</button>
          <button class="plain-button" @click="act('redo')">decide again</button>
          <template
            v-for="total in [marking.totalOf(marking.table.students[marking.row]?.id ?? 0)]"
            :key="total?.student ?? 0"
          >
            <button
              v-if="total"
              class="plain-button"
              :aria-pressed="total.late"
              @click="marking.changePaper(total.student, { late: !total.late })"
            >
              {{ total.late ? 'not late' : 'late' }}
            </button>
            <button
              v-if="total"
              class="plain-button"
              :aria-pressed="total.state === 'absent'"
              @click="marking.changePaper(total.student, { absent: total.state !== 'absent' })"
            >
              {{ total.state === 'absent' ? 'not absent' : 'absent' }}
            </button>
          </template>
        </div>
        <table ref="grid" role="grid" aria-label="Marking table">
          <thead>
            <tr>
              <th scope="col">
                <span class="muted">{{ marking.table.students.length }} students</span>
              </th>
              <th scope="col">
                Sum <span class="muted worth">of {{ number(marking.table.totals[0]?.of ?? 0) }}</span>
              </th>
              <th v-for="item in marking.table.items" :key="item.id" scope="col">
                <span class="number">{{ item.number }}</span>{{ ' '
                }}<span class="given"><MathText :latex="item.given_latex" :display="false" /></span>
                <button
                  class="plain-button worth"
                  :aria-label="`of ${number(item.scheme.total)}: scheme of number ${item.number}`"
                  @click="scheme = scheme === item.id ? null : item.id"
                >
                  of {{ number(item.scheme.total) }}
                </button>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(student, k) in marking.table.students" :key="student.id">
              <th scope="row">{{ name(k) }}</th>
              <th scope="row" class="sum">{{ sumOf(student.id) }}</th>
              <td
                v-for="(item, j) in marking.table.items"
                :key="item.id"
                :tabindex="k === marking.row && j === marking.column ? 0 : -1"
                :class="{ on: k === marking.row && j === marking.column }"
                :aria-label="`${name(k)}, number ${item.number}: ${said(marking.cellAt(k, j))}`"
                @click="((marking.row = k), (marking.column = j), void followOpen().then(focusCell))"
                @dblclick="act('open')"
                @keydown="onKey"
              >
                <template v-for="cell in [marking.cellAt(k, j)]" :key="cell?.working ?? 0">
                  <template v-if="cell">
                    <TinyChain :beads="cell.beads" verdict="" :finished="false" />
                    <span
                      v-if="cell.mark !== null"
                      class="mark"
                      :class="{ outdated: cell.outdated }"
                      :title="said(cell)"
                      >{{ number(cell.mark) }}{{ cell.outdated ? ` → ${number(cell.proposed)}?` : '' }}</span
                    >
                    <span v-else-if="!cell.waits" class="proposed" :class="{ eye: cell.eye.length }" :title="said(cell)"
                      >{{ number(cell.proposed) }}{{ cell.eye.length ? ' ◔' : '' }}</span
                    >
                    <span v-else class="muted">…</span>
                  </template>
                </template>
              </td>
            </tr>
          </tbody>
        </table>
        <SchemeForm v-if="scheme !== null" :item="scheme" @done="scheme = null" />
        <KeyList :group="MARKING" />
        <p class="muted legend">
          <span class="proposed">2</span> proposed <span class="proposed eye">2 ◔</span> proposed, look first
          <span class="mark">2</span> confirmed
        </p>
      </div>
      <TypeLines
        v-if="writing !== null"
        v-model="writing"
        :who="name(marking.row)"
        :item="marking.table.items[marking.column]?.id ?? 0"
        :number="marking.table.items[marking.column]?.number ?? 0"
        @keep="keepTyped"
        @leave="leaveTyping"
      />
      <OpenedWorking v-else-if="marking.opened" :working="marking.opened" />
    </div>
  </main>
</template>

<style scoped>
.page {
  max-width: 1500px;
  margin: 0 auto;
  padding: 22px 28px;
}
.faces {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 18px;
  margin-bottom: 10px;
}
.faces a {
  color: var(--settles);
}
.faces a.router-link-exact-active {
  color: var(--ink);
  font-weight: 700;
  text-decoration: none;
}
progress {
  width: 100%;
  height: 6px;
}
.halves {
  display: grid;
  gap: 22px;
}
.halves.beside {
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
}
.scroll {
  overflow-x: auto;
  min-width: 0;
}
table {
  border-collapse: collapse;
  background: var(--sheet);
}
th,
td {
  border: 1px solid var(--hairline);
  padding: 4px 8px;
  text-align: left;
  font-weight: 400;
  white-space: nowrap;
}
tbody th {
  position: sticky;
  left: 0;
  background: var(--paper);
}
thead th {
  vertical-align: top;
  max-width: 190px;
  overflow: hidden;
  background: var(--paper);
}
.number,
.sum {
  font-weight: 700;
}
tbody .sum {
  position: static;
  background: none;
}
.given {
  display: block;
  font-size: 0.92em;
  overflow: hidden;
}
.worth {
  font-size: 13px;
  padding: 0;
  color: var(--muted);
}
td {
  min-width: 84px;
  cursor: default;
}
td.on {
  background: var(--quiet);
}
td:focus-visible {
  outline-offset: -2px;
}
td :deep(svg) {
  vertical-align: middle;
  margin-right: 6px;
}
.mark {
  display: inline-block;
  min-width: 26px;
  text-align: center;
  font-weight: 700;
  background: var(--ink);
  color: var(--sheet);
  border-radius: 5px;
  padding: 0 6px;
}
.mark.outdated {
  background: var(--sheet);
  color: var(--widens);
  border: 2px solid var(--widens);
}
.older {
  border-left: 3px solid var(--widens);
  padding: 2px 12px;
}
.proposed {
  display: inline-block;
  min-width: 26px;
  text-align: center;
  border: 1px dashed var(--muted);
  border-radius: 5px;
  padding: 0 6px;
}
.proposed.eye {
  border-color: var(--widens);
  color: var(--widens);
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
  margin-bottom: 8px;
  font-size: 14px;
}
.tools span {
  min-width: 130px;
}
.tools button {
  border: 1px solid var(--hairline);
  min-width: 32px;
}
.legend {
  font-size: 13px;
  padding-top: 6px;
}
@media (max-width: 900px) {
  .halves.beside {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import PageHeader from '@/features/session/PageHeader.vue'
import KeyList from '@/components/KeyList.vue'
import MathText from '@/components/MathText.vue'
import RunProgress from '@/components/RunProgress.vue'
import RatingMark from '@/components/RatingMark.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { useBuild } from '@/features/build/store'
import { useRegional } from '@/lib/regional'
import { useRequest } from '@/composables/useRequest'
import { formWords } from '@/lib/items'
import { instruction } from '@/lib/tasks'
import { actionOf, BUILDING, type BuildAction } from '@/lib/shortcuts'

/** A sheet from nothing: what it is for, a ladder of rising problems, each kept, exchanged or left out by one key. */
const build = useBuild()
const router = useRouter()
const { now: drawing, away, quiet } = build.drawing
const loading = useRequest('The server does not answer. Try again in a moment.')
const { tenths } = useRegional()
const list = ref<HTMLElement | null>(null)
const search = ref<HTMLInputElement | null>(null)
const looked = ref('')
const shown = computed(() => {
  const words = looked.value.trim().toLowerCase()
  return build.families.filter(
    (family) =>
      !words ||
      `${family.name} ${family.description}`.toLowerCase().includes(words) ||
      build.wish.families.includes(family.id),
  )
})
const EVENT_WORDS: Record<string, string> = {
  extraneous: 'an extraneous candidate',
  'none-left': 'no candidate left',
  'no-solution': 'no solution',
  'all-reals': 'all real numbers',
  prime: 'prime',
  'prime-tempting': 'prime, but tempting',
  'common-factor': 'a common factor first',
  opposite: 'opposite denominators',
  'numerator-gone': '1 left above',
  fractions: 'fractions',
  'fraction-answer': 'a fraction in the answer',
  'root-answer': 'a root in the answer',
  'zero-answer': 'zero in the answer',
  'negative-answer': 'a negative answer',
  'double-root': 'a double root',
  hole: 'a hole',
  'hole-and-oblique': 'a hole beside an oblique asymptote',
  'hole-on-axis': 'a hole on an axis',
  'equal-fractions': 'equal fractions',
  'big-pair': 'a big pair to search',
  'two-letters': 'two letters',
  pattern: 'a pattern that saves work',
  substitution: 'a substitution',
}

onMounted(async () => {
  await loading.run(() => build.load())
  await nextTick()
  if (build.rungs.length) await focusRow()
  else search.value?.focus()
})

function chooseFirst(): void {
  const first = shown.value.find((family) => !build.wish.families.includes(family.id))
  if (!looked.value.trim() || !first) return
  build.wish.families.push(first.id)
  looked.value = ''
}

async function propose(): Promise<void> {
  if (!build.wish.families.length && !build.wish.slip) return
  if (await build.propose()) await focusRow()
}

async function focusRow(): Promise<void> {
  await nextTick()
  list.value?.querySelector<HTMLElement>('[tabindex="0"]')?.focus()
}
watch(() => build.at, focusRow)

function onRow(event: KeyboardEvent): void {
  const action = actionOf(BUILDING, event)
  if (action === null) return
  event.preventDefault()
  act(action)
}

function act(action: BuildAction): void {
  const last = build.rungs.length - 1
  const does: Record<BuildAction, () => unknown> = {
    up: () => (build.at = Math.max(0, build.at - 1)),
    down: () => (build.at = Math.min(last, build.at + 1)),
    first: () => (build.at = 0),
    last: () => (build.at = last),
    pin: () => build.pin(),
    like: () => build.replace('like').then(focusRow),
    easier: () => build.replace('easier').then(focusRow),
    harder: () => build.replace('harder').then(focusRow),
    remove: () => build.remove(),
    form: () => build.changeForm(),
    instruct: () => openField('words'),
    edit: () => openField('given'),
    'move-up': () => build.move(-1),
    'move-down': () => build.move(1),
    undo: () => build.undo(),
    redo: () => build.redo(),
  }
  does[action]()
  if (action !== 'instruct' && action !== 'edit') void focusRow()
}

/** What is written in the row: the words over a problem, or the problem itself. */
const writing = ref<'words' | 'given' | null>(null)
const written = ref('')
const field = ref<HTMLInputElement[]>([])
async function openField(what: 'words' | 'given'): Promise<void> {
  writing.value = what
  written.value = (what === 'words' ? build.rungs[build.at]?.instruction : build.rungs[build.at]?.given) ?? ''
  await nextTick()
  field.value[0]?.focus()
}
async function keepField(): Promise<void> {
  const what = writing.value
  if (what === null) return
  writing.value = null // the field that closes loses the focus, and would be kept twice
  if (what === 'words') build.instruct(written.value.trim())
  else if (!(await build.edit(written.value.trim())) && build.request.trouble.value) {
    writing.value = what // what was typed stays, to be mended
    await nextTick()
    field.value[0]?.focus()
    return
  }
  void focusRow()
}
function closeField(): void {
  writing.value = null
  void focusRow()
}
/** The words that stand over a problem where they differ from those over the one before. */
const heading = (k: number): string => {
  const own = build.rungs[k]?.instruction ?? ''
  return own !== (build.rungs[k - 1]?.instruction ?? '') ? own || 'the usual instruction again' : ''
}

function onKey(event: KeyboardEvent): void {
  if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
    event.preventDefault()
    void propose()
  }
}

async function make(): Promise<void> {
  if (!build.title.trim() || !build.rungs.length) return
  const made = await build.make()
  if (made !== null) await router.push(`/sheets/${made}/print`)
}
const TOOLS: [BuildAction, string][] = [
  ['pin', 'keep'],
  ['like', 'another like it'],
  ['easier', 'easier'],
  ['harder', 'harder'],
  ['form', 'other form'],
  ['instruct', 'words over it'],
  ['remove', 'leave out'],
]
</script>

<template>
  <main class="page" @keydown="onKey">
    <PageHeader title="Build a sheet" />
    <TroubleNote :request="loading" />
    <div class="halves">
      <form class="wishes" aria-label="What it is for" @submit.prevent="propose">
        <label class="field">
          <span>Kinds of problem: type, Enter takes the first</span>
          <input
            ref="search"
            v-model="looked"
            type="search"
            placeholder="linear, factor, roots …"
            @keydown.enter.exact.prevent="looked.trim() ? chooseFirst() : propose()"
          />
        </label>
        <ul class="families" aria-label="Kinds of problem">
          <li v-for="family in shown" :key="family.id">
            <label>
              <input v-model="build.wish.families" type="checkbox" :value="family.id" />
              <span
                >{{ family.name }} <small class="muted">{{ family.example }}</small></span
              >
            </label>
          </li>
        </ul>
        <div class="row">
          <label class="field small"
            ><span>how many</span><input v-model.number="build.wish.count" type="number" min="1" max="40"
          /></label>
          <label class="field small"
            ><span>from level</span><input v-model.number="build.wish.low" type="number" min="1" :max="build.top"
          /></label>
          <label class="field small"
            ><span>to level</span><input v-model.number="build.wish.high" type="number" min="1" max="9"
          /></label>
          <label class="field small"
            ><span>numbers up to</span><input v-model.number="build.wish.largest" type="number" min="5" max="100000"
          /></label>
        </div>
        <label class="field">
          <span>An error that would show in each</span>
          <select v-model="build.wish.slip">
            <option value="">anywhere</option>
            <option v-for="slip in build.slips" :key="slip.id" :value="slip.id">{{ slip.name }}</option>
          </select>
        </label>
        <details>
          <summary>
            What should happen in it{{ build.wish.events.length ? ` (${build.wish.events.length})` : '' }}
          </summary>
          <ul class="families">
            <li v-for="event in build.events" :key="event">
              <label
                ><input v-model="build.wish.events" type="checkbox" :value="event" />
                {{ EVENT_WORDS[event] ?? event }}</label
              >
            </li>
          </ul>
        </details>
        <p class="row">
          <el-button
            type="primary"
            native-type="submit"
            :loading="build.request.busy.value"
            :disabled="!build.wish.families.length && !build.wish.slip"
            >{{ build.rungs.length ? 'Propose anew' : 'Propose a ladder' }}</el-button
          >
          <span class="muted">Ctrl+Enter</span>
          <label class="field small seed"
            ><span>draw no.</span><input v-model.number="build.wish.seed" type="number" min="0" max="1000000"
          /></label>
        </p>
      </form>
      <section class="ladder" aria-label="The ladder">
        <TroubleNote :request="build.request" />
        <RunProgress
          v-if="drawing"
          :run="drawing"
          what="parts drawn"
          :away="away"
          :quiet="quiet"
          @stop="build.drawing.stop()"
        />
        <p v-if="build.without.length" role="status">
          No problem was found with {{ build.without.map((event) => EVENT_WORDS[event] ?? event).join(' or ') }}.
        </p>
        <ol v-if="drawing && !drawing.ended && build.coming.length" class="coming" aria-label="Drawn so far">
          <li v-for="rung in build.coming" :key="rung.given">
            <MathText :latex="rung.given_latex" :display="false" />
          </li>
        </ol>
        <p v-else-if="!build.rungs.length" class="empty muted">
          Choose one or more kinds of problem and propose a ladder: problems by rising difficulty, each worked and
          verified, no two the same. Then keep, exchange or leave out, one key each. Or take what you have used before
          <RouterLink to="/bank">from the bank</RouterLink>.
        </p>
        <template v-else>
          <p class="sum">
            {{ build.rungs.length }} problems, about {{ build.minutes }} minutes, {{ build.marks }} marks
            <button class="plain-button" :disabled="!build.before.length" @click="act('undo')">undo</button>
          </p>
          <ol ref="list">
            <li
              v-for="(rung, k) in build.rungs"
              :key="`${k} ${rung.given}`"
              :class="{ on: k === build.at }"
              :tabindex="k === build.at ? 0 : -1"
              :aria-current="k === build.at"
              :aria-label="`${k + 1}: ${instruction(rung.task, rung.variable ?? '')} ${rung.given}, difficulty ${tenths(rung.difficulty)}, ${rung.adds}${(rung.form ?? 'work') === 'work' ? '' : `, ${formWords(rung.form)}`}${rung.instruction ? `, under “${rung.instruction}”` : ''}${rung.pinned ? ', kept' : ''}`"
              @click="build.at = k"
              @keydown="onRow"
            >
              <span v-if="heading(k)" class="heading" aria-hidden="true">{{ heading(k) }}</span>
              <span class="place" aria-hidden="true">{{ k + 1 }}</span>
              <span class="given" aria-hidden="true"><MathText :latex="rung.given_latex" :display="false" /></span>
              <span class="answer" aria-hidden="true"><MathText :latex="rung.answer_latex" :display="false" /></span>
              <RatingMark :rating="rung.difficulty" />
              <span class="adds muted" aria-hidden="true"
                >{{ rung.adds }}<b v-if="(rung.form ?? 'work') !== 'work'"> · {{ formWords(rung.form) }}</b
                ><b v-if="rung.pinned"> · kept</b></span
              >
              <input
                v-if="k === build.at && writing !== null"
                ref="field"
                v-model="written"
                class="words"
                :maxlength="writing === 'words' ? 120 : 600"
                spellcheck="false"
                :aria-label="writing === 'words' ? 'Words over this problem and those behind it' : 'The problem'"
                :placeholder="
                  writing === 'words' ? 'Words over it, such as: Solve by factoring. Enter keeps them.' : ''
                "
                @keydown.enter.stop.prevent="keepField"
                @keydown.esc.stop.prevent="closeField"
                @keydown.stop
                @blur="keepField"
              />
              <span v-if="k === build.at" class="tools">
                <button
                  v-for="[action, words] in TOOLS"
                  :key="action"
                  class="plain-button"
                  tabindex="-1"
                  @click.stop="act(action)"
                >
                  {{ action === 'pin' && rung.pinned ? 'let go' : words }}
                </button>
              </span>
            </li>
          </ol>
          <form class="make" @submit.prevent="make">
            <input
              v-model="build.title"
              aria-label="Title of the sheet"
              placeholder="Title of the sheet"
              maxlength="120"
              @change="build.keep()"
            />
            <el-button native-type="submit" type="primary" :disabled="!build.title.trim()">Make the sheet</el-button>
          </form>
          <KeyList :group="BUILDING" />
        </template>
      </section>
    </div>
  </main>
</template>

<style scoped>
.page {
  max-width: 1240px;
  margin: 0 auto;
  padding: 22px 28px;
}
.halves {
  display: grid;
  grid-template-columns: 330px minmax(0, 1fr);
  gap: 38px;
}
.wishes {
  display: grid;
  gap: 14px;
  align-content: start;
}
.field span {
  display: block;
  font-size: 13px;
  color: var(--muted);
  margin-bottom: 3px;
}
.field select,
.field input {
  width: 100%;
  padding: 7px 10px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.small {
  width: 74px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 10px;
}
.seed {
  margin-left: auto;
}
.families {
  list-style: none;
  margin: 0;
  padding: 6px 10px;
  max-height: 290px;
  overflow: auto;
  border: 1px solid var(--hairline);
  border-radius: 8px;
}
.families label {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 3px 0;
}
.families small {
  font-family: var(--mono);
  font-size: 12px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--hairline);
}
li[tabindex] {
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr) minmax(0, auto) 74px;
  gap: 2px 12px;
  align-items: center;
  padding: 8px 8px;
  border-bottom: 1px solid var(--hairline);
  cursor: default;
}
li.on {
  background: var(--sheet);
  box-shadow: inset 3px 0 var(--settles);
}
li:focus-visible {
  outline-offset: -2px;
}
.coming li {
  padding: 8px;
  border-bottom: 1px solid var(--hairline);
  color: var(--muted);
}
.place {
  color: var(--muted);
}
.given {
  font-size: 1.12em;
  overflow: hidden;
}
.answer {
  color: var(--muted);
  font-size: 0.92em;
}
.adds {
  grid-column: 2 / -1;
  font-size: 13px;
}
.heading {
  grid-column: 1 / -1;
  font-weight: 700;
}
.words {
  grid-column: 2 / -1;
  padding: 6px 9px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.tools {
  grid-column: 2 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.tools button {
  font-size: 13px;
  border: 1px solid var(--hairline);
}
.make {
  display: flex;
  gap: 10px;
  margin-top: 18px;
}
.make input {
  flex: 1;
  padding: 7px 10px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.sum {
  padding-bottom: 6px;
}
.empty {
  max-width: 56ch;
  padding-top: 20px;
}
@media (max-width: 900px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import PageHeader from '@/features/session/PageHeader.vue'
import MathText from '@/components/MathText.vue'
import RunProgress from '@/components/RunProgress.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { usePaper, type Layout } from '@/features/paper/store'
import { ITEM_FORMS } from '@/lib/items'
import { useRequest } from '@/composables/useRequest'
import { useSheets } from '@/features/sheets/store'
import type { Schema } from '@/api/client'
import { actionOf, ADVICE } from '@/lib/shortcuts'

/** A sheet on paper: what it is for on the left, the pages as they will print on the right. */
const props = defineProps<{ sheetId: number }>()
const paper = usePaper()
const { now: items, away, quiet } = paper.making
const sheets = useSheets()
const loading = useRequest()
const at = ref(0)

const KINDS: [Layout['kind'], string, string][] = [
  ['sheet', 'Sheet', 'the problems with room to work'],
  ['answers', 'Answers', 'the answers alone'],
  ['key', 'Worked key', 'every problem worked, line by line'],
  ['choose', 'To choose from', 'four answers each, three of them tempting'],
  ['mend', 'To mend', 'worked, with one slip in each to be found'],
  ['fill', 'To fill in', 'worked, with numbers left out'],
  ['way', 'Which way', 'the way is named, nothing is worked'],
  ['claim', 'True or not', 'a claim, and numbers that refute it'],
  ['cards', 'Cards', 'one problem a card, the answer on its back'],
  ['large', 'Large print', '18 point, one column'],
]
const FILES = [
  ['json', 'whole: it comes back the same'],
  ['chain', 'the text form of workings'],
  ['csv', 'a table of problems and answers'],
  ['tex', 'a LaTeX document with the key'],
  ['html', 'one page that opens anywhere'],
  ['qti', 'a QTI 3 package for other systems'],
] as const
const SPACES: [Layout['space'], string][] = [
  ['blank', 'blank'],
  ['lines', 'lines'],
  ['squares', 'squares'],
  ['none', 'none'],
]
const worked = computed(() => ['sheet', 'choose', 'mend', 'fill', 'way', 'claim', 'large'].includes(paper.layout.kind))
const columned = computed(() => !['large', 'cards'].includes(paper.layout.kind))
const count = computed(() => paper.found?.pages.length ?? 0)
const picture = (svg: string): string => `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`

const router = useRouter()
const advising = useRequest('The server does not answer. Try again in a moment.')
const setting = useRequest('The server does not answer. Nothing was changed; try again in a moment.')
const versioning = useRequest('The server does not answer. No version was made; try again in a moment.')
const { busy: making } = versioning
const versionName = ref('B')
const told = ref('')

watch(
  () => props.sheetId,
  (id) => {
    void loading.run(() => sheets.open(id))
    paper.advised = null
    void advising.run(() => paper.advise(id))
  },
  { immediate: true },
)
watch(
  () => [props.sheetId, { ...paper.layout }],
  () => void paper.show(props.sheetId),
  { immediate: true },
)

/** Keeps how an item stands on paper, and shows the pages anew. */
function setItem(problem: number, change: Parameters<typeof paper.setItem>[1]): Promise<boolean> {
  return setting.run(async () => {
    await paper.setItem(problem, change)
    await sheets.open(props.sheetId)
    void paper.show(props.sheetId)
  })
}

function makeVersion(): Promise<boolean> {
  return versioning.run(async () => {
    const made = await paper.version(props.sheetId, versionName.value.trim() || 'B')
    const stayed = made.stayed.join(', ')
    told.value = stayed ? `Of number ${stayed} no other like it was found: it stays as it is.` : ''
    paper.layout.version = versionName.value.trim() || 'B'
    await router.push(`/sheets/${made.sheet}/print`)
  })
}
watch(count, () => (at.value = 0))

type Advised = Schema['AdviceOut']
const MENDS: Record<string, string> = {
  replace: 'put another like it',
  task: 'set the task that fits',
  key: 'work the key anew',
}
const mending = useRequest('The server does not answer. Nothing was changed; try again in a moment.')
const mended = ref<{ words: string; done: Schema['MendedOut'] }[]>([])
let draws = 1
const list = ref<HTMLElement | null>(null)

async function anew(): Promise<void> {
  await sheets.open(props.sheetId)
  void paper.show(props.sheetId)
  await paper.advise(props.sheetId)
  await nextTick()
  list.value?.querySelector<HTMLElement>('[tabindex="0"]')?.focus()
}
/** One key mends what was said of the last item that it is about; the one before is kept, to be put back. */
function mend(each: Advised): Promise<boolean> {
  const item = each.items.at(-1)
  if (!each.mend || item === undefined) return Promise.resolve(false)
  return mending.run(async () => {
    const done = await paper.mend(props.sheetId, item, each.mend, draws++)
    mended.value.push({ words: `Number ${item}: ${MENDS[each.mend]}.`, done })
    await anew()
  })
}
function putBack(): Promise<boolean> {
  const last = mended.value.at(-1)
  if (!last) return Promise.resolve(false)
  return mending.run(async () => {
    await paper.putBack(last.done)
    mended.value.pop()
    await anew()
  })
}
function onAdvice(event: KeyboardEvent, each: Advised): void {
  const action = actionOf(ADVICE, event)
  if (action === null) return
  event.preventDefault()
  if (action === 'mend') void mend(each)
  if (action === 'undo') void putBack()
  const rows = [...(list.value?.querySelectorAll<HTMLElement>('li') ?? [])]
  const to = rows.indexOf(event.currentTarget as HTMLElement) + { down: 1, up: -1, mend: 0, undo: 0 }[action]
  rows[to]?.focus()
}
</script>

<template>
  <main class="page">
    <PageHeader :title="sheets.sheet?.title ?? 'Print'" />
    <TroubleNote :request="loading" />
    <div class="halves">
      <form class="wishes" aria-label="How it prints" @submit.prevent>
        <fieldset>
          <legend>What</legend>
          <label v-for="[kind, words, about] in KINDS" :key="kind" class="kind">
            <input v-model="paper.layout.kind" type="radio" name="kind" :value="kind" />
            <span
              ><b>{{ words }}</b
              ><small class="muted">{{ about }}</small></span
            >
          </label>
        </fieldset>
        <fieldset v-if="columned">
          <legend>Columns</legend>
          <label v-for="k in [1, 2, 3]" :key="k"
            ><input v-model="paper.layout.columns" type="radio" name="columns" :value="k" /> {{ k }}</label
          >
        </fieldset>
        <fieldset v-if="worked">
          <legend>Room to work</legend>
          <label v-for="[space, words] in SPACES" :key="space"
            ><input v-model="paper.layout.space" type="radio" name="space" :value="space" /> {{ words }}</label
          >
        </fieldset>
        <fieldset>
          <legend>Paper</legend>
          <label><input v-model="paper.layout.paper" type="radio" name="paper" value="a4" /> A4</label>
          <label><input v-model="paper.layout.paper" type="radio" name="paper" value="letter" /> Letter</label>
        </fieldset>
        <label v-if="paper.layout.kind === 'key'"
          ><input v-model="paper.layout.reasons" type="checkbox" /> with the reason of each line</label
        >
        <label v-if="paper.layout.kind !== 'cards'"
          ><input v-model="paper.layout.marks" type="checkbox" /> marks beside the items</label
        >
        <label v-if="worked"><input v-model="paper.layout.name_line" type="checkbox" /> a line for name and date</label>
        <label class="version"
          ><span class="muted">Version</span>{{ ' '
          }}<input v-model.lazy="paper.layout.version" maxlength="12" aria-label="Version" />
          <span class="muted"> order</span>{{ ' '
          }}<select v-model.number="paper.layout.order" aria-label="Order of the items">
            <option :value="0">as it is</option>
            <option v-for="k in 5" :key="k" :value="k">form {{ k }}</option>
          </select></label
        >
        <p class="go">
          <a class="open" :href="paper.address(sheetId)" target="_blank" rel="noopener">Open the PDF</a>
          <RouterLink :to="`/sheets/${sheetId}`">Back to the desk</RouterLink>
        </p>
        <p class="files">
          <span class="muted">As a file:</span>
          <a
            v-for="[form, words] in FILES"
            :key="form"
            :href="`/api/sheets/${sheetId}/export?form=${form}`"
            :title="words"
            >{{ form }}</a
          >
        </p>
        <details v-if="sheets.sheet" class="items">
          <summary>Items one by one</summary>
          <ol>
            <li v-for="(row, k) in sheets.sheet.problems" :key="row.id">
              <span class="given"><MathText :latex="row.given_latex" :display="false" /></span>
              <select
                :value="row.form"
                :aria-label="`Form of number ${k + 1}`"
                @change="setItem(row.id, { form: ($event.target as HTMLSelectElement).value as 'work' })"
              >
                <option v-for="[form, words] in ITEM_FORMS" :key="form" :value="form">{{ words }}</option>
              </select>
              <input
                :value="row.instruction"
                maxlength="120"
                :aria-label="`Instruction over number ${k + 1}`"
                placeholder="usual instruction"
                @change="setItem(row.id, { instruction: ($event.target as HTMLInputElement).value })"
              />
              <span class="files muted">
                {{ row.task === 'analyze' ? 'graph' : 'chain' }}:
                <a
                  v-for="form in ['svg', 'png']"
                  :key="form"
                  :href="`/api/problems/${row.id}/picture?form=${form}&shown=${row.task === 'analyze' ? 'graph' : 'chain'}`"
                  >{{ form }}</a
                >
              </span>
            </li>
          </ol>
          <TroubleNote :request="setting" />
        </details>
        <fieldset class="another">
          <legend>Another version, other numbers</legend>
          <input v-model="versionName" maxlength="12" aria-label="Name of the other version" />
          <el-button :loading="making" @click="makeVersion">Make it</el-button>
          <TroubleNote :request="versioning" />
        </fieldset>
      </form>
      <section class="pages" aria-label="Preview" :aria-busy="paper.request.busy.value">
        <TroubleNote :request="paper.request" />
        <details v-if="paper.advised" class="advice" :open="paper.advised.advice.length < 4 || mended.length > 0">
          <summary>
            {{
              paper.advised.advice.length
                ? `A colleague would say ${paper.advised.advice.length === 1 ? 'one thing' : `${paper.advised.advice.length} things`}`
                : 'Nothing to say against it.'
            }}
          </summary>
          <ul v-if="paper.advised.advice.length" ref="list">
            <li v-for="(each, k) in paper.advised.advice" :key="k" :tabindex="0" @keydown.self="onAdvice($event, each)">
              <RouterLink v-if="each.items.length" :to="`/sheets/${sheetId}/${each.items.at(-1)}`">{{
                each.items.join(', ')
              }}</RouterLink>
              {{ each.text }}
              <button v-if="each.mend" class="plain-button mend" tabindex="-1" @click="mend(each)">
                {{ MENDS[each.mend] }} <kbd>m</kbd>
              </button>
            </li>
          </ul>
          <p v-if="mended.length" role="status">
            {{ mended.at(-1)!.words }} <button class="plain-button mend" @click="putBack">put back</button>
          </p>
          <TroubleNote :request="mending" />
        </details>
        <TroubleNote :request="advising" />
        <RunProgress
          v-if="items"
          :run="items"
          what="items made"
          :away="away"
          :quiet="quiet"
          @stop="paper.making.stop()"
        />
        <p v-if="told" class="doubts" role="status">{{ told }}</p>
        <div v-if="paper.found?.doubts.length" class="doubts" role="status">
          <p v-for="doubt in paper.found.doubts" :key="doubt.item">Number {{ doubt.item }}: {{ doubt.text }}</p>
        </div>
        <template v-if="paper.found">
          <p class="turn">
            <button class="plain-button" :disabled="at === 0" aria-label="Page before" @click="at--">‹</button>
            page {{ at + 1 }} of {{ count }}
            <button class="plain-button" :disabled="at >= count - 1" aria-label="Next page" @click="at++">›</button>
            <template v-if="paper.advised">
              <span class="about"
                >about {{ Math.round(paper.advised.minutes) }} minutes; there are
                <input
                  v-model.lazy.number="paper.lesson"
                  type="number"
                  min="1"
                  max="600"
                  class="lesson"
                  aria-label="Minutes of the lesson"
                  @change="advising.run(() => paper.advise(sheetId))"
              /></span>
            </template>
            <span class="files"
              >as a picture:
              <a v-for="form in ['svg', 'png']" :key="form" :href="paper.picture(sheetId, at + 1, form)">{{
                form
              }}</a></span
            >
          </p>
          <img
            class="paper"
            :class="{ old: paper.request.busy.value }"
            :src="picture(paper.found.pages[at] ?? '')"
            :alt="`Page ${at + 1} as it will print`"
          />
        </template>
      </section>
    </div>
  </main>
</template>

<style scoped>
.page {
  max-width: 1180px;
  margin: 0 auto;
  padding: 22px 28px;
}
.halves {
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr);
  gap: 34px;
}
.wishes {
  display: grid;
  gap: 16px;
  align-content: start;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
legend {
  padding: 0 0 4px;
  font-size: 13px;
  color: var(--muted);
}
.kind {
  flex-basis: 100%;
  display: flex;
  gap: 9px;
  align-items: baseline;
  padding: 3px 0;
}
.kind small {
  display: block;
  font-size: 13px;
}
.go {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 18px;
  align-items: baseline;
  padding-top: 8px;
}
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
}
.files a,
.go a {
  color: var(--settles);
}
.go .open {
  background: var(--settles);
  color: #fff;
  padding: 8px 16px;
  border-radius: 6px;
  text-decoration: none;
}
.paper {
  display: block;
  width: 100%;
  max-width: 760px;
  background: #fff;
  border: 1px solid var(--hairline);
  box-shadow: 0 6px 22px rgb(29 36 64 / 12%);
}
.paper.old {
  opacity: 0.5;
}
.turn {
  padding-bottom: 8px;
  color: var(--muted);
}
.turn button:disabled {
  visibility: hidden;
}
.version input,
.another input {
  width: 60px;
  padding: 5px 8px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.items ol {
  margin: 8px 0 0;
  padding-left: 24px;
}
.items li {
  padding: 4px 0 8px;
}
.items .given {
  display: block;
  overflow: hidden;
}
.items select,
.items input {
  width: 48%;
  padding: 4px 6px;
  font-size: 13px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.advice {
  border-left: 3px solid var(--widens);
  padding: 2px 12px;
  margin-bottom: 12px;
}
.advice ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
  font-size: 14px;
}
.advice li {
  padding: 3px 4px;
}
.advice li a {
  color: var(--settles);
  display: inline-block;
  min-width: 26px;
}
.about {
  margin-left: 18px;
}
.mend {
  font-size: 13px;
  border: 1px solid var(--hairline);
  margin-left: 4px;
}
.lesson {
  width: 62px;
  padding: 2px 6px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.turn .files {
  display: inline-flex;
  margin-left: 18px;
}
.doubts {
  border-left: 3px solid var(--breaks);
  padding: 2px 12px;
  margin-bottom: 12px;
}
@media (max-width: 800px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { useMarking } from './store'
import { usePages } from './pages'
import PageRowOf from './PageRowOf.vue'
import KeyList from '@/components/KeyList.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { SETTLING } from '@/lib/shortcuts'

/** The pages of a set: whose they are, and what is doubtful on them, each row of handwriting above its reading. */
const marking = useMarking()
const store = usePages()
const column = ref<HTMLElement | null>(null)
let left = false
onBeforeUnmount(() => (left = true))

watch(
  () => marking.set?.id,
  async (set) => {
    if (set === undefined || !(await store.load(set))) return
    if (!store.open && store.pages[0]) await show(store.pages[0].id)
    void store.follow(() => left)
  },
  { immediate: true },
)
const students = computed(() => marking.table.students)
const name = (id: number | null): string =>
  id === null ? '' : (students.value.find((each) => each.id === id)?.name ?? '')
const number = (item: number | null): number | null =>
  marking.table.items.find((each) => each.id === item)?.number ?? null
const before = computed(() => {
  const at = [...store.pages].sort((a, b) => a.id - b.id)
  const here = at.findIndex((page) => page.id === store.open?.id)
  return here > 0 ? (at[here - 1]?.student ?? null) : null
})
const open = computed(() => store.pages.find((page) => page.id === store.open?.id)?.open ?? 0)

async function show(page: number): Promise<void> {
  if (await store.show(page)) await next()
}
/** The next symbol or line that is asked about. */
async function next(): Promise<void> {
  await nextTick()
  column.value?.querySelector<HTMLElement>('[data-asks]')?.focus()
}
async function takeFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const set = marking.set?.id
  if (set === undefined) return
  const picked = [...(input.files ?? [])]
  input.value = '' // the same files may be picked again while these go
  await store.takeIn(set, picked)
  if (!store.open && store.pages[0]) await show(store.pages[0].id)
  void store.follow(() => left)
}
async function giveTo(student: number | null): Promise<void> {
  if (await store.giveTo(student)) await next()
}
async function again(): Promise<void> {
  if (await store.readAgain()) void store.follow(() => left)
}
const removing = ref(0)
async function remove(): Promise<void> {
  if (removing.value !== store.open?.id) removing.value = store.open?.id ?? 0
  else if (await store.remove()) await (store.pages[0] ? show(store.pages[0].id) : nextTick())
}
/** The page is there already: this picture of it goes. */
async function theSame(): Promise<void> {
  if (await store.remove()) await (store.pages[0] ? show(store.pages[0].id) : nextTick())
}
async function walk(by: 1 | -1): Promise<void> {
  const at = store.pages.findIndex((page) => page.id === store.open?.id)
  const to = store.pages[at + by]
  if (to) await show(to.id)
}
const state = (page: (typeof store.pages)[number]): string =>
  page.state === 'waiting'
    ? 'being read'
    : page.state === 'failed'
      ? 'not read'
      : page.again_of !== null
        ? 'there already?'
        : page.student === null
          ? 'whose?'
          : page.open
            ? `${page.open} to settle`
            : 'settled'
</script>

<template>
  <section class="pages" aria-label="Pages" @keydown.page-down.prevent="walk(1)" @keydown.page-up.prevent="walk(-1)">
    <TroubleNote :request="store.request" />
    <p class="row">
      <label class="file">Pages <input type="file" multiple accept=".png,.jpg,.jpeg,.pdf" @change="takeFile" /></label>
      <span class="muted">scanned or photographed: PNG, JPEG, PDF</span>
      <span role="status">{{ store.told }}</span>
      <span v-if="!store.reader" class="muted">No page reader is set up: lines are typed beside the page.</span>
    </p>
    <div v-if="store.uploads.length" class="uploads">
      <progress
        v-if="store.sending"
        :value="store.sent"
        :max="store.uploads.length"
        :aria-label="`${store.sent} of ${store.uploads.length} files`"
      />
      <ul aria-label="Files">
        <li v-for="(each, k) in store.uploads" :key="k" :class="each.fate">
          {{ each.name }} <small>{{ each.words || (each.fate === 'goes' ? 'on its way' : 'waits') }}</small>
        </li>
      </ul>
    </div>
    <p v-if="!store.pages.length" class="muted">
      No pages yet. What is sure on them goes into the marking table at once; what is doubtful is asked about here.
    </p>
    <div v-else class="halves">
      <ol class="strip" aria-label="All pages">
        <li v-for="page in store.pages" :key="page.id">
          <button
            class="plain-button"
            :class="{ on: page.id === store.open?.id }"
            :aria-current="page.id === store.open?.id"
            @click="show(page.id)"
          >
            <img :src="`/api/pages/${page.id}/picture`" alt="" loading="lazy" width="46" />
            <span
              >{{ name(page.student) || page.name || 'no name' }}<br /><small
                :class="page.student !== null && !page.open && page.state === 'read' ? 'muted' : 'asks'"
                >{{ state(page) }}</small
              ></span
            >
          </button>
        </li>
      </ol>
      <div v-if="store.open" ref="column">
        <div v-if="store.open.again_of !== null" class="again" role="alert">
          <p>This page looks like one that is here already. Nothing of it is taken in until you say.</p>
          <div class="both">
            <img :src="`/api/pages/${store.open.again_of}/picture`" alt="The page that is here" />
            <img :src="`/api/pages/${store.open.id}/picture`" alt="This page" />
          </div>
          <button class="plain-button" @click="theSame">the same: take this one away</button>
          <button class="plain-button" @click="store.isOther()">another page: take it in</button>
        </div>
        <p class="row">
          <label
            >Whose page
            <select
              :value="store.open.student ?? ''"
              aria-label="Whose page"
              @change="giveTo(Number(($event.target as HTMLSelectElement).value) || null)"
            >
              <option value="">nobody’s yet{{ store.open.name ? `: “${store.open.name}”` : '' }}</option>
              <option v-for="student in students" :key="student.id" :value="student.id">{{ student.name }}</option>
            </select></label
          >
          <button v-if="store.open.student === null && before !== null" class="plain-button" @click="giveTo(before)">
            {{ name(before) }}’s, like the page before
          </button>
          <span class="muted" role="status">{{
            store.open.state === 'waiting'
              ? 'It is being read.'
              : open
                ? `${open} to settle`
                : store.open.student === null
                  ? ''
                  : 'All of it is in the marking table.'
          }}</span>
          <button class="plain-button" @click="again">read it again</button>
          <button class="plain-button" @click="remove">
            {{ removing === store.open.id ? 'take it away with what came from it: once more' : 'take it away' }}
          </button>
        </p>
        <p v-if="store.open.trouble" class="trouble">{{ store.open.trouble }}</p>
        <PageRowOf
          v-for="line in store.open.lines"
          :key="line.at"
          :page="store.open"
          :line="line"
          :number="number(line.item)"
          @settled="next"
        />
        <a :href="`/api/pages/${store.open.id}/picture`" target="_blank" rel="noopener">the whole page</a>
        <KeyList :group="SETTLING" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.uploads ul {
  list-style: none;
  padding: 0;
  margin: 4px 0 10px;
  columns: 260px;
}
.uploads progress {
  width: 100%;
  height: 6px;
}
.uploads .refused {
  color: var(--breaks);
}
.uploads small {
  color: inherit;
  opacity: 0.85;
}
.again {
  border-left: 3px solid var(--widens);
  padding: 2px 12px;
  margin-bottom: 10px;
}
.both {
  display: flex;
  gap: 12px;
}
.both img {
  max-width: 46%;
  max-height: 260px;
  border: 1px solid var(--hairline);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
}
.halves {
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr);
  gap: 26px;
}
.strip {
  list-style: none;
  margin: 0;
  padding: 0;
}
.strip button {
  display: flex;
  gap: 10px;
  text-align: left;
  align-items: center;
  width: 100%;
  padding: 4px 6px;
}
.strip img {
  border: 1px solid var(--hairline);
  background: var(--sheet);
  min-height: 60px;
}
.strip .on {
  font-weight: 700;
  box-shadow: inset 3px 0 var(--settles);
}
.strip .on .asks {
  color: var(--ink);
}
.asks {
  color: var(--widens);
}
.trouble {
  border-left: 3px solid var(--widens);
  padding: 2px 12px;
}
select {
  padding: 5px 8px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
a {
  color: var(--settles);
}
@media (max-width: 800px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
  .strip {
    display: flex;
    overflow-x: auto;
  }
}
</style>

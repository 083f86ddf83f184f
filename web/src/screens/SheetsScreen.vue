<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import PageHeader from '@/features/session/PageHeader.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'
import GiveCopy from '@/features/sheets/GiveCopy.vue'
import { usePaper } from '@/features/paper/store'
import { useSheets } from '@/features/sheets/store'
import type { SheetRow } from '@/api/client'

const sheets = useSheets()
const paper = usePaper()
const router = useRouter()
const title = ref('')
const request = useRequest('The server does not answer. Try again in a moment.')
const loaded = ref(false)
const removing = ref<SheetRow | null>(null)
const renaming = ref<number | null>(null)
const newName = ref('')
const search = ref('')
const giving = ref<SheetRow | null>(null)
const given = ref('')

const load = (page = 1): Promise<boolean> =>
  request.run(async () => {
    await sheets.list(search.value.trim(), page)
    loaded.value = true
  })
onMounted(() => load())

function takeIn(event: Event): Promise<boolean> {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  if (!file) return Promise.resolve(false)
  return request.run(async () => {
    const taken = await paper.take(file)
    field.value = ''
    given.value = taken.left.length
      ? `Not taken: ${taken.left.map((each) => `${each.place} (${each.why})`).join('; ')}. The rest is here.`
      : `“${file.name}” is taken in.`
    await sheets.list()
  })
}

function wasGiven(words: string): void {
  giving.value = null
  given.value = words
}

function create(): Promise<boolean> {
  return request.run(async () => {
    if (!title.value.trim()) return
    await router.push(`/sheets/${await sheets.create(title.value)}`)
  })
}

function rename(row: SheetRow): Promise<boolean> {
  return request.run(async () => {
    if (newName.value.trim()) await sheets.rename(row.id, newName.value)
    renaming.value = null
    await sheets.list(search.value.trim())
  })
}

function startRename(row: SheetRow): void {
  renaming.value = row.id
  newName.value = row.title
}

function remove(): Promise<boolean> {
  return request.run(async () => {
    if (removing.value) await sheets.remove(removing.value.id)
    removing.value = null
  })
}

function sum(row: SheetRow): string {
  if (!row.problems) return 'no problems yet'
  const parts = [`${row.problems} problem${row.problems === 1 ? '' : 's'}`, `${row.sound} sound`]
  if (row.faulty) parts.push(`${row.faulty} with a fault`)
  const open = row.problems - row.sound - row.faulty
  if (open) parts.push(`${open} open`)
  return parts.join(' · ')
}
</script>

<template>
  <main class="page">
    <PageHeader title="Sheets" />
    <TroubleNote :request="request" />
    <p v-if="given" class="given" role="status">{{ given }}</p>
    <input
      v-if="sheets.all > 8"
      v-model="search"
      class="search"
      type="search"
      aria-label="Find a sheet by its title"
      placeholder="Find a sheet by its title"
      maxlength="120"
      @input="load()"
    />
    <ul v-if="sheets.rows.length" class="list">
      <li v-for="row in sheets.rows" :key="row.id">
        <form v-if="renaming === row.id" class="rename" @submit.prevent="rename(row)">
          <input v-model="newName" aria-label="New title" maxlength="120" autofocus @keydown.esc="renaming = null" />
          <el-button native-type="submit" size="small">Keep</el-button>
        </form>
        <template v-else>
          <RouterLink :to="`/sheets/${row.id}`" class="sheet">
            <span class="title"
              >{{ row.title }} <small v-if="row.received_from" class="muted">from {{ row.received_from }}</small></span
            >
            <span class="bar" aria-hidden="true">
              <i v-for="k in row.sound" :key="`s${k}`" class="sound" />
              <i v-for="k in row.faulty" :key="`f${k}`" class="faulty" />
              <i v-for="k in row.problems - row.sound - row.faulty" :key="`o${k}`" class="open" />
            </span>
            <span class="muted sum">{{ sum(row) }}</span>
          </RouterLink>
          <RouterLink class="plain-button muted" :to="`/sheets/${row.id}/print`" :aria-label="`print ${row.title}`"
            >print</RouterLink
          >
          <button class="plain-button muted" :aria-label="`Give a copy of ${row.title}`" @click="giving = row">
            give
          </button>
          <button class="plain-button muted" :aria-label="`Rename ${row.title}`" @click="startRename(row)">
            rename
          </button>
          <button class="plain-button muted" :aria-label="`Delete ${row.title}`" @click="removing = row">delete</button>
        </template>
      </li>
    </ul>
    <p v-else-if="loaded && sheets.all" class="empty muted">No sheet has “{{ search }}” in its title.</p>
    <p v-else-if="loaded" class="empty muted">No sheets yet. Name the first one below: a topic, a class, a date.</p>
    <el-button v-if="sheets.more" class="further" @click="load(sheets.page + 1)">Show further ones</el-button>
    <form class="new" @submit.prevent="create">
      <input v-model="title" aria-label="Title of a new sheet" placeholder="Title of a new sheet" maxlength="120" />
      <el-button native-type="submit" type="primary" :disabled="!title.trim()">New sheet</el-button>
    </form>
    <p class="take">
      <RouterLink to="/build">Build one</RouterLink>
      <label
        >Take in a file
        <input
          type="file"
          accept=".chain,.json,.csv,.txt,.tex,.zip"
          title=".chain, .json, .csv; a plain list (.txt) or LaTeX (.tex); a QTI package (.zip)"
          @change="takeIn"
      /></label>
    </p>
    <GiveCopy :row="giving" @close="giving = null" @given="wasGiven" />
    <el-dialog :model-value="!!removing" title="Delete this sheet?" width="420" @close="removing = null">
      <p>
        “{{ removing?.title }}” and its {{ removing?.problems }} problems with their workings will be gone for good.
      </p>
      <template #footer>
        <el-button @click="removing = null">Keep it</el-button>
        <el-button type="danger" @click="remove">Delete it</el-button>
      </template>
    </el-dialog>
  </main>
</template>

<style scoped>
.page {
  max-width: 820px;
  margin: 0 auto;
  padding: 44px 28px;
}
.take {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 26px;
  align-items: baseline;
  margin-top: 18px;
  color: var(--muted);
  font-size: 14px;
}
.take a {
  color: var(--settles);
}
.given {
  color: var(--holds);
  margin-bottom: 12px;
}
.search {
  width: 100%;
  margin-bottom: 14px;
  padding: 7px 10px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.further {
  margin-top: 14px;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--hairline);
}
.list li {
  display: flex;
  align-items: center;
  border-bottom: 1px solid var(--hairline);
}
.list .plain-button {
  font-size: 13px;
  text-decoration: none;
}
.sheet {
  flex: 1;
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 18px;
  align-items: center;
  padding: 15px 8px;
  color: inherit;
  text-decoration: none;
}
.sheet:hover .title {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.title {
  font-size: 17px;
}
.sum {
  grid-column: 1;
  font-size: 13.5px;
}
.bar {
  grid-row: 1 / 3;
  grid-column: 2;
  display: flex;
  gap: 3px;
}
.bar i {
  width: 7px;
  height: 22px;
  border-radius: 3px;
}
.bar .sound {
  background: var(--holds);
}
.bar .faulty {
  background: linear-gradient(var(--breaks) 40%, transparent 40% 60%, var(--breaks) 60%);
}
.bar .open {
  border: 1.5px solid #bdb6a6;
}
.new,
.rename {
  display: flex;
  gap: 10px;
  margin-top: 22px;
}
.rename {
  margin: 10px 8px;
  flex: 1;
}
.new input,
.rename input {
  flex: 1;
  padding: 7px 10px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.trouble {
  color: var(--breaks);
  margin-bottom: 12px;
}
.empty {
  padding: 26px 0;
}
</style>

<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'
import { useClasses } from './classes'
import { useRoster } from './roster'
import type { Schema } from '@/api/client'
import TroubleNote from '@/components/TroubleNote.vue'

/** Rosters from a table, a bundle or the school's records: shown before anything is taken. */
const classes = useClasses()
const store = useRoster()
const title = ref('')
const into = ref(false)
const ids = ref<string[]>([])
const WORDS: Record<string, string> = {
  new: 'new',
  there: 'there already',
  differs: 'number stands with another name: that stays',
  number: 'new: the name is there with another number',
}
onMounted(() => store.loadRecords())

/** What a column of a table can mean. */
const MEANS = [
  ['', 'left out'],
  ['name', 'the whole name'],
  ['first', 'first name'],
  ['last', 'family name'],
  ['number', 'number of the school'],
  ['class', 'class'],
] as const
const columns = ref<Schema['RosterColumn']['means'][]>([])
const titles = ref(false)
watch(
  () => store.preview,
  (found) => {
    columns.value = found?.columns.map((each) => each.means) ?? []
    titles.value = found?.titles ?? false
  },
)

async function file(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const found = input.files?.[0]
  if (found)
    await store.lookAtFile(
      found,
      into.value ? (classes.open?.id ?? null) : null,
      title.value.trim() || found.name.replace(/\.\w+$/, '').slice(0, 60),
    )
  input.value = ''
}
async function fromRecords(): Promise<void> {
  if (ids.value.length) await store.look({ source: 'records', text: '', ids: ids.value, into: null, title: '' })
}
async function take(): Promise<void> {
  if (!(await store.take())) return
  await classes.load()
  await store.loadRecords()
  if (classes.open) await classes.show(classes.open.id)
}
</script>

<template>
  <section class="roster" aria-label="Rosters">
    <TroubleNote :request="store.request" />
    <p v-if="store.told" role="status">{{ store.told }}</p>
    <template v-if="!store.preview">
      <p class="row">
        <label
          >A table (.csv) or a OneRoster bundle (.zip)
          <input type="file" accept=".csv,.txt,.tsv,.zip" aria-label="Roster file" @change="file"
        /></label>
        <label v-if="classes.open"><input v-model="into" type="checkbox" /> into {{ classes.open.name }}</label>
        <label v-if="!into"
          >a table without classes is for
          <input v-model="title" maxlength="60" placeholder="as the file is called" aria-label="Class of the table"
        /></label>
      </p>
      <form
        v-if="store.records?.there"
        class="row"
        aria-label="From the school’s records"
        @submit.prevent="fromRecords"
      >
        <span>From the school’s records:</span>
        <label v-for="each in store.records.classes" :key="each.id"
          ><input v-model="ids" type="checkbox" :value="each.id" /> {{ each.title
          }}<small v-if="each.linked" class="muted"> linked</small></label
        >
        <el-button native-type="submit" :disabled="!ids.length" :loading="store.request.busy.value">Look</el-button>
      </form>
      <p v-else-if="store.records" class="muted">No school records are set up here.</p>
    </template>
    <template v-else>
      <form
        v-if="store.preview.columns.length > 1 || !store.preview.sure"
        class="columns"
        aria-label="What the columns mean"
        @submit.prevent="store.say(columns, titles)"
      >
        <p :role="store.preview.sure ? undefined : 'alert'">
          {{
            store.preview.sure
              ? 'The columns were understood so:'
              : 'What do these columns mean? Say it, and look again.'
          }}
        </p>
        <label v-for="(column, k) in store.preview.columns" :key="k">
          <b v-if="column.title">{{ column.title }}</b> <small class="muted">{{ column.examples.join(', ') }}</small>
          <select v-model="columns[k]" :aria-label="`Column ${k + 1} means`">
            <option v-for="[value, words] in MEANS" :key="value" :value="value">{{ words }}</option>
          </select>
        </label>
        <label><input v-model="titles" type="checkbox" /> the first row is a row of titles</label>
        <el-button native-type="submit" :loading="store.request.busy.value">Look again</el-button>
      </form>
      <p v-if="store.preview.sure">This would be taken; nothing is, yet.</p>
      <div v-for="(each, k) in store.preview.sure ? store.preview.classes : []" :key="k" class="class">
        <label
          ><input v-model="store.chosen" type="checkbox" :value="k" />{{ ' ' }}<b>{{ each.title }}</b
          >{{ ' '
          }}<small class="muted">{{ each.into ? 'added to the class that is here' : 'a new class' }}</small></label
        >
        <p class="names">
          <span v-for="student in each.students" :key="student.name" :class="student.state"
            >{{ student.name }}
            <small class="muted"
              >{{ student.number }} {{ student.state === 'new' ? '' : WORDS[student.state] }}</small
            ></span
          >
        </p>
      </div>
      <div v-if="store.preview.left.length" class="left">
        <p>Not taken:</p>
        <p v-for="(row, k) in store.preview.left.slice(0, 40)" :key="k">
          row {{ row.place }} <code>{{ row.text }}</code> {{ row.why }}
        </p>
      </div>
      <p class="row">
        <el-button
          type="primary"
          :disabled="!store.chosen.length || !store.preview.sure"
          :loading="store.request.busy.value"
          @click="take"
          >Take it</el-button
        >
        <button class="plain-button" @click="store.leave()">leave it</button>
      </p>
    </template>
  </section>
</template>

<style scoped>
.roster {
  border-left: 3px solid var(--settles);
  padding: 2px 14px 8px;
  margin-bottom: 16px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
}
.names span {
  display: inline-block;
  margin-right: 18px;
}
.names .there {
  color: var(--muted);
}
.names .differs {
  color: var(--widens);
}
.columns {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 6px 18px;
}
.columns p {
  flex-basis: 100%;
  margin: 0;
}
.columns select {
  display: block;
  padding: 5px 9px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.left {
  border-left: 3px solid var(--breaks);
  padding: 2px 12px;
}
</style>

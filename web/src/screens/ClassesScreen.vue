<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import PageHeader from '@/features/session/PageHeader.vue'
import DayInput from '@/components/DayInput.vue'
import RegionalFields from '@/components/RegionalFields.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import RosterForm from '@/features/marking/RosterForm.vue'
import StudentRow from '@/features/marking/StudentRow.vue'
import { studentsIn, useClasses } from '@/features/marking/classes'
import { SCHEMES } from '@/lib/marking'
import { useRegional } from '@/lib/regional'

/** The classes of a teacher: who is in them, what they were given, how far it is marked. */
const store = useClasses()
const router = useRouter()
const written = useRegional(() => store.open?.in_force)
const name = ref('')
const names = ref('')
const more = ref('')
const sheet = ref<number | null>(null)
const scheme = ref<(typeof SCHEMES)[number][0]>('points')
const day = ref(new Date().toLocaleDateString('sv')) // today here, as 2026-03-05
const ending = ref('')
const rosters = ref(false)
const current = computed(() => store.classes?.filter((each) => !each.archived) ?? [])
const past = computed(() => store.classes?.filter((each) => each.archived) ?? [])

onMounted(async () => {
  await store.load()
  const first = current.value[0]
  if (!store.open && first) await store.show(first.id)
})
async function make(): Promise<void> {
  if (name.value.trim() && (await store.make(name.value, names.value))) name.value = names.value = ''
}
async function add(): Promise<void> {
  if (more.value.trim() && (await store.change({ students: studentsIn(more.value) }))) more.value = ''
}
async function give(): Promise<void> {
  if (sheet.value === null || !day.value) return
  const made = await store.give(sheet.value, day.value, scheme.value)
  if (made !== null) await router.push(`/sets/${made}`)
}
async function end(): Promise<void> {
  if (ending.value === store.open?.name && (await store.end())) ending.value = ''
}
const heir = ref('')
async function handOver(): Promise<void> {
  if (heir.value && (await store.handOver(heir.value))) heir.value = ''
}
const renaming = ref('')
async function rename(): Promise<void> {
  if (renaming.value.trim() && (await store.change({ name: renaming.value.trim() }))) renaming.value = ''
}
</script>

<template>
  <main class="page">
    <PageHeader title="Classes" />
    <TroubleNote :request="store.request" />
    <p>
      <button class="plain-button" :aria-expanded="rosters" @click="rosters = !rosters">
        Rosters from a file or the school’s records
      </button>
    </p>
    <RosterForm v-if="rosters" />
    <div class="halves">
      <nav aria-label="Classes">
        <ul>
          <li v-for="each in current" :key="each.id">
            <button
              class="plain-button"
              :class="{ on: each.id === store.open?.id }"
              :aria-current="each.id === store.open?.id"
              @click="store.show(each.id)"
            >
              {{ each.name }} <small class="muted">{{ each.students }}</small>
            </button>
          </li>
        </ul>
        <details v-if="past.length">
          <summary class="muted">Archived</summary>
          <button v-for="each in past" :key="each.id" class="plain-button" @click="store.show(each.id)">
            {{ each.name }}
          </button>
        </details>
        <form class="new" aria-label="A new class" @submit.prevent="make">
          <h2>A new class</h2>
          <input v-model="name" aria-label="Name of the class" placeholder="Name of the class" maxlength="60" />
          <textarea
            v-model="names"
            rows="5"
            aria-label="Names of the students"
            placeholder="Names, one a line; a number of the school behind a semicolon"
          />
          <el-button native-type="submit" :disabled="!name.trim()">Make it</el-button>
        </form>
      </nav>
      <section v-if="store.open" :aria-label="store.open.name">
        <h2>{{ store.open.name }}<small v-if="store.open.archived" class="muted"> archived</small></h2>
        <p class="overtime">
          <RouterLink :to="`/classes/${store.open.id}/patterns`">Its errors over time, and who shares which</RouterLink>
        </p>
        <form class="give" aria-label="Give a sheet" @submit.prevent="give">
          <label
            >Give
            <select v-model="sheet" aria-label="Sheet">
              <option :value="null">a sheet …</option>
              <option v-for="each in store.sheets" :key="each.id" :value="each.id">{{ each.title }}</option>
            </select></label
          >
          <span>on <DayInput v-model="day" label="Day" :as="store.open.in_force" /></span>
          <label
            >marked by
            <select v-model="scheme" aria-label="Scheme">
              <option v-for="[kind, words] in SCHEMES" :key="kind" :value="kind">{{ words }}</option>
            </select></label
          >
          <el-button
            native-type="submit"
            type="primary"
            :disabled="sheet === null || !day"
            :loading="store.request.busy.value"
            >Give it</el-button
          >
        </form>
        <table class="rows" v-if="store.open.sets.length">
          <thead>
            <tr>
              <th scope="col">Set</th>
              <th scope="col">Day</th>
              <th scope="col">Items</th>
              <th scope="col">Marked</th>
              <th scope="col">Look</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="set in store.open.sets" :key="set.id">
              <th scope="row">
                <RouterLink :to="`/sets/${set.id}`">{{ set.title }}</RouterLink>
              </th>
              <td>{{ written.day(set.day) }}</td>
              <td>{{ set.items }}</td>
              <td>{{ set.marked }} of {{ set.workings }}</td>
              <td><RouterLink :to="`/sets/${set.id}/patterns`">patterns</RouterLink></td>
            </tr>
          </tbody>
        </table>
        <p v-else class="muted">Nothing was given yet. Give a sheet, take in what was written, and mark it.</p>
        <h3>{{ store.open.students.length }} students</h3>
        <ul class="students">
          <StudentRow v-for="student in store.open.students" :key="student.id" :student="student" />
        </ul>
        <form class="give" aria-label="More students" @submit.prevent="add">
          <textarea v-model="more" rows="2" aria-label="More names" placeholder="More names, one a line" />
          <el-button native-type="submit" :disabled="!more.trim()">Add them</el-button>
        </form>
        <div class="give">
          <details>
            <summary class="muted">Rename this class</summary>
            <form aria-label="Another name of the class" @submit.prevent="rename">
              <input v-model="renaming" :placeholder="store.open.name" maxlength="60" aria-label="Its new name" />
              <button class="plain-button" :disabled="!renaming.trim()">rename it</button>
            </form>
          </details>
          <details>
            <summary class="muted">How this class writes numbers and days</summary>
            <RegionalFields
              :chosen="store.open.regional"
              above="as in your account"
              @choose="(regional) => store.change({ regional })"
            />
          </details>
          <button class="plain-button" @click="store.change({ archived: !store.open.archived })">
            {{ store.open.archived ? 'bring it back' : 'archive this class' }}
          </button>
          <details v-if="store.colleagues.length">
            <summary class="muted">Hand this class over to a colleague</summary>
            <select v-model="heir" aria-label="Colleague">
              <option value="">to whom …</option>
              <option v-for="each in store.colleagues" :key="each.username" :value="each.username">
                {{ each.name }}
              </option>
            </select>
            <button class="plain-button" :disabled="!heir" @click="handOver">
              hand it over with all its papers and marks
            </button>
          </details>
          <details>
            <summary class="muted">End this class with all its papers and marks</summary>
            <input
              v-model="ending"
              :placeholder="`Type ${store.open.name}`"
              aria-label="Name of the class, to end it"
            />{{ ' '
            }}<button class="plain-button" :disabled="ending !== store.open.name" @click="end">end it for good</button>
          </details>
        </div>
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
  gap: 36px;
}
h2 {
  font-size: 20px;
  margin-bottom: 8px;
}
h3 {
  font-size: 15px;
  margin: 18px 0 4px;
}
.overtime {
  margin: 0 0 10px;
}
.new h2 {
  font-size: 15px;
  margin-top: 18px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.on {
  font-weight: 700;
  box-shadow: inset 3px 0 var(--settles);
}
.new {
  display: grid;
  gap: 8px;
  justify-items: start;
}
input:not([type='checkbox']),
textarea,
select {
  padding: 6px 9px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
  max-width: 100%;
}
.new input,
.new textarea {
  width: 100%;
}
.give {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  margin-bottom: 12px;
}
.give select {
  max-width: 260px;
}
.give textarea {
  width: 320px;
}
table {
  width: 100%;
}
a {
  color: var(--settles);
}
.students {
  columns: 2;
  font-size: 15px;
}
.students a {
  margin-left: 8px;
}
.students a,
.students button {
  font-size: 13px;
}
@media (max-width: 800px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
  .students {
    columns: 1;
  }
}
</style>

<script setup lang="ts">
import { computed, nextTick, onMounted, ref } from 'vue'
import PageHeader from '@/features/session/PageHeader.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'
import { useRegional } from '@/lib/regional'
import { usePeople, type Person } from '@/features/people/store'
import { useSession } from '@/features/session/store'

/** Who has an account and what each may do; a new colleague is here in a minute. */
const store = usePeople()
const session = useSession()
const request = useRequest('The server does not answer. Try again in a moment.')
const username = ref('')
const name = ref('')
const teaches = ref(true)
const manages = ref(false)
const word = ref<HTMLElement | null>(null)
const first = ref<HTMLInputElement | null>(null)
const resetting = ref<Person | null>(null)
const switchingOff = ref<Person | null>(null)
const ready = computed(() => !!username.value.trim() && (teaches.value || manages.value))

onMounted(() => request.run(() => store.load()))

async function showWord(): Promise<void> {
  await nextTick()
  word.value?.focus()
}

async function add(): Promise<void> {
  if (!ready.value) return
  const done = await request.run(() => store.add(username.value, name.value, teaches.value, manages.value))
  if (!done) return
  username.value = name.value = ''
  teaches.value = true
  manages.value = false
  await showWord()
}

async function reset(): Promise<void> {
  const person = resetting.value!
  resetting.value = null
  if (await request.run(() => store.reset(person.id))) await showWord()
}

function change(person: Person, changes: { active?: boolean; teaches?: boolean; manages?: boolean }): void {
  switchingOff.value = null
  void request.run(() => store.change(person.id, changes))
}

function seen(): void {
  store.made = null
  first.value?.focus()
}

const { day, moment } = useRegional()

function state(person: Person): string {
  if (!person.active) return 'switched off'
  if (person.locked) return 'locked somewhere after wrong passwords'
  if (person.word_until) return `has a one-time word until ${day(person.word_until)}`
  return person.last_here ? `last here ${day(person.last_here)}` : 'not here yet'
}
</script>

<template>
  <main class="page">
    <PageHeader title="People" />
    <TroubleNote :request="request" />
    <section v-if="store.made" ref="word" class="word" tabindex="-1" role="status" aria-label="The one-time word">
      <p>
        <b>{{ store.made.person.name || store.made.person.username }}</b> logs in as
        <b>{{ store.made.person.username }}</b> with this word, once, within seven days, and then chooses a password. It
        is shown only now.
      </p>
      <p class="said">{{ store.made.word }}</p>
      <el-button @click="seen">Noted</el-button>
    </section>
    <div class="wide">
      <table>
        <thead>
          <tr>
            <th>Name</th>
            <th>Log-in name</th>
            <th>May</th>
            <th>State</th>
            <th><span class="visually-hidden">Actions</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="person in store.people" :key="person.id" :class="{ off: !person.active }">
            <td>{{ person.name || '—' }}</td>
            <td>{{ person.username }}</td>
            <td class="may">
              <label
                ><input
                  type="checkbox"
                  :checked="person.teaches"
                  :aria-label="`${person.username} teaches`"
                  @click.prevent="change(person, { teaches: !person.teaches })"
                />
                teach</label
              >
              <label
                ><input
                  type="checkbox"
                  :checked="person.manages"
                  :aria-label="`${person.username} manages people`"
                  @click.prevent="change(person, { manages: !person.manages })"
                />
                manage people</label
              >
            </td>
            <td class="muted">{{ state(person) }}</td>
            <td class="acts">
              <template v-if="person.id !== session.teacher?.id">
                <button
                  class="plain-button"
                  :aria-label="`new word for ${person.username}`"
                  @click="resetting = person"
                >
                  new word
                </button>
                <button
                  v-if="person.locked"
                  class="plain-button"
                  :aria-label="`unlock ${person.username}`"
                  @click="request.run(() => store.unlock(person.id))"
                >
                  unlock
                </button>
                <button
                  v-if="person.active"
                  class="plain-button"
                  :aria-label="`switch off ${person.username}`"
                  @click="switchingOff = person"
                >
                  switch off
                </button>
                <button
                  v-else
                  class="plain-button"
                  :aria-label="`switch on ${person.username}`"
                  @click="change(person, { active: true })"
                >
                  switch on
                </button>
              </template>
              <span v-else class="muted">you</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <form class="new" @submit.prevent="add">
      <h2>Somebody new</h2>
      <label
        ><span>Log-in name</span
        ><input ref="first" v-model="username" maxlength="150" autocapitalize="none" autocomplete="off" required
      /></label>
      <label><span>Name</span><input v-model="name" maxlength="150" autocomplete="off" /></label>
      <label class="tick"><input v-model="teaches" type="checkbox" /> teaches</label>
      <label class="tick"><input v-model="manages" type="checkbox" /> manages people</label>
      <el-button type="primary" native-type="submit" :disabled="!ready">Make the account</el-button>
    </form>
    <details v-if="store.happenings.length" class="told">
      <summary>What was done last</summary>
      <ul>
        <li v-for="(each, k) in store.happenings" :key="k">
          <time :datetime="each.when">{{ moment(each.when) }}</time> {{ each.who }}: {{ each.what }} {{ each.whom }}
        </li>
      </ul>
    </details>
    <el-dialog :model-value="!!resetting" title="A new one-time word?" width="420" @close="resetting = null">
      <p>
        The password of {{ resetting?.name || resetting?.username }} no longer counts,
        {{ resetting?.second_factor ? 'nor does their second factor, ' : '' }}and all their browsers are logged out.
        Sheets and workings stay. They are told that it was you.
      </p>
      <template #footer>
        <el-button @click="resetting = null">Leave it</el-button>
        <el-button type="primary" @click="reset">Make the word</el-button>
      </template>
    </el-dialog>
    <el-dialog :model-value="!!switchingOff" title="Switch this account off?" width="420" @close="switchingOff = null">
      <p>
        {{ switchingOff?.name || switchingOff?.username }} is logged out at once and can't log in. Everything of theirs
        stays and comes back when the account is switched on again.
      </p>
      <template #footer>
        <el-button @click="switchingOff = null">Leave it on</el-button>
        <el-button type="danger" @click="change(switchingOff!, { active: false })">Switch it off</el-button>
      </template>
    </el-dialog>
  </main>
</template>

<style scoped>
.page {
  max-width: 980px;
  margin: 0 auto;
  padding: 44px 28px;
}
.word {
  border: 1px solid var(--holds);
  border-radius: 8px;
  background: var(--sheet);
  padding: 16px 18px;
  margin-bottom: 20px;
}
.said {
  font: 22px/1.4 var(--mono);
  padding: 10px 0;
  user-select: all;
  overflow-wrap: anywhere;
}
.wide {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-size: 13px;
  font-weight: 400;
  color: var(--muted);
}
th,
td {
  padding: 9px 12px 9px 0;
  border-bottom: 1px solid var(--hairline);
  white-space: nowrap;
}
.off td {
  color: var(--muted);
}
.may label {
  margin-right: 14px;
}
.acts {
  text-align: right;
}
.acts .plain-button {
  font-size: 13px;
  color: var(--settles);
}
.new {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px 14px;
  margin-top: 26px;
}
h2 {
  flex-basis: 100%;
  font-size: 16px;
}
.new label:not(.tick) span {
  display: block;
  font-size: 13px;
  color: var(--muted);
  margin-bottom: 3px;
}
.new label:not(.tick) input {
  padding: 7px 10px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.tick {
  padding-bottom: 7px;
}
.told {
  margin-top: 30px;
  color: var(--muted);
  font-size: 13.5px;
}
.told ul {
  list-style: none;
  padding: 0;
}
.told time {
  display: inline-block;
  min-width: 12ch;
}
</style>

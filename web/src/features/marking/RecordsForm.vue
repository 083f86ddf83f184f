<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { useMarking } from './store'
import { useRoster } from './roster'
import { api, unwrap, type Schema } from '@/api/client'
import TroubleNote from '@/components/TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'
import { useRegional } from '@/lib/regional'

/** Marks on their way to the school's records: what would change is shown, and only what is chosen is sent. */
const marking = useMarking()
const roster = useRoster()
const request = useRequest('The server does not answer. Try again in a moment.')
const found = ref<Schema['SendOut'] | null>(null)
const chosen = ref<number[]>([])
const link = ref('')
let left = false
onBeforeUnmount(() => (left = true))
const CHANGES: Record<string, string> = {
  new: 'new',
  changed: 'changed',
  same: 'the same as sent',
  open: 'not all marks are confirmed',
  nothing: 'nothing handed in',
  unlinked: 'not in the records',
}
const name = (id: number): string => marking.table.students.find((each) => each.id === id)?.name ?? ''
const sendable = (row: Schema['SendRow']): boolean => ['new', 'changed', 'same'].includes(row.change)
const path = computed(() => ({ params: { path: { set_id: marking.set?.id ?? 0 } } }))
const { day, number } = useRegional(() => marking.set?.in_force)

function take(answer: Schema['SendOut'], anew: boolean): void {
  found.value = answer
  if (anew)
    chosen.value = answer.rows
      .filter((row) => row.change === 'new' || row.change === 'changed')
      .map((row) => row.student)
}
const look = (anew: boolean): Promise<boolean> =>
  request.run(
    () => unwrap(api.GET('/api/sets/{set_id}/records', path.value)),
    (answer) => take(answer, anew),
  )
onMounted(async () => {
  await look(true)
  if (found.value?.there && !found.value.linked) await roster.loadRecords()
})
async function send(): Promise<void> {
  if (
    !(await request.run(
      () => unwrap(api.POST('/api/sets/{set_id}/records', { ...path.value, body: { students: chosen.value } })),
      (answer) => take(answer, false),
    ))
  )
    return
  while (!left && found.value?.rows.some((row) => row.state === 'waiting')) {
    await new Promise((done) => setTimeout(done, 700))
    if (!left && !(await look(false))) break
  }
  take(found.value!, true)
}
async function linkTo(): Promise<void> {
  const school_class = marking.set?.school_class
  if (!link.value || school_class === undefined) return
  if (
    await request.run(() =>
      unwrap(
        api.PUT('/api/classes/{class_id}/records', {
          params: { path: { class_id: school_class } },
          body: { id: link.value },
        }),
      ),
    )
  )
    await look(true)
}
/** This class is none of the records any more; what was sent there stays there. */
async function unlink(): Promise<void> {
  const school_class = marking.set?.school_class
  if (school_class === undefined) return
  const path = { class_id: school_class }
  if (await request.run(() => unwrap(api.DELETE('/api/classes/{class_id}/records', { params: { path } }))))
    await look(true)
}
</script>

<template>
  <section class="send" aria-label="To the school’s records">
    <TroubleNote :request="request" />
    <p class="row">
      <span>By hand:</span>{{ ' ' }}<a :href="`/api/sets/${marking.set?.id}/oneroster.zip`">a OneRoster bundle</a
      >{{ ' ' }}<a :href="`/api/sets/${marking.set?.id}/marks.csv`">a table</a>{{ ' '
      }}<a :href="`/api/sets/${marking.set?.id}/marks.csv?semicolons=true`"
        >a table with semicolons and decimal commas</a
      >
    </p>
    <template v-if="found">
      <p v-if="!found.there" class="muted">No school records are set up here.</p>
      <form v-else-if="!found.linked" class="row" aria-label="Which class" @submit.prevent="linkTo">
        <label
          >This class is in the records as
          <select v-model="link" aria-label="Class of the records">
            <option value="">…</option>
            <option v-for="each in roster.records?.classes ?? []" :key="each.id" :value="each.id">
              {{ each.title }}
            </option>
          </select></label
        >
        <el-button native-type="submit" :disabled="!link">That is it</el-button>{{ ' '
        }}<span class="muted">Students are told by their numbers, else by their names.</span>
      </form>
      <template v-else>
        <p>
          <button class="plain-button" @click="unlink">this is the wrong class of the records: undo the link</button>
        </p>
        <table class="rows">
          <thead>
            <tr>
              <th scope="col">Send</th>
              <th scope="col">Student</th>
              <th scope="col">Mark of {{ found.of }}</th>
              <th scope="col">Sent last</th>
              <th scope="col">What would change</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in found.rows" :key="row.student">
              <td>
                <input
                  v-if="sendable(row)"
                  v-model="chosen"
                  type="checkbox"
                  :value="row.student"
                  :aria-label="`send for ${name(row.student)}`"
                />
              </td>
              <th scope="row">{{ name(row.student) }}</th>
              <td>{{ row.score === null && sendable(row) ? 'absent' : number(row.score) }}</td>
              <td>
                {{ row.when ? `${row.sent === null ? 'absent' : number(row.sent)}, ${day(row.when)}` : '–' }}
              </td>
              <td :class="{ refused: row.state === 'refused' && row.reason }">
                {{ row.state === 'waiting' ? 'being sent' : row.reason || (CHANGES[row.change] ?? row.change) }}
              </td>
            </tr>
          </tbody>
        </table>
        <p>
          <el-button type="primary" :disabled="!chosen.length" :loading="request.busy.value" @click="send"
            >Send {{ chosen.length }}</el-button
          >{{ ' ' }}<span class="muted">Only confirmed marks are sent. Sending again does no harm.</span>
        </p>
      </template>
    </template>
  </section>
</template>

<style scoped>
.send {
  border-left: 3px solid var(--settles);
  padding: 2px 14px 8px;
  margin-bottom: 12px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
}
a {
  color: var(--settles);
}
.refused {
  color: var(--breaks);
}
</style>

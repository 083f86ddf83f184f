<script setup lang="ts">
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import PageHeader from '@/features/session/PageHeader.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { gridOf, linesOf, MOST_LINES, share, STATES, useOvertime, type TimeSlip } from '@/features/marking/overtime'
import { useRegional } from '@/lib/regional'

/**
 * A class over its sets: which slips come and go, whose they are, who shares which, and what the counts say of the
 * table of judgement.
 */
const ChartView = defineAsyncComponent(() => import('@/components/ChartView.vue')) // large, and only needed here
const props = defineProps<{ classId: number }>()
const store = useOvertime()
const { day } = useRegional(() => store.told?.in_force)
const router = useRouter()
const names = ref(true)
watch(
  () => props.classId,
  (id) => void store.load(id),
  { immediate: true },
)

const named = (id: number): string => {
  const at = store.told?.students.findIndex((each) => each.id === id) ?? -1
  return names.value ? (store.told?.students[at]?.name ?? '') : `student ${at + 1}`
}
const lines = computed(() => (store.told ? linesOf(store.told, day) : null))
const grid = computed(() => (store.told ? gridOf(store.told, named) : null))
const setOf = (slip: TimeSlip, working: number): number =>
  slip.counts.find((each) => each.workings.includes(working))?.set ?? 0
function look(slip: TimeSlip, working: number): void {
  void router.push({ path: `/sets/${setOf(slip, working)}`, query: { working } })
}
function fromLines(series: number, place: number): void {
  const slip = store.told?.slips[series]
  const working = slip?.counts.find((each) => each.set === store.told?.sets[place]?.id)?.workings[0]
  if (slip && working) look(slip, working)
}
function fromGrid(_: number, place: number): void {
  const cells = (store.told?.slips ?? []).flatMap((slip) => slip.students.map((each) => ({ slip, each })))
  const cell = cells[place]
  const last = cell?.each.workings[cell.each.workings.length - 1]
  if (cell && last) look(cell.slip, last)
}
async function tomorrow(slip: string): Promise<void> {
  const made = await store.tomorrow(slip)
  if (made !== null) await router.push(`/sheets/${made}/print`)
}
const percent = (value: number): string => `${Math.round(value * 100)} %`
</script>

<template>
  <main class="page">
    <PageHeader :title="store.told ? `${store.told.name} over time` : 'Over time'" />
    <TroubleNote :request="store.request" />
    <template v-if="store.told && lines && grid">
      <p class="row">
        <RouterLink to="/classes">Classes</RouterLink>{{ ' '
        }}<a :href="`/api/classes/${classId}/patterns.csv`">all of it as a table</a>{{ ' '
        }}<button class="plain-button" :aria-pressed="!names" @click="names = !names">
          {{ names ? 'hide the names' : 'show the names' }}
        </button>
      </p>
      <p v-if="!store.told.slips.length" class="muted">No error was seen in this class yet.</p>
      <template v-else>
        <h2>From set to set</h2>
        <ChartView
          :option="lines"
          :height="330"
          :label="`The ${Math.min(MOST_LINES, store.told.slips.length)} commonest errors from set to set, in percent of the workings in which they could be made. The table below says the same.`"
          @chosen="fromLines"
        />
        <details>
          <summary class="muted">All errors as a table</summary>
          <div class="scroll" tabindex="0" role="group" aria-label="Errors by set">
            <table class="rows">
              <thead>
                <tr>
                  <th scope="col">Error</th>
                  <th v-for="set in store.told.sets" :key="set.id" scope="col">
                    <RouterLink :to="`/sets/${set.id}/patterns`">{{ day(set.day) }}</RouterLink><br /><small
                      >{{ set.right }} of {{ set.workings }} right</small
                    >
                  </th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="slip in store.told.slips" :key="slip.id">
                  <th scope="row">{{ slip.name }}</th>
                  <td v-for="set in store.told.sets" :key="set.id">
                    <template v-for="found in slip.counts.filter((each) => each.set === set.id)" :key="found.set">
                      <button
                        v-if="found.workings.length"
                        class="plain-button"
                        :aria-label="`${found.workings.length}: ${slip.name} on ${day(set.day)}, look at the first working`"
                        @click="look(slip, found.workings[0]!)"
                      >
                        {{ found.workings.length }}</button><span v-else>0</span>{{ ' '
                      }}<small class="muted">of {{ found.could }}, {{ share(slip, set.id) }} %</small>
                    </template>
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
        </details>
        <h2>Who shares which</h2>
        <p class="muted">From faint to full: fading, new, back again, again and again.</p>
        <ChartView
          :option="grid"
          :height="150 + 27 * store.told.students.length"
          label="Which student shows which error; the stronger, the fresher. The table below says the same."
          @chosen="fromGrid"
        />
        <details>
          <summary class="muted">As a table</summary>
          <table class="rows">
            <thead>
              <tr>
                <th scope="col">Error</th>
                <th scope="col">Students</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="slip in store.told.slips" :key="slip.id">
                <th scope="row">{{ slip.name }}</th>
                <td>
                  <span v-for="each in slip.students" :key="each.student" class="who" :class="each.state"
                    ><button
                      class="plain-button"
                      :aria-label="`${named(each.student)}, ${slip.name}, ${STATES[each.state]}`"
                      @click="look(slip, each.workings[each.workings.length - 1]!)"
                    >
                      {{ named(each.student) }}</button
                    >{{ ' ' }}<small>{{ STATES[each.state] }}</small></span
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </details>
        <h2>Groups for tomorrow</h2>
        <p v-for="group in store.told.groups" :key="group.slip">
          <b>{{ group.name }}</b>: {{ group.students.map(named).join(', ') }}
          <button class="plain-button" @click="tomorrow(group.slip)">a starter against it</button>
        </p>
        <p v-if="store.told.alone.length" class="muted">In no group: {{ store.told.alone.map(named).join(', ') }}</p>
      </template>
      <h2>How likely errors are in your classes</h2>
      <p v-if="store.learned">
        <label
          ><input
            type="checkbox"
            :checked="store.learned.on"
            @change="store.learn(($event.target as HTMLInputElement).checked)"
          />
          order the wrong answers to expect by these counts instead of the table of judgement</label
        >
      </p>
      <details v-if="store.learned?.slips.length">
        <summary class="muted">{{ store.learned.slips.length }} errors that could be made in your classes</summary>
        <table class="rows">
          <thead>
            <tr>
              <th scope="col">Error</th>
              <th scope="col">Made</th>
              <th scope="col">Could be made</th>
              <th scope="col" title="Drawn towards the table of judgement while there are few workings">Share</th>
              <th scope="col">Against the table</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in store.learned.slips" :key="row.id">
              <th scope="row">{{ row.name }}</th>
              <td>{{ row.made }}</td>
              <td>{{ row.could }}</td>
              <td>{{ percent(row.share) }}</td>
              <td>× {{ row.factor.toFixed(2) }}</td>
            </tr>
          </tbody>
        </table>
      </details>
    </template>
  </main>
</template>

<style scoped>
.page {
  max-width: 1180px;
  margin: 0 auto;
  padding: 22px 28px;
}
.row {
  display: flex;
  gap: 18px;
  align-items: center;
}
h2 {
  font-size: 17px;
  margin: 22px 0 6px;
}
a {
  color: var(--settles);
}
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
}
.who {
  display: inline-block;
  margin-right: 14px;
}
.who.fading {
  color: var(--muted);
}
</style>

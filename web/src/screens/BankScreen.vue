<script setup lang="ts">
import { nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import PageHeader from '@/features/session/PageHeader.vue'
import KeyList from '@/components/KeyList.vue'
import MathText from '@/components/MathText.vue'
import RatingMark from '@/components/RatingMark.vue'
import DayInput from '@/components/DayInput.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { useBuild } from '@/features/build/store'
import { ANYTHING, useBank, type BankRow } from '@/features/build/bank'
import { useRequest } from '@/composables/useRequest'
import { useRegional } from '@/lib/regional'
import { instruction } from '@/lib/tasks'
import { actionOf, IN_THE_BANK, type BankAction } from '@/lib/shortcuts'

/**
 * All problems of all sheets, found again by what they are, how hard, where they go wrong, and when they were last
 * used.
 */
const bank = useBank()
const build = useBuild()
const router = useRouter()
const looking = useRequest('The server does not answer. What is shown stays; try again in a moment.')
const list = ref<HTMLElement | null>(null)
const search = ref<HTMLInputElement | null>(null)
const at = ref(0)
let left = false
let wait: ReturnType<typeof setTimeout> | undefined

onMounted(async () => {
  search.value?.focus()
  await bank.find()
  await looking.run(async () => {
    await bank.loadKinds()
    void bank.lookThrough(() => left)
  })
})
onBeforeUnmount(() => {
  left = true
  clearTimeout(wait)
})
watch(
  () => ({ ...bank.wanted }),
  () => {
    clearTimeout(wait)
    wait = setTimeout(() => {
      at.value = 0
      void bank.find()
    }, 200)
  },
)

async function focusRow(): Promise<void> {
  await nextTick()
  list.value?.querySelector<HTMLElement>('[tabindex="0"]')?.focus()
}
function toList(): void {
  if (bank.rows.length) void focusRow()
}
function act(action: BankAction, row: BankRow): void {
  const last = bank.rows.length - 1
  const does: Record<BankAction, () => unknown> = {
    up: () => (at.value = Math.max(0, at.value - 1)),
    down: () => (at.value = Math.min(last, at.value + 1)),
    first: () => (at.value = 0),
    last: () => (at.value = last),
    choose: () => bank.choose(row),
    open: () => router.push(`/sheets/${row.sheet}/${row.place}`),
    take: () => take(),
  }
  does[action]()
  if (action !== 'open' && action !== 'take') void focusRow()
}
function onRow(event: KeyboardEvent, row: BankRow): void {
  const action = actionOf(IN_THE_BANK, event)
  if (action === null) return
  event.preventDefault()
  act(action, row)
}
/** What is chosen, into the builder. */
async function take(): Promise<void> {
  if (!bank.picked.length) return
  build.take(bank.picked)
  bank.chosen = {}
  await router.push('/build')
}
const regional = useRegional()
const { tenths } = regional
const day = (when: string | null): string => (when ? regional.day(when) : '')
const KINDS = [
  ['family', 'families', 'Kind'],
  ['slip', 'slips', 'Where it goes wrong'],
  ['method', 'methods', 'Way'],
] as const
const ORDERS = [
  ['recent', 'changed last'],
  ['easiest', 'easiest first'],
  ['hardest', 'hardest first'],
  ['unused', 'longest unused'],
] as const
</script>

<template>
  <main class="page">
    <PageHeader title="Bank" />
    <form class="wanted" aria-label="What is looked for" @submit.prevent="toList">
      <label class="wide"
        ><span>Text of the problem or its sheet</span
        ><input
          ref="search"
          v-model="bank.wanted.text"
          type="search"
          maxlength="120"
          placeholder="x^2, √, Thursday …"
          @keydown.down.prevent="toList"
      /></label>
      <label v-for="[key, many, words] in KINDS" :key="key"
        ><span>{{ words }}</span>
        <select v-model="bank.wanted[key]">
          <option value="">any</option>
          <option v-for="kind in bank.kinds?.[many] ?? []" :key="kind.id" :value="kind.id">
            {{ kind.name }} ({{ kind.count }})
          </option>
        </select>
      </label>
      <fieldset>
        <legend>Difficulty</legend>
        <input
          v-model.number="bank.wanted.low"
          type="number"
          min="1"
          max="10"
          step="0.5"
          aria-label="Difficulty from"
        />
        to
        <input v-model.number="bank.wanted.high" type="number" min="1" max="10" step="0.5" aria-label="Difficulty to" />
      </fieldset>
      <fieldset>
        <legend>Not printed since</legend>
        <DayInput v-model="bank.wanted.unused" label="Not printed since" hint="any day" />
      </fieldset>
      <label
        ><span>Order</span
        ><select v-model="bank.wanted.order">
          <option v-for="[id, words] in ORDERS" :key="id" :value="id">{{ words }}</option>
        </select></label
      >
      <label class="tick"><input v-model="bank.wanted.repeated" type="checkbox" /> only items I have twice</label>
      <button type="button" class="plain-button" @click="Object.assign(bank.wanted, ANYTHING)">clear</button>
    </form>
    <TroubleNote :request="bank.request" />
    <TroubleNote :request="looking" />
    <p class="sum" role="status">
      {{ bank.found }} {{ bank.found === 1 ? 'problem' : 'problems'
      }}<template v-if="bank.waiting"
        >; {{ bank.waiting }} are still being looked through and are found by their text only</template
      >
      <button v-if="bank.picked.length" class="take" @click="take">
        Take {{ bank.picked.length }} into a new sheet
      </button>
    </p>
    <ul ref="list" aria-label="Problems found">
      <li
        v-for="(row, k) in bank.rows"
        :key="row.id"
        :class="{ on: k === at, chosen: bank.chosen[row.id] }"
        :tabindex="k === at ? 0 : -1"
        :aria-current="k === at"
        :aria-label="`${instruction(row.task, row.variable)} ${row.given}, ${row.family}, difficulty ${tenths(row.difficulty) || 'not known'}, on ${row.title} number ${row.place}${bank.chosen[row.id] ? ', chosen' : ''}`"
        @click="at = k"
        @dblclick="act('open', row)"
        @keydown="onRow($event, row)"
      >
        <input
          type="checkbox"
          tabindex="-1"
          aria-hidden="true"
          :checked="!!bank.chosen[row.id]"
          @click.stop="bank.choose(row)"
        />
        <span class="given" aria-hidden="true"
          ><small class="muted">{{ instruction(row.task, row.variable) }}</small
          >{{ ' ' }}<MathText :latex="row.given_latex" :display="false"
        /></span>
        <RatingMark :rating="row.difficulty" />
        <span class="about muted" aria-hidden="true">
          {{ row.title }}, number {{ row.place
          }}<template v-if="row.printed"> · printed {{ day(row.printed) }}</template
          ><template v-if="row.same">
            · the same item {{ row.same === 1 ? 'once' : `${row.same} times` }} more</template
          >
          <template v-if="row.slips.length"> · {{ row.slips.join(', ') }}</template>
        </span>
      </li>
    </ul>
    <p v-if="!bank.rows.length && !bank.request.busy.value" class="muted">
      No problem of yours is like that. Every problem on your sheets is in the bank.
    </p>
    <button v-if="bank.more" class="plain-button" @click="bank.further">Show more</button>
    <KeyList v-if="bank.rows.length" :group="IN_THE_BANK" />
  </main>
</template>

<style scoped>
.page {
  max-width: 1080px;
  margin: 0 auto;
  padding: 22px 28px;
}
.wanted {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px 14px;
}
.wanted fieldset {
  border: 0;
  margin: 0;
  padding: 0;
}
.wanted legend,
.wanted label > span {
  display: block;
  padding: 0;
  font-size: 13px;
  color: var(--muted);
}
.wanted input:is([type='search'], [type='number']),
.wanted select {
  padding: 6px 8px;
  height: 36px;
  max-width: 210px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.wanted .wide {
  flex: 1 1 240px;
}
.wanted .wide input {
  width: 100%;
  max-width: none;
}
.wanted fieldset input[type='number'] {
  width: 66px;
}
.tick {
  padding-bottom: 6px;
}
.sum {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
  min-height: 44px;
  padding-top: 8px;
}
.take {
  background: var(--settles);
  color: #fff;
  border: 0;
  padding: 7px 14px;
  border-radius: 6px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--hairline);
}
li {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) 74px;
  gap: 2px 10px;
  align-items: center;
  padding: 8px;
  border-bottom: 1px solid var(--hairline);
  cursor: default;
}
li.on {
  background: var(--sheet);
  box-shadow: inset 3px 0 var(--settles);
}
li.chosen {
  background: var(--quiet);
}
li:focus-visible {
  outline-offset: -2px;
}
.given {
  font-size: 1.08em;
  overflow: hidden;
}
.given small {
  font-size: 13px;
}
.about {
  grid-column: 2 / -1;
  font-size: 13px;
}
</style>

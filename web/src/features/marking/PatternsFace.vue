<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import { useRouter } from 'vue-router'
import { useMarking } from './store'
import type { ChartOption } from '@/components/ChartView.vue'
import MathText from '@/components/MathText.vue'
import PlainMath from '@/components/PlainMath.vue'
import TroubleNote from '@/components/TroubleNote.vue'

/**
 * What a set shows: which errors, in how many workings, of whom; how each item went. Every number leads to its
 * workings.
 */
const ChartView = defineAsyncComponent(() => import('@/components/ChartView.vue')) // large, and only needed here
const marking = useMarking()
const router = useRouter()
const KINDS = [
  ['concept', 'Concepts'],
  ['procedure', 'Procedures'],
  ['notation', 'Notation'],
  ['care', 'Care'],
] as const
const named = (ids: number[]): string =>
  ids
    .map((id) =>
      marking.names
        ? marking.table.students.find((each) => each.id === id)?.name
        : `student ${marking.table.students.findIndex((each) => each.id === id) + 1}`,
    )
    .join(', ')
const latex = (id: number): string => marking.table.items.find((each) => each.id === id)?.given_latex ?? ''
/** A starter of five minutes: an example to mend, and three problems that rise. */
async function tomorrow(): Promise<void> {
  const made = await marking.tomorrow()
  if (made !== null) await router.push(`/sheets/${made}/print`)
}
const INKS: Record<string, string> = { concept: '#b93a20', procedure: '#34639b', notation: '#85427f', care: '#9a6512' }
/**
 * The errors of the set, each bar in the ink of its kind; concept, procedure, notation and care are rows of the legend.
 */
const bars = computed<ChartOption | null>(() => {
  const slips = marking.patterns?.slips ?? []
  if (!slips.length) return null
  return {
    grid: { left: 250, right: 30, top: 30, bottom: 24 },
    legend: { top: 0 },
    xAxis: { type: 'value', minInterval: 1, splitLine: { lineStyle: { color: '#e4dfd3' } } },
    yAxis: {
      type: 'category',
      inverse: true,
      data: slips.map((each) => each.name),
      axisLabel: { color: '#1d2440', width: 236, overflow: 'truncate' },
    },
    series: KINDS.filter(([kind]) => slips.some((each) => each.kind === kind)).map(([kind, words]) => ({
      name: words,
      type: 'bar',
      stack: 'all',
      color: INKS[kind],
      barWidth: 13,
      data: slips.map((each) => (each.kind === kind ? each.count : 0)),
      label: { show: true, position: 'right', formatter: (part) => (part.value ? String(part.value) : '') },
    })),
  }
})
function fromBars(_: number, place: number): void {
  const first = marking.patterns?.slips[place]?.workings[0]
  if (first !== undefined) void look(first)
}
async function look(working: number): Promise<void> {
  await router.push(`/sets/${marking.set?.id}`)
  await marking.jump(working)
}
</script>

<template>
  <section class="patterns" aria-label="Patterns">
    <TroubleNote :request="marking.opening" />
    <template v-if="marking.patterns">
      <p class="row">
        <span class="muted">{{ marking.patterns.workings }} workings are verified.</span>
        <RouterLink :to="`/classes/${marking.set?.school_class}/patterns`">The class over time</RouterLink>
        <a :href="`/api/sets/${marking.set?.id}/patterns.csv`">as a table</a>
        <el-button v-if="marking.patterns.slips.length" :loading="marking.opening.busy.value" @click="tomorrow"
          >For tomorrow: against “{{ marking.patterns.slips[0]!.name }}”</el-button
        >
      </p>
      <ChartView
        v-if="bars"
        :option="bars"
        :height="60 + 24 * marking.patterns.slips.length"
        label="The errors of this set by how many workings they are in. The tables below say the same."
        @chosen="fromBars"
      />
      <div v-for="[kind, words] in KINDS" :key="kind">
        <template v-if="marking.patterns.slips.some((each) => each.kind === kind)">
          <h2>{{ words }}</h2>
          <table class="rows">
            <thead>
              <tr>
                <th scope="col">Error</th>
                <th scope="col">Workings</th>
                <th scope="col">Who</th>
                <th scope="col">Look</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="slip in marking.patterns.slips.filter((each) => each.kind === kind)" :key="slip.id">
                <th scope="row">{{ slip.name }}</th>
                <td>{{ slip.count }}</td>
                <td>{{ named(slip.students) }}</td>
                <td>
                  <button
                    v-for="(working, k) in slip.workings.slice(0, 12)"
                    :key="working"
                    class="plain-button"
                    :aria-label="`${slip.name}, working ${k + 1}`"
                    @click="look(working)"
                  >
                    {{ k + 1 }}
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </template>
      </div>
      <h2>Items</h2>
      <table class="rows">
        <thead>
          <tr>
            <th scope="col">Item</th>
            <th scope="col">Right</th>
            <th scope="col" title="Correlation with the share of right workings on the whole set">Tells apart</th>
            <th scope="col">Went wrong alike</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in marking.patterns.items" :key="item.item">
            <th scope="row">{{ item.number }} <MathText :latex="latex(item.item)" :display="false" /></th>
            <td class="bar">
              <i
                aria-hidden="true"
                class="right"
                :style="{ width: `${item.workings ? (100 * item.right) / item.workings : 0}%` }"
              /><span>{{ item.right }} of {{ item.workings }}</span>
            </td>
            <td>{{ item.tells_apart ?? 'too few' }}</td>
            <td>
              <p v-for="group in item.wrong" :key="group.workings[0]">
                <button class="plain-button" @click="look(group.workings[0]!)">{{ group.count }} ×</button>{{ ' '
                }}<PlainMath :text="group.text" />{{ ' '
                }}<span class="muted"
                  >{{ group.slip
                  }}<template v-if="group.foreseen !== null"
                    >, {{ group.foreseen ? 'foreseen' : 'not foreseen' }}</template
                  ></span
                >
              </p>
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
a {
  color: var(--settles);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
}
h2 {
  font-size: 17px;
  margin: 16px 0 4px;
}
table {
  width: 100%;
  table-layout: fixed;
}
th:first-child {
  width: 27%;
}
th:nth-child(2) {
  width: 210px;
}
th:last-child {
  width: 30%;
}
.bar {
  position: relative;
  width: 210px;
}
.bar i {
  position: absolute;
  inset: 6px auto 6px 0;
  background: color-mix(in srgb, var(--breaks) 28%, transparent);
  border-radius: 3px;
}
.bar i.right {
  background: color-mix(in srgb, var(--holds) 28%, transparent);
}
.bar span {
  position: relative;
  padding-left: 6px;
}
</style>

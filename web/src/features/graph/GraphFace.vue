<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, unwrap, type Features } from '@/api/client'
import GraphView from '@/components/GraphView.vue'
import PlainMath from '@/components/PlainMath.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'

/** The graph of the given beside its table of features. */
const props = defineProps<{ problem: number; given: string; letter: string }>()

const found = ref<Features | null>(null)
const request = useRequest()
watch(
  () => [props.problem, props.given],
  () =>
    request.run(
      () => unwrap(api.GET('/api/problems/{problem_id}/analysis', { params: { path: { problem_id: props.problem } } })),
      (features) => {
        found.value = features
        request.trouble.value = features.error?.message ?? ''
      },
    ),
  { immediate: true },
)

const infinite = (text: string): string => text.replace('inf', '∞').replace('-', '−')
const table = computed<[string, string][]>(() => {
  const f = found.value
  if (!f || f.error) return []
  const x = props.letter
  const rows: [string, string][] = [
    ['domain', f.excluded.length ? `${x} ≠ ${f.excluded.join(', ')}` : 'all real numbers'],
    [f.holes.length > 1 ? 'holes' : 'hole', f.holes.map(([a, b]) => `(${a}, ${b})`).join(', ') || 'none'],
    ['vertical asymptotes', f.vertical_asymptotes.map((a) => `${x} = ${a}`).join(', ') || 'none'],
  ]
  if (f.oblique_asymptote) rows.push(['oblique asymptote', `y = ${f.oblique_asymptote}`])
  else rows.push(['horizontal asymptote', f.horizontal_asymptote === null ? 'none' : `y = ${f.horizontal_asymptote}`])
  rows.push(
    ['x-intercepts', f.x_intercepts.join(', ') || 'none'],
    ['y-intercept', f.y_intercept ?? 'none'],
    [
      'end behaviour',
      ['-', '+'].map((s) => `${x} → ${s === '-' ? '−' : ''}∞: y → ${infinite(f.end_behaviour[s] ?? '')}`).join('; '),
    ],
    ['range', f.range === 'all' ? 'all real numbers' : (f.range ?? 'not worked out')],
    [
      'points that fit the grid',
      f.grid_points
        .slice(0, 4)
        .map(([a, b]) => `(${a}, ${b})`)
        .join('  '),
    ],
  )
  return rows
})
</script>

<template>
  <section class="face" :class="{ two: !!found?.graph }" aria-label="Graph and features">
    <TroubleNote :request="request" />
    <template v-if="found?.graph && !request.trouble.value">
      <GraphView :graph="found.graph" />
      <table aria-label="Features">
        <tbody>
          <tr v-for="[name, value] in table" :key="name">
            <th scope="row">{{ name }}</th>
            <td><PlainMath :text="value" /></td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
.face.two {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(280px, 1fr);
  gap: 26px;
  align-items: start;
}
@media (max-width: 900px) {
  .face.two {
    display: block;
  }
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--muted);
  width: 150px;
  padding: 7px 0;
  vertical-align: top;
}
td {
  padding: 5px 0;
}
tr + tr {
  border-top: 1px solid var(--hairline);
}
td :deep(.plain) {
  white-space: normal;
}
</style>

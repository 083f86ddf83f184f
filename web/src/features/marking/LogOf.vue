<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useMarking } from './store'
import { api, unwrap, type Schema } from '@/api/client'
import TroubleNote from '@/components/TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'
import { useRegional } from '@/lib/regional'

/** Who looked at the marks of a set, and who changed which. */
const marking = useMarking()
const { day, number } = useRegional(() => marking.set?.in_force)
const request = useRequest('The server does not answer. Try again in a moment.')
const rows = ref<Schema['LogRow'][]>([])
onMounted(() =>
  request.run(
    () => unwrap(api.GET('/api/sets/{set_id}/log', { params: { path: { set_id: marking.set?.id ?? 0 } } })),
    (found) => (rows.value = found),
  ),
)
const name = (id: number | null): string => marking.table.students.find((each) => each.id === id)?.name ?? ''
const mark = (value: number | null): string => (value === null ? 'no mark' : number(value))
</script>

<template>
  <section class="log" aria-label="Who looked and who changed">
    <TroubleNote :request="request" />
    <p v-for="(row, k) in rows" :key="k">
      {{ day(row.day) }} {{ row.who }}: <template v-if="row.student === null">{{ row.what }}</template><template v-else
        >{{ name(row.student) }}, {{ row.item }}: {{ mark(row.before) }} → {{ mark(row.after)
        }}<template v-if="row.what === 'taken back'">, taken back</template></template
      >
    </p>
  </section>
</template>

<style scoped>
.log {
  border-left: 3px solid var(--settles);
  padding: 2px 14px;
  margin-bottom: 12px;
  max-height: 320px;
  overflow-y: auto;
  font-size: 14px;
}
p {
  margin: 2px 0;
}
</style>

<script setup lang="ts">
import { ref, watch } from 'vue'
import { useMarking } from './store'
import { api, unwrap, type Echo, type Schema } from '@/api/client'
import MathText from '@/components/MathText.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'

/** What comes back to students, as it stands on their slips of paper. */
const marking = useMarking()
const request = useRequest('The server does not answer. Try again in a moment.')
const slips = ref<Schema['FeedbackOut'][]>([])
const right = ref(false)
watch(
  () => [marking.set?.id, right.value] as const,
  ([set]) =>
    set !== undefined &&
    request.run(
      () =>
        unwrap(
          api.GET('/api/sets/{set_id}/feedback', { params: { path: { set_id: set }, query: { right: right.value } } }),
        ),
      (found) => (slips.value = found),
    ),
  { immediate: true },
)
const latex = (echo: Echo): string => `${echo.left} ${echo.right}`
const listed = (numbers: number[]): string => numbers.join(', ')
</script>

<template>
  <section aria-label="Feedback slips">
    <p class="row">
      <label><input v-model="right" type="checkbox" /> with the right lines</label>
      <a :href="`/api/sets/${marking.set?.id}/feedback.pdf?right=${right}`" target="_blank" rel="noopener"
        >on paper, two to a page</a
      >
    </p>
    <TroubleNote :request="request" />
    <p v-if="request.busy.value && !slips.length" class="muted">Drawing problems to try …</p>
    <article v-for="(slip, k) in slips" :key="k">
      <h2>
        {{ marking.names ? slip.student : `student ${k + 1}` }} <small v-if="slip.mark">{{ slip.mark }}</small>
      </h2>
      <p v-if="slip.well.length">
        {{
          slip.places.length || slip.open_ends.length
            ? `Right: ${listed(slip.well)}.`
            : 'Everything is right. Well done.'
        }}
      </p>
      <div v-for="place in slip.places" :key="place.number" class="place">
        <b>{{ place.number }}.</b>
        <div>
          <p><MathText :latex="latex(place.before)" /></p>
          <p>
            <code v-if="place.in_words || place.line.error">{{ place.written }}</code><MathText
              v-else
              :latex="latex(place.line)"
            />{{ ' ' }}<span class="broken">{{ place.in_words ? 'this is not right' : 'this does not follow' }}</span
            ><template v-if="place.right">
              · right would be <MathText :latex="latex(place.right)" :display="false"
            /></template>
          </p>
          <p>
            <em>{{ place.cue }}</em>
          </p>
        </div>
      </div>
      <p v-if="slip.open_ends.length">Not finished yet: {{ listed(slip.open_ends) }}.</p>
      <p v-if="slip.tries.length" class="muted">
        To try:
        <span v-for="(each, n) in slip.tries" :key="n" class="try"
          ><MathText :latex="latex(each)" :display="false"
        /></span>
      </p>
    </article>
  </section>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 22px;
}
a {
  color: var(--settles);
}
article {
  border-bottom: 1px dashed var(--hairline);
  padding: 8px 0 10px;
  max-width: 780px;
}
h2 {
  font-size: 17px;
  margin: 4px 0;
}
h2 small {
  margin-left: 14px;
}
p {
  margin: 3px 0;
}
.place {
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr);
  margin: 6px 0;
}
.broken {
  color: var(--breaks);
  font-size: 14px;
  margin-left: 8px;
}
.try {
  display: inline-block;
  margin-left: 18px;
  color: var(--ink);
}
</style>

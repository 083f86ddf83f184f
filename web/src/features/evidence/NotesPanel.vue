<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { pointOf, type Link, type Report } from '@/api/client'
import PlainMath from '@/components/PlainMath.vue'
import RelationGlyph from '@/components/RelationGlyph.vue'
import { isSideLine, meaningOf, NOTE_WORDS, relationWord, type Relation } from '@/lib/relations'
import { actionOf, HELP } from '@/lib/shortcuts'

/** What is to be said of the line one is on. Empty and quiet when it holds and nothing was noticed. */
/** `fixed`: the lines are somebody's and stay as they are, so the right line can't be put in their place. */
const props = defineProps<{
  number: number
  text: string
  link: Link | null
  report: Report | null
  unknown: string
  task: string
  fixed?: boolean
}>()

const emit = defineEmits<{ use: [line: string] }>()
const which = ref(0)
const explanations = computed(() => (props.link?.slip ? [props.link.slip, ...props.link.other_slips] : []))
const slip = computed(() => explanations.value[which.value % explanations.value.length] ?? null)
watch(
  () => [props.number, props.text],
  () => (which.value = 0),
)
function onKey(event: KeyboardEvent): void {
  const action = slip.value ? actionOf(HELP, event) : null
  if (action === 'other-explanation') which.value++
  else if (action === 'use-right-line' && slip.value?.instead && !props.fixed) emit('use', slip.value.instead)
  else return
  event.preventDefault()
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))

const side = computed(() => !!props.link && isSideLine(props.link.kind))
const word = computed(() => (props.link ? relationWord(props.link.relation, props.link.kind) : ''))
const relation = computed(() => (props.link?.relation ?? null) as Relation | null)
const meaning = computed(() =>
  relation.value && !side.value ? meaningOf(relation.value, props.link!.kind, props.task) : '',
)
const lostElsewhere = computed(() => {
  const evidence = props.link?.evidence
  const shown = evidence && 'solution' in evidence ? evidence.solution : null
  return (props.link?.lost ?? []).filter((value) => value !== shown)
})
const notes = computed(() => (props.link?.notes ?? []).map((note) => NOTE_WORDS[note] ?? note))
const point = computed(() => pointOf(props.link?.evidence))
const values = computed(() => Object.entries(point.value?.values ?? {}))
const reasons = computed(() => Object.entries(props.link?.reasons ?? {}))
const misstated = computed(() => (props.link?.move?.as_stated === false ? props.link.move : null))
const quiet = computed(
  () =>
    props.link?.relation === 'holds' &&
    !notes.value.length &&
    !props.link.conditions.length &&
    !reasons.value.length &&
    !misstated.value &&
    !props.link.gained.length,
)
/** Values as a statement about the unknown. */
const stated = (found: string[]): string => found.map((value) => `${props.unknown} = ${value}`).join(' or ')
const hasTable = computed(() => point.value !== null && point.value.before !== null && !side.value)
</script>

<template>
  <aside class="notes" aria-label="What is to be said of this line">
    <template v-if="link">
      <header :class="link.relation ?? 'unread'">
        <RelationGlyph v-if="!side" :relation="relation" />
        <div>
          <p class="where muted">Line {{ number }}</p>
          <h2>{{ word }}</h2>
        </div>
      </header>
      <p v-if="link.error" class="error">{{ link.error.message }}</p>
      <p v-else-if="!quiet" class="meaning muted">{{ meaning }}</p>

      <section v-if="slip" class="slip" aria-label="What was probably done">
        <h3>{{ slip.name }}</h3>
        <p>{{ slip.done }}</p>
        <p class="muted">{{ slip.why }}</p>
        <p class="cue">{{ slip.cue }}</p>
        <p v-if="slip.instead" class="instead">
          <PlainMath :text="slip.instead" display />
          <button
            v-if="!fixed"
            class="plain-button"
            title="Put this line in its place (Alt+U)"
            @click="emit('use', slip.instead)"
          >
            use it
          </button>
        </p>
        <button
          v-if="explanations.length > 1"
          class="plain-button muted other"
          title="Other explanations (Alt+O)"
          @click="which++"
        >
          {{ (which % explanations.length) + 1 }} of {{ explanations.length }} explanations
        </button>
      </section>
      <section v-if="link.evidence">
        <table v-if="hasTable" class="try">
          <caption v-if="values.length">
            Try
            <template v-for="([name, value], k) in values" :key="name"
              >{{ k ? ', ' : ' ' }}<PlainMath :text="`${name} = ${value}`"
            /></template>
          </caption>
          <tbody>
            <tr>
              <th scope="row">line before</th>
              <td><PlainMath :text="point?.before ?? 'undefined'" display /></td>
            </tr>
            <tr class="differs">
              <th scope="row">this line</th>
              <td><PlainMath :text="point?.after ?? 'undefined'" display /></td>
            </tr>
          </tbody>
        </table>
        <p v-else>{{ link.evidence.text }}</p>
        <p v-if="point?.plain" class="alike">{{ point.plain }}</p>
      </section>

      <section v-if="lostElsewhere.length && link.relation === 'narrows'">
        <h3>Lost as well</h3>
        <p><PlainMath :text="stated(lostElsewhere)" /></p>
      </section>
      <section v-if="link.lost.length && link.relation === 'settles'">
        <h3>Dropped, rightly</h3>
        <p><PlainMath :text="stated(link.lost)" /></p>
      </section>
      <section v-if="link.gained.length && (link.relation === 'widens' || link.relation === 'narrows')">
        <h3>Candidates gained</h3>
        <ul>
          <li v-for="value in link.gained" :key="value">
            <PlainMath :text="stated([value])" /><template v-if="link.reasons[value]"
              >: {{ link.reasons[value] }}</template
            >
          </li>
        </ul>
      </section>
      <section v-else-if="reasons.length && side">
        <p v-for="[value, reason] in reasons" :key="value">{{ reason }}</p>
      </section>
      <section v-if="misstated">
        <h3>The move</h3>
        <p>
          The margin says <code>{{ misstated.stated }}</code>, but that is not what was done<template
            v-if="misstated.text"
            >: it was <code>{{ misstated.text }}</code></template
          >.
        </p>
      </section>
      <section v-if="link.conditions.length">
        <h3>Needs</h3>
        <p>
          <template v-for="(condition, k) in link.conditions" :key="condition"
            >{{ k ? ', ' : '' }}<PlainMath :text="condition"
          /></template>
        </p>
      </section>
      <section v-for="note in notes" :key="note">
        <p>{{ note }}</p>
      </section>
    </template>

    <section v-if="report?.owed.length" class="owed">
      <h3>Checks owed</h3>
      <ul>
        <li v-for="owed in report.owed" :key="owed.value">
          <PlainMath :text="stated([owed.value])" />: {{ owed.because }}.
          <span class="muted"
            >Write <code>check {{ unknown }} = {{ owed.value }}</code></span
          >
        </li>
      </ul>
    </section>
  </aside>
</template>

<style scoped>
.notes {
  padding: 22px 22px;
  font-size: 14.5px;
}
header {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-bottom: 10px;
}
h2 {
  font-size: 19px;
  color: var(--relation);
}
h3 {
  margin: 0 0 2px;
  font-size: 13px;
  font-weight: 400;
  color: var(--muted);
}
.where {
  font-size: 13px;
}
section {
  margin-top: 14px;
}
ul {
  margin: 0;
  padding-left: 18px;
}
.error {
  color: var(--breaks);
}
.slip {
  padding: 12px 14px;
  border: 1px solid var(--hairline);
  border-left: 4px solid var(--relation, var(--breaks));
  border-radius: 8px;
  background: var(--sheet);
}
.slip h3 {
  color: var(--ink);
  font-size: 15px;
  font-weight: 700;
}
.slip p {
  margin-top: 5px;
}
.cue {
  font-style: italic;
}
.instead code {
  font: 14px/1.5 var(--mono);
}
.other {
  font-size: 13px;
  margin-top: 4px;
}
.try {
  border-collapse: collapse;
  width: 100%;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 8px;
}
.try caption {
  text-align: left;
  padding-bottom: 6px;
}
.try th {
  text-align: left;
  font-weight: 400;
  color: var(--muted);
}
.try th,
.try td {
  padding: 6px 10px;
  border-bottom: 1px solid var(--hairline);
}
.try td {
  text-align: right;
  font-size: 17px;
}
.try .differs td {
  color: var(--breaks);
}
code {
  font: 13px var(--mono);
  background: var(--quiet);
  padding: 1px 4px;
  border-radius: 4px;
}
.owed {
  border-top: 1px solid var(--hairline);
  padding-top: 12px;
}
</style>

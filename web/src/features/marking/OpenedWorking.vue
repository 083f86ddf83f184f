<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useMarking, type Opened } from './store'
import MathText from '@/components/MathText.vue'
import RelationGlyph from '@/components/RelationGlyph.vue'
import { formOf } from '@/features/items/forms'
import NotesPanel from '@/features/evidence/NotesPanel.vue'
import { relationWord, type Relation } from '@/lib/relations'
import { EYE_WORDS } from '@/lib/marking'
import { useRegional } from '@/lib/regional'
import { unknownOf } from '@/lib/tasks'

/** A student's working beside the key, at the first line that does not hold, with what is proposed and why. */
const props = defineProps<{ working: Opened }>()
const marking = useMarking()
const { moment, number } = useRegional(() => marking.set?.in_force)
const mark = (value: number | null): string => (value === null ? 'no mark' : number(value))
const item = computed(() => marking.table.items.find((each) => each.id === props.working.item) ?? null)
/** Whether it is answered, in words or by a letter, and not worked. */
const form = computed(() => formOf(item.value))
const at = ref(0)
watch(
  () => props.working.id,
  () => {
    const links = props.working.report?.links ?? []
    const broken = links.findIndex((link) => ['breaks', 'narrows', null].includes(link.relation))
    at.value = broken === -1 ? links.length - 1 : broken
  },
  { immediate: true },
)
const link = computed(() => props.working.report?.links[at.value] ?? null)
const glyph = (relation: string | null): Relation | null => relation as Relation | null
</script>

<template>
  <section class="opened" aria-label="The working, opened">
    <div class="sides">
      <div>
        <h2>Written</h2>
        <p v-if="!working.lines.length" class="muted">Nothing was written.</p>
        <ol>
          <li
            v-for="(echo, k) in working.echoes"
            :key="k"
            :class="{ on: k === at }"
            tabindex="0"
            :aria-current="k === at"
            @click="at = k"
            @keydown.enter="at = k"
          >
            <RelationGlyph :relation="glyph(working.report?.links[k]?.relation ?? null)" :size="26" />
            <span class="line"
              ><code v-if="form.answered || echo.error">{{ working.lines[k] }}</code
              ><MathText v-else :latex="`${echo.left} ${echo.right}`"
            /></span>
            <small class="muted">{{
              working.report
                ? relationWord(working.report.links[k]?.relation ?? null, working.report.links[k]?.kind ?? '')
                : ''
            }}</small>
          </li>
        </ol>
      </div>
      <div v-if="item" class="key" tabindex="0" role="group" aria-label="Key">
        <h2>Key</h2>
        <p v-if="!item.key.length" class="muted">No key is known.</p>
        <template v-if="form.answered">
          <p v-for="(line, k) in item.key_lines" :key="k">
            <code>{{ line }}</code>
          </p>
          <h2>On the sheet</h2>
          <p v-for="(latex, k) in [...item.form!.options, ...item.form!.lines]" :key="`s${k}`">
            <b>{{ form.mark?.(k) ?? '' }}</b>{{ ' ' }}<MathText :latex="latex" />
          </p>
        </template>
        <p v-for="(echo, k) in item.key" v-else :key="k"><MathText :latex="`${echo.left} ${echo.right}`" /></p>
      </div>
    </div>
    <section v-if="working.proposal" class="points" aria-label="What is proposed">
      <p>
        <b>{{ number(working.mark ?? working.proposal.mark) }}</b> of {{ number(working.proposal.total) }}
        <span class="muted"
          >{{ working.mark === null ? 'proposed' : `confirmed by ${working.confirmed_by}`
          }}<template v-if="working.same"> · {{ working.same }} more alike</template></span
        >
      </p>
      <ul>
        <li v-for="(point, k) in working.proposal.points" :key="k">
          <b>{{ number(point.got) }}</b> of {{ number(point.worth) }} {{ point.kind }}: {{ point.why }}
        </li>
      </ul>
      <p v-for="eye in working.proposal.eye" :key="eye" class="eye">{{ EYE_WORDS[eye] ?? eye }}</p>
    </section>
    <p v-else class="muted">Not verified yet.</p>
    <NotesPanel
      v-if="link && item"
      fixed
      :number="link.line"
      :text="working.lines[at] ?? ''"
      :link="link"
      :report="working.report"
      :unknown="unknownOf(item)"
      :task="item.task"
    />
    <details v-if="working.versions.length" open>
      <summary>
        {{ working.versions.length === 1 ? 'Another version was' : `${working.versions.length} other versions were` }}
        marked before
      </summary>
      <div v-for="(each, k) in working.versions" :key="k" class="version">
        <p class="muted">
          until {{ moment(each.until) }}, when {{ each.who }} wrote other lines;
          {{
            each.mark === null ? 'its mark had been taken back' : `mark ${number(each.mark)}, by ${each.confirmed_by}`
          }}
        </p>
        <p v-for="(line, j) in each.lines" :key="j">
          <code>{{ line }}</code>
        </p>
        <button class="plain-button" @click="marking.putBack(each.lines)">put these lines back</button>
      </div>
    </details>
    <details v-if="working.decisions.length">
      <summary class="muted">What was decided</summary>
      <p v-for="(each, k) in working.decisions" :key="k" class="muted">
        {{ moment(each.when) }}, {{ each.who }}: {{ mark(each.before) }} → {{ mark(each.after)
        }}<template v-if="each.taken_back">, taken back</template>
      </p>
    </details>
  </section>
</template>

<style scoped>
.opened {
  border-left: 1px solid var(--hairline);
  padding-left: 20px;
  min-width: 0;
}
.sides {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 14px;
}
.key {
  overflow-x: auto;
}
.sides h2 {
  font-size: 13px;
  color: var(--muted);
  font-weight: 400;
}
ol,
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
ol li {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 1px 4px;
  border-left: 3px solid transparent;
}
ol li.on {
  background: var(--quiet);
  border-left-color: var(--settles);
}
ol li {
  overflow-x: auto;
  overflow-y: hidden;
}
.key p {
  padding: 3px 0;
}
.points {
  border-top: 1px solid var(--hairline);
  margin-top: 10px;
  padding-top: 8px;
  font-size: 15px;
}
.version {
  border-left: 2px solid var(--hairline);
  padding-left: 10px;
  margin: 6px 0;
}
.version p {
  margin: 0;
}
.eye {
  color: var(--widens);
}
@media (max-width: 700px) {
  .opened {
    border-left: 0;
    padding-left: 0;
  }
}
</style>

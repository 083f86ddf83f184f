<script setup lang="ts">
import { computed, ref } from 'vue'
import { useHome } from './home'
import { SAYS } from '@/features/items/words'
import type { MyItem } from '@/features/items/answer'
import MathText from '@/components/MathText.vue'
import { formOf } from '@/features/items/forms'
import TroubleNote from '@/components/TroubleNote.vue'
import LineEditor from '@/features/chain/LineEditor.vue'
import { useRegional } from '@/lib/regional'

/**
 * What a student sees afterwards: the problem that is next, errors that come again and those they are rid of, the own
 * chains. No points, no ranks.
 */
const store = useHome()
const emit = defineEmits<{ leave: []; back: [] }>()
defineProps<{ inRoom: boolean }>()
const text = ref('')
const { day } = useRegional(() => store.home?.in_force)
const decimal = computed(() => (store.task?.decimal === 'comma' ? 'comma' : 'point'))
const told = (k: number) =>
  store.task && store.lines[k] === store.task.working.lines[k] ? (store.task.working.told[k] ?? null) : null
const echoOf = (k: number) =>
  store.task && store.lines[k] === store.task.working.lines[k] ? (store.task.working.echoes[k] ?? null) : null
function commit(line: string): void {
  if (!line.trim()) return
  store.write([...store.lines, line.trim()])
  text.value = ''
}
function takeUp(): void {
  text.value = store.lines[store.lines.length - 1] ?? ''
  store.write(store.lines.slice(0, -1))
}
const DAY_MS = 86_400_000
/** When an error is due, in words. */
function when(due: string): string {
  const days = Math.round((Date.parse(due) - Date.parse(new Date().toISOString().slice(0, 10))) / DAY_MS)
  return days <= 0 ? 'due today' : days === 1 ? 'again tomorrow' : `again in ${days} days`
}
/** What stands of an item, in words. */
function stands(item: MyItem): string {
  if (!item.working?.lines.length) return 'not worked'
  if (item.working.answered) return 'right'
  const broken = item.working.told.findIndex((line) => line.verdict === 'look')
  return broken === -1 ? 'not finished' : `look at line ${broken + 1}`
}
</script>

<template>
  <div class="page">
    <header>
      <h1>{{ store.home?.student }}</h1>
      <p class="row">
        <button v-if="inRoom" class="plain-button" @click="emit('back')">back to the room</button
        ><button class="plain-button" @click="emit('leave')">leave</button>
      </p>
    </header>
    <TroubleNote :request="store.request" />
    <p v-if="store.offline" class="said" role="status">No connection. What you write is kept here and sent later.</p>
    <p v-if="store.refused" class="said" role="alert">{{ store.refused }}</p>
    <section aria-label="Next problem">
      <h2>Next</h2>
      <template v-if="store.task">
        <p class="muted">Against: {{ store.task.against }}</p>
        <p>
          {{ store.task.instruction }} <span class="given"><MathText :latex="store.task.given_latex" /></span>
        </p>
        <ol class="own-lines">
          <li v-for="(line, k) in store.lines" :key="k" :class="told(k)?.verdict">
            <code v-if="!echoOf(k) || echoOf(k)!.error">{{ line }}</code><MathText
              v-else
              :latex="`${echoOf(k)!.left} ${echoOf(k)!.right}`"
            />
            <span v-if="told(k)?.verdict" class="verdict">{{ SAYS[told(k)!.verdict] }}</span><span v-else class="muted"
              >kept</span
            >
            <em v-if="told(k)?.words">{{ told(k)!.words }}</em>
          </li>
        </ol>
        <p v-if="store.task.done" class="done" role="status">
          That is it. <button class="plain-button" @click="store.load()">what is next?</button>
        </p>
        <template v-else>
          <LineEditor v-model:text="text" :decimal="decimal" label="Next line" hint="the next line" @commit="commit" />
          <p v-if="store.lines.length">
            <button class="plain-button" @click="takeUp">take the last line up again</button>
          </p>
        </template>
      </template>
      <p v-else class="muted">
        {{
          store.due.length
            ? 'Nothing is due today.'
            : 'Nothing is due. An error that you make comes again here until you are rid of it.'
        }}
      </p>
    </section>
    <section v-if="store.home?.slips.length" aria-label="Errors">
      <h2>Errors that come again</h2>
      <p v-if="!store.due.length" class="muted">None is left.</p>
      <ul>
        <li v-for="each in store.due" :key="each.name">
          <b>{{ each.name }}</b>{{ ' ' }}<span class="muted">{{ when(each.due) }}</span
          ><br />{{ each.cue }}
        </li>
      </ul>
      <template v-if="store.rid.length"
        ><h2>You are rid of</h2>
        <ul>
          <li v-for="each in store.rid" :key="each.name">{{ each.name }}</li>
        </ul></template
      >
    </section>
    <section v-if="store.home?.sets.length" aria-label="What you wrote">
      <h2>What you wrote</h2>
      <details v-for="(each, s) in store.home.sets" :key="`${each.title}${s}`" :open="s === 0 && !store.task">
        <summary>
          {{ each.title }} <span class="muted">{{ day(each.day) }}</span>
        </summary>
        <div v-for="item in each.items" :key="item.id" class="item">
          <p>
            <b>{{ item.number }}</b>{{ ' '
            }}<MathText v-if="!formOf(item).givenWithin" :latex="item.given_latex" /><MathText
              v-else
              :latex="item.form!.lines[0]!"
            />{{ ' ' }}<span class="muted">{{ stands(item) }}</span>
          </p>
          <ol v-if="item.working" class="own-lines">
            <li v-for="(echo, k) in item.working.echoes" :key="k" :class="item.working.told[k]?.verdict">
              <code v-if="echo.error || formOf(item).answered">{{ item.working.lines[k] }}</code><MathText
                v-else
                :latex="`${echo.left} ${echo.right}`"
              />
              <span v-if="item.working.told[k]?.verdict === 'look'" class="verdict">look again</span>
              <em v-if="item.working.told[k]?.words">{{ item.working.told[k]!.words }}</em>
            </li>
          </ol>
        </div>
      </details>
    </section>
  </div>
</template>

<style scoped>
header,
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  justify-content: space-between;
  align-items: center;
}
h1 {
  font-size: 22px;
  margin: 0;
}
h2 {
  font-size: 17px;
  margin: 22px 0 6px;
}
.given {
  font-size: 19px;
}
ul {
  margin: 0;
  padding-left: 20px;
}
ul li {
  margin-bottom: 8px;
}
.own-lines {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
  border-left: 2px solid var(--hairline);
}
.own-lines li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  align-items: center;
  padding: 5px 0 5px 14px;
  overflow-x: auto;
}
.look {
  box-shadow: inset 3px 0 var(--breaks);
}
.verdict {
  color: var(--holds);
}
.look .verdict,
.unread .verdict {
  color: var(--breaks);
}
em {
  flex-basis: 100%;
}
.done {
  color: var(--holds);
  font-weight: 700;
}
.said {
  border-left: 3px solid var(--widens);
  padding: 2px 12px;
}
summary {
  cursor: pointer;
  font-weight: 700;
  padding: 4px 0;
}
.item {
  margin: 8px 0 8px 14px;
}
</style>

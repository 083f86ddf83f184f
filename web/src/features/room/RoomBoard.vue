<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref } from 'vue'
import { api, unwrap, type Schema } from '@/api/client'
import { useAsks } from './asks'
import AskTally from './AskTally.vue'
import MathText from '@/components/MathText.vue'
import RelationGlyph from '@/components/RelationGlyph.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'
import { keep, kept } from '@/lib/keep'
import { relationWord, type Relation } from '@/lib/relations'

/**
 * One working of the room for all to see, without a name: line by line, with the verdicts when they are wished; and
 * what the room says to it.
 */
const props = defineProps<{ working: number; set: number; given: string }>()
const emit = defineEmits<{ close: []; open: [working: number] }>()
const asks = useAsks()
const request = useRequest()
const found = ref<Schema['WorkingOut'] | null>(null)
const shown = ref(0)
const seen = ref(false)
const dark = ref(kept<boolean>('board.dark') ?? true)
const root = ref<HTMLElement | null>(null)
const echoes = computed(() => found.value?.echoes ?? [])
const link = (k: number) => found.value?.report?.links[k] ?? null
const glyph = (k: number): Relation | null => (link(k)?.relation ?? null) as Relation | null
const broken = computed(
  () => (found.value?.report?.links ?? []).find((each) => ['breaks', 'narrows'].includes(each.relation ?? '')) ?? null,
)

onMounted(async () => {
  window.addEventListener('keydown', byKey)
  await request.run(
    () => unwrap(api.GET('/api/workings/{working_id}', { params: { path: { working_id: props.working } } })),
    (working) => (found.value = working),
  )
  shown.value = Math.min(1, echoes.value.length)
  await nextTick()
  root.value?.focus()
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', byKey)
  void asks.stop()
})
function forward(): void {
  if (shown.value < echoes.value.length) shown.value++
  else seen.value = true
}
function backward(): void {
  if (seen.value) seen.value = false
  else if (shown.value > 0) shown.value--
}
async function vote(): Promise<void> {
  shown.value = echoes.value.length
  seen.value = false
  await asks.start(props.set, { kind: 'vote', working: props.working })
}
async function goOn(): Promise<void> {
  seen.value = false
  shown.value = broken.value ? broken.value.line - 1 : echoes.value.length
  await asks.start(props.set, { kind: 'try', working: props.working })
}
const ACTIONS: Record<string, () => void> = {
  arrowright: forward,
  arrowdown: forward,
  ' ': forward,
  enter: forward,
  arrowleft: backward,
  arrowup: backward,
  backspace: backward,
  v: () => (seen.value = !seen.value),
  q: () => void vote(),
  t: () => void goOn(),
  s: () => void asks.stop(),
  d: () => keep('board.dark', (dark.value = !dark.value)),
  escape: () => emit('close'),
}
function byKey(event: KeyboardEvent): void {
  if (event.altKey || event.ctrlKey || event.metaKey) return
  const pressed = (event.target as HTMLElement).closest?.('button')
  if (pressed && [' ', 'Enter'].includes(event.key)) return
  const act = ACTIONS[event.key.toLowerCase()]
  if (!act) return
  act()
  event.preventDefault()
}
</script>

<template>
  <div
    ref="root"
    class="before-class"
    :class="{ 'dark-board': dark }"
    tabindex="-1"
    role="region"
    aria-label="The room on the board"
  >
    <TroubleNote :request="request" />
    <TroubleNote :request="asks.request" />
    <p class="given"><MathText :latex="given" /></p>
    <template v-if="asks.ask?.kind === 'vote'"
      ><p class="question">Which line breaks?</p>
      <AskTally :ask="asks.ask" :seen="seen"
    /></template>
    <ol v-else class="lines" aria-live="polite">
      <li v-for="(echo, k) in echoes.slice(0, shown)" :key="k" :class="{ newest: k === shown - 1 }">
        <RelationGlyph v-if="seen" :relation="glyph(k)" :size="26" />
        <code v-if="echo.error">{{ found!.lines[k] }}</code><MathText v-else :latex="`${echo.left} ${echo.right}`" />
        <span v-if="seen && link(k)" class="verdict" :class="link(k)!.relation ?? ''">{{
          relationWord(link(k)!.relation, link(k)!.kind)
        }}</span>
        <p v-if="seen && link(k)?.slip" class="why">{{ link(k)!.slip!.done }}</p>
      </li>
    </ol>
    <template v-if="asks.ask?.kind === 'try'"
      ><p class="question">How does it go on?</p>
      <AskTally :ask="asks.ask" :seen="seen"
    /></template>
    <nav class="bar">
      <button class="plain-button" aria-label="Back" @click="backward">◀</button>{{ ' '
      }}<span>{{ shown }} / {{ echoes.length }}</span>
      <button class="plain-button" aria-label="Forward" @click="forward">▶</button>
      <button class="plain-button" :aria-pressed="seen" @click="seen = !seen">verdicts <kbd>V</kbd></button>
      <template v-if="asks.ask"
        ><button class="plain-button" @click="asks.stop()">stop asking <kbd>S</kbd></button></template
      >
      <template v-else>
        <button class="plain-button" :disabled="!echoes.length" @click="vote">which line breaks? <kbd>Q</kbd></button>
        <button class="plain-button" @click="goOn">how does it go on? <kbd>T</kbd></button>
      </template>
      <button class="plain-button" @click="emit('open', working)">in the marking table</button>
      <button class="plain-button" @click="keep('board.dark', (dark = !dark))">
        {{ dark ? 'light' : 'dark' }} <kbd>D</kbd>
      </button>
      <button class="plain-button" @click="emit('close')">leave <kbd>Esc</kbd></button>
    </nav>
  </div>
</template>

<style scoped>
.given {
  font-size: 1.3em;
  text-align: center;
}
.lines {
  list-style: none;
  padding: 0;
  margin: 0 auto 3vh;
  max-width: 900px;
  border-left: 3px solid var(--hairline);
}
.lines li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  align-items: center;
  padding: 0.3em 0 0.3em 22px;
}
.newest {
  font-size: 1.15em;
}
.verdict {
  font-size: 0.6em;
  color: var(--muted);
}
.verdict.breaks,
.verdict.narrows {
  color: var(--breaks);
}
.why {
  flex-basis: 100%;
  font-size: 0.65em;
  margin: 0;
}
.question {
  text-align: center;
  color: var(--muted);
}
</style>

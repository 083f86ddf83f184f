<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, provide, watch } from 'vue'
import { api, unwrap } from '@/api/client'
import KeyList from '@/components/KeyList.vue'
import MathText from '@/components/MathText.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import AskCard from '@/features/room/AskCard.vue'
import MyPage from '@/features/room/MyPage.vue'
import RoomDoor from '@/features/room/RoomDoor.vue'
import { useHome } from '@/features/room/home'
import { ECHO_OF } from '@/composables/useEcho'
import { useKeys } from '@/composables/useKeys'
import type { Told } from '@/features/items/answer'
import { formOf } from '@/features/items/forms'
import { SAYS } from '@/features/items/words'
import { useRoom } from '@/features/room/store'
import { IN_A_ROOM, type RoomAction } from '@/lib/shortcuts'

/** A student in a practice room: one problem at a time, line by line. */
const store = useRoom()
const home = useHome()
const atHome = computed(() => !!home.home)
let left = false
provide(ECHO_OF, (line, decimal) => unwrap(api.POST('/api/room/echo', { body: { text: line, decimal } })))

const again = (): void => void store.send()
/** Who takes the device up again sees at once what is new. */
const wake = (): void => {
  const now = Date.now()
  if (document.visibilityState === 'visible' && now - touched > QUIET_MS) store.wake()
  touched = now
}
const QUIET_MS = 5000
let touched = 0
onMounted(async () => {
  window.addEventListener('online', again)
  for (const each of WAKING) document.addEventListener(each, wake)
  if (!store.room && (await store.isOutside()) && !(await store.resume())) await home.load()
})
onBeforeUnmount(() => {
  left = true
  window.removeEventListener('online', again)
  for (const each of WAKING) document.removeEventListener(each, wake)
})
watch(
  () => !!store.room,
  (inside) => inside && void store.follow(() => left),
  { immediate: true },
)
const WAKING = ['visibilitychange', 'pointerdown'] as const
const item = computed(() => store.item)
const lines = computed(() => (item.value ? store.linesOf(item.value) : []))
/** What is told of a line; nothing of one that has not been sent. */
const told = (k: number): Told | null =>
  item.value && lines.value[k] === item.value.working?.lines[k] ? (item.value.working?.told[k] ?? null) : null
const form = computed(() => formOf(item.value))
/** Whether nothing can be written here: the room is over, or this one is marked. */
const closed = computed(() => !!store.room?.over || !!item.value?.closed)
watch(
  () => item.value?.id,
  () => (store.hint = null),
)

const DOES: Record<RoomAction, () => void> = {
  before: () => (store.at = Math.max(0, store.at - 1)),
  next: () => (store.at = Math.min((store.room?.items.length ?? 1) - 1, store.at + 1)),
  hint: () => canHint.value && item.value && void store.askHint(item.value),
  later: () => canSkip.value && item.value && store.skip(item.value),
  page: () => void home.load(),
  leave: () => void store.leave(),
}
useKeys(
  IN_A_ROOM,
  (action) => (action === 'leave' ? atHome.value || store.room : store.room && !atHome.value) && DOES[action](),
)
const keys = computed(() => ({
  ...IN_A_ROOM,
  rows: [
    ...form.value.keys,
    ...IN_A_ROOM.rows.filter((row) => !row.keys['Alt+h'] || (store.room?.hints && !form.value.answered)),
  ],
}))
const hintsLeft = computed(() => (store.room?.hints ?? 0) - (item.value?.working?.hints ?? 0))
const canHint = computed(() => !closed.value && !form.value.answered && hintsLeft.value > 0)
const canSkip = computed(
  () =>
    !!item.value &&
    !closed.value &&
    !item.value.working?.answered &&
    !store.later.includes(item.value.id) &&
    (store.room?.items.length ?? 0) > 1,
)
const decimal = computed(() => (store.room?.decimal === 'comma' ? 'comma' : 'point'))
const minutesLeft = computed(() =>
  store.room?.closes ? Math.max(0, Math.ceil((Date.parse(store.room.closes) - Date.now()) / 60_000)) : null,
)
/** What the item shows in the row of numbers. */
const state = (k: number): string => {
  const each = store.room?.items[k]
  if (!each) return ''
  if (each.working?.answered) return 'done'
  if (store.later.includes(each.id)) return 'for later'
  if (each.working?.told.some((line) => line.verdict === 'look')) return 'look again'
  return store.linesOf(each).length ? 'begun' : 'not begun'
}
</script>

<template>
  <main class="room">
    <MyPage v-if="atHome" :in-room="!!store.room" @back="home.close()" @leave="store.leave()" />
    <RoomDoor v-else-if="!store.room" />
    <template v-else>
      <header>
        <h1>{{ store.room.title }}</h1>
        <p class="row">
          <span>{{ store.room.student }}</span>
          <span v-if="minutesLeft !== null" class="muted">{{ minutesLeft }} min</span>
          <button class="plain-button" @click="home.load()">my page</button>
          <button class="plain-button" @click="store.leave()">leave</button>
        </p>
      </header>
      <p v-if="store.room.paused" class="said" role="alert">A pause: {{ store.room.paused }}</p>
      <p v-if="store.room.nudge" class="said" role="status">Your teacher: {{ store.room.nudge }}</p>
      <p v-if="store.room.over" class="said" role="status">The room is closed. This is what you wrote.</p>
      <p v-if="store.offline" class="said" role="status">No connection. What you write is kept here and sent later.</p>
      <p v-if="store.refused" class="said" role="alert">{{ store.refused }}</p>
      <AskCard v-if="store.room.ask" :decimal="decimal" />
      <nav aria-label="Problems">
        <button
          v-for="(each, k) in store.room.items"
          :key="each.id"
          class="place"
          :class="{ on: k === store.at, done: state(k) === 'done', again: state(k) === 'look again' }"
          :aria-label="`${each.number}, ${state(k)}`"
          :aria-current="k === store.at"
          @click="store.at = k"
        >
          {{ each.number
          }}<i aria-hidden="true">{{
            state(k) === 'done'
              ? '●'
              : state(k) === 'look again'
                ? '◐'
                : state(k) === 'for later'
                  ? '↷'
                  : state(k) === 'begun'
                    ? '○'
                    : ''
          }}</i>
        </button>
      </nav>
      <section v-if="item" :aria-label="`Problem ${item.number}`">
        <p class="muted">{{ item.instruction }}</p>
        <p v-if="!form.givenWithin" class="given"><MathText :latex="item.given_latex" /></p>
        <component
          :is="form.component"
          :key="item.id"
          :item="item"
          :lines="lines"
          :told="told"
          :decimal="decimal"
          :closed="closed"
          :draft="store.draftOf(item.id)"
          :unsent="!!store.unsent[item.id]"
          @answer="store.write(item, $event)"
          @draft="store.keepDraft(item.id, $event)"
        />
        <p class="visually-hidden" role="status">
          {{
            lines.length && told(lines.length - 1)?.verdict
              ? `Line ${lines.length}: ${SAYS[told(lines.length - 1)!.verdict]}. ${told(lines.length - 1)!.words}`
              : ''
          }}
        </p>
        <p v-if="item.working?.answered" class="answered" role="status">That is it.</p>
        <p v-if="item.closed && !store.room.over" class="said" role="status">
          {{
            item.working?.lines.length
              ? 'This one is closed: what you wrote stands as it is.'
              : 'This one is closed: nothing was written.'
          }}
        </p>
        <p v-if="store.overtaken[item.id]" class="said">
          Other lines were written here meanwhile, on another device or by your teacher.
          <button class="plain-button" @click="store.putMine(item)">put the lines of this device in their place</button>
        </p>
        <template v-if="!store.room.over">
          <p class="row">
            <button v-if="canHint" class="plain-button" @click="store.askHint(item)">a hint ({{ hintsLeft }})</button>
            <button v-if="canSkip" class="plain-button" @click="store.skip(item)">later</button>
            <button v-if="store.next !== null" class="plain-button" @click="store.at = store.next">
              {{ store.next > store.at ? 'the next problem' : `back to ${store.next + 1}` }}
            </button>
          </p>
          <div v-if="store.hint" class="hint" role="status">
            <p>{{ store.hint.look }}</p>
            <p v-if="store.hint.rule">{{ store.hint.rule }}</p>
            <p v-if="store.hint.line">
              <code>{{ store.hint.line }}</code>
            </p>
          </div>
          <TroubleNote :request="store.request" />
        </template>
      </section>
      <KeyList class="by-key" :group="keys" />
    </template>
  </main>
</template>

<style scoped>
/* a telephone has no such keys, and no room for them */
@media (hover: none), (max-width: 600px) {
  .by-key {
    display: none;
  }
}
.room {
  max-width: 720px;
  margin: 0 auto;
  padding: 18px 16px 60px;
}
h1 {
  font-size: 22px;
  margin: 0;
}
header,
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
}
header {
  justify-content: space-between;
}
nav {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 12px 0;
}
.place {
  font: inherit;
  min-width: 44px;
  min-height: 44px;
  border: 1px solid var(--hairline);
  border-radius: 9px;
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
}
.place i {
  display: block;
  font-style: normal;
  font-size: 11px;
  line-height: 1;
  min-height: 11px;
  color: var(--holds);
}
.place.again i {
  color: var(--breaks);
}
.place.on {
  border: 2px solid var(--settles);
  font-weight: 700;
}
.given {
  font-size: 20px;
  margin: 4px 0 10px;
}

.said {
  border-left: 3px solid var(--widens);
  padding: 2px 12px;
}
.hint {
  border-left: 3px solid var(--settles);
  padding: 2px 12px;
}
.answered {
  color: var(--holds);
  font-weight: 700;
}
</style>

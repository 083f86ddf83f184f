<script setup lang="ts">
import { onBeforeUnmount, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import RoomBoard from './RoomBoard.vue'
import { useTeachersRoom } from './teacher'
import { useMarking } from '@/features/marking/store'
import KeyList from '@/components/KeyList.vue'
import TinyChain from '@/components/TinyChain.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { useKeys } from '@/composables/useKeys'
import { STEERING, type SteerAction } from '@/lib/shortcuts'

/** The class while it works: a grid of tiny chains that grow, who is stuck at which line, a pause, a nudge. */
const marking = useMarking()
const store = useTeachersRoom()
const router = useRouter()
const wish = reactive({
  opens: 'rest' as 'rest' | 'reading' | 'again',
  tells: 'line' as const,
  right_line: false,
  hints: 0,
  minutes: null as number | null,
  show_time: false,
})
const TELLS = [
  ['line', 'each line at once: holds, or look again'],
  ['place', 'only the first place that does not hold'],
  ['cue', 'the place and a cue'],
  ['words', 'the place, the error’s name and its cue'],
  ['end', 'nothing until the end'],
] as const
/** What a room is opened on where some of the set is marked: that is closed to its writers. */
const OPENS = [
  ['rest', 'only what is not marked yet can be written'],
  ['again', 'a second attempt: a set of its own beside this one, of which the better counts'],
  ['reading', 'everybody reads what was written; nothing can be written'],
] as const
const pause = ref('')
const nudge = ref('')
const chosen = ref(0)
let left = false
onBeforeUnmount(() => (left = true))
watch(
  () => marking.set?.id,
  async (set) => {
    if (set === undefined) return
    await store.load(set)
    if (marking.set) void store.loadDoor(marking.set.school_class)
    void store.follow(() => left)
  },
  { immediate: true },
)
const sentence = ref<HTMLInputElement | null>(null)
function byKey(action: SteerAction): void {
  if (!store.room || store.room.ended || onBoard.value) return
  if (action === 'names') store.names = !store.names
  else if (action === 'end') void store.change({ ended: true })
  else if (store.room.paused) void store.change({ paused: '' })
  else if (pause.value.trim()) void store.change({ paused: pause.value })
  else sentence.value?.focus()
}
useKeys(STEERING, byKey)
const name = (k: number): string => (store.names ? (store.seats[k]?.name ?? '') : `student ${k + 1}`)
const number = (item: number): number => (store.room?.items.indexOf(item) ?? -1) + 1
/** How long ago something was heard of a student, in words. */
const heard = (when: string | null): string => {
  if (!when) return 'not here'
  const minutes = Math.floor((Date.now() - Date.parse(when)) / 60_000)
  return minutes < 1 ? 'writing' : `${minutes} min still`
}
async function openRoom(): Promise<void> {
  const opened = await store.open({ ...wish, minutes: wish.minutes || null })
  if (opened && opened !== marking.set?.id) await router.push(`/sets/${opened}/room`)
}
async function sendNudge(student: number): Promise<void> {
  if (await store.forOne(student, { nudge: nudge.value })) nudge.value = ''
}
/** The working that is on the board. */
const onBoard = ref<{ working: number; given: string } | null>(null)
function show(cell: { item: number; working: number }): void {
  onBoard.value = {
    working: cell.working,
    given: marking.set?.items.find((each) => each.id === cell.item)?.given_latex ?? '',
  }
}
async function look(working: number): Promise<void> {
  await router.push({ path: `/sets/${marking.set?.id}`, query: { working } })
}
</script>

<template>
  <section class="face" aria-label="Practice room">
    <RoomBoard
      v-if="onBoard && marking.set"
      :working="onBoard.working"
      :given="onBoard.given"
      :set="marking.set.id"
      @close="onBoard = null"
      @open="look"
    />
    <p v-if="store.behind" class="behind" role="alert">{{ store.behind }}</p>
    <TroubleNote :request="store.request" />
    <form v-if="store.none || store.room?.ended" class="open" aria-label="Open the room" @submit.prevent="openRoom">
      <h2>{{ store.room?.ended ? 'Open the room again' : 'Open a room for this set' }}</h2>
      <p>The class works it on its own devices; what it writes stands in the marking table.</p>
      <fieldset v-if="marking.decided">
        <legend>
          {{ marking.decided }}
          {{ marking.decided === 1 ? 'working of this set is marked' : 'workings of this set are marked' }}
        </legend>
        <label v-for="[value, words] in OPENS" :key="value"
          ><input v-model="wish.opens" type="radio" name="opens" :value="value" /> {{ words }}</label
        >
      </fieldset>
      <fieldset v-if="wish.opens !== 'reading'">
        <legend>While writing, a student is told</legend>
        <label v-for="[value, words] in TELLS" :key="value"
          ><input v-model="wish.tells" type="radio" name="tells" :value="value" /> {{ words }}</label
        >
      </fieldset>
      <label
        ><input v-model="wish.right_line" type="checkbox" /> the right line too, with the error’s cue and as the last
        hint</label
      >
      <label>hints for each problem <input v-model.number="wish.hints" type="number" min="0" max="20" /></label>
      <label
        >closes after
        <input v-model.number="wish.minutes" type="number" min="1" max="600" placeholder="never" /> minutes</label
      >
      <label v-if="wish.minutes"><input v-model="wish.show_time" type="checkbox" /> students see the time</label>
      <el-button native-type="submit" type="primary" :loading="store.request.busy.value">Open it</el-button>
    </form>
    <template v-if="store.room">
      <p class="head">
        <span class="code" :class="{ over: store.room.ended }" aria-label="Code of the room">{{
          store.room.code
        }}</span>{{ ' '
        }}<span
          >{{ store.room.ended ? 'closed; open it below for one who was away' : 'at' }}
          <code v-if="!store.room.ended">/room</code>{{ ' '
          }}<template v-if="!store.room.ended">of this address</template></span
        >{{ ' ' }}<button class="plain-button" @click="store.change({ new_code: true })">another code</button>
      </p>
      <form
        v-if="!store.room.ended"
        class="row"
        aria-label="Steer the room"
        @submit.prevent="store.change({ paused: pause })"
      >
        <template v-if="store.room.paused"
          ><b>Paused: {{ store.room.paused }}</b
          >{{ ' '
          }}<button type="button" class="plain-button" @click="store.change({ paused: '' })">go on</button></template
        >
        <template v-else
          ><input
            ref="sentence"
            v-model="pause"
            aria-label="Sentence of the pause"
            maxlength="200"
            placeholder="Eyes to the board."
          />{{ ' ' }}<button class="plain-button" :disabled="!pause.trim()">pause all</button></template
        >
        <button type="button" class="plain-button" @click="store.names = !store.names">
          {{ store.names ? 'hide the names' : 'show the names' }}
        </button>
        <button type="button" class="plain-button" @click="store.change({ ended: true })">end it</button>
        <b v-if="store.room.reading">for reading: nothing is written</b>
        <b v-else-if="marking.set?.again_of">a second attempt</b>
        <span v-if="store.commonest"
          >commonest just now: <b>{{ store.commonest }}</b></span
        >
      </form>
      <p v-if="marking.set" class="row door">
        <template v-if="store.door"
          >from home, each to the own page: <b class="home-code" aria-label="Code from home">{{ store.door }}</b>{{ ' '
          }}<button class="plain-button" @click="store.openDoor(marking.set.school_class)">another</button>{{ ' '
          }}<button class="plain-button" @click="store.closeDoor(marking.set.school_class)">close it</button></template
        >
        <button v-else class="plain-button" @click="store.openDoor(marking.set.school_class)">
          a code from home, to the own pages
        </button>
      </p>
      <div class="scroll" tabindex="0" role="group" aria-label="The class">
        <table class="rows">
          <thead>
            <tr>
              <th scope="col">
                {{ store.seats.filter((seat) => seat.heard).length }} of {{ store.seats.length }} here
              </th>
              <th v-for="item in store.room.items" :key="item" scope="col">{{ number(item) }}</th>
              <th scope="col">For one</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(seat, k) in store.seats" :key="seat.student" :class="{ away: !seat.heard }">
              <th scope="row">
                {{ name(k) }} <small class="muted">{{ heard(seat.heard) }}</small>
              </th>
              <td v-for="item in store.room.items" :key="item">
                <template v-for="cell in seat.cells.filter((each) => each.item === item)" :key="cell.working">
                  <button
                    class="plain-button cell"
                    :aria-label="`${name(k)}, ${number(item)}: ${cell.answered ? 'done' : cell.stuck ? `look at line ${cell.stuck}` : `${cell.beads.length} lines`}${cell.marked ? ', marked' : ''}`"
                    @click="show(cell)"
                  >
                    <TinyChain :beads="cell.beads" verdict="" :finished="cell.answered" /><small
                      v-if="cell.stuck"
                      class="stuck"
                    >
                      line {{ cell.stuck }}</small
                    ><small v-if="cell.hints" class="muted">
                      {{ cell.hints }} {{ cell.hints === 1 ? 'hint' : 'hints' }}</small
                    ><small v-if="cell.marked" class="muted"> marked</small>
                  </button>
                </template>
              </td>
              <td>
                <button
                  class="plain-button"
                  :aria-expanded="chosen === seat.student"
                  :aria-label="`… for ${name(k)}`"
                  @click="chosen = chosen === seat.student ? 0 : seat.student"
                >
                  …
                </button>
                <form
                  v-if="chosen === seat.student"
                  class="one"
                  :aria-label="`For ${name(k)}`"
                  @submit.prevent="sendNudge(seat.student)"
                >
                  <input
                    v-model="nudge"
                    aria-label="A nudge"
                    maxlength="200"
                    :placeholder="seat.nudge || 'A nudge, in your words'"
                  />{{ ' ' }}<button class="plain-button">send it</button>
                  <button
                    v-if="!store.room.ended"
                    type="button"
                    class="plain-button"
                    @click="store.forOne(seat.student, { more_minutes: seat.more_minutes + 5 })"
                  >
                    5 minutes more<template v-if="seat.more_minutes"> ({{ seat.more_minutes }} so far)</template>
                  </button>
                  <button
                    v-if="store.room.ended"
                    type="button"
                    class="plain-button"
                    @click="store.forOne(seat.student, { open_minutes: 30 })"
                  >
                    open it for 30 minutes, for this one alone
                  </button>
                  <button
                    type="button"
                    class="plain-button"
                    @click="store.forOne(seat.student, { forget_secret: true })"
                  >
                    take the secret away
                  </button>
                </form>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <KeyList v-if="!store.room.ended" :group="STEERING" />
    </template>
  </section>
</template>

<style scoped>
.open {
  display: grid;
  gap: 8px;
  max-width: 560px;
  margin-bottom: 18px;
}
fieldset {
  border: 1px solid var(--hairline);
  border-radius: 8px;
}
fieldset label {
  display: block;
}
.open input[type='number'] {
  width: 84px;
}
.head,
.row,
.one {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
}
.code {
  font-family: var(--mono);
  font-size: 38px;
  font-weight: 700;
  letter-spacing: 0.12em;
}
.home-code {
  font-family: var(--mono);
  letter-spacing: 0.1em;
}
.row input,
.one input {
  min-width: 240px;
  padding: 5px 9px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.code.over {
  font-size: 20px;
  color: var(--muted);
}
.scroll {
  overflow-x: auto;
}
table {
  margin-top: 10px;
}
td,
th {
  white-space: nowrap;
}
.away th {
  color: var(--muted);
}
.cell small {
  margin-left: 6px;
}
.behind,
.stuck {
  color: var(--breaks);
}
.cell {
  padding: 2px 4px;
}
</style>

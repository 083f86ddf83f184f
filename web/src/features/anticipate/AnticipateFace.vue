<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, unwrap, type Schema, plainShape } from '@/api/client'
import MathText from '@/components/MathText.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'

/** What students will write: wrong answers with the slip behind them, their whole working, and what refutes them. */
const props = defineProps<{ problem: number; given: string }>()
const emit = defineEmits<{ board: [lines: string[], at: number]; use: [lines: string[]] }>()

type Order = 'shuffled' | 'ascending' | 'trap-first'
const found = ref<Schema['AnticipatedOut'] | null>(null)
const request = useRequest()
const chosen = ref(0)
const order = ref<Order>('shuffled')
const seed = ref(1)
const ORDERS: [Order, string][] = [
  ['shuffled', 'shuffled'],
  ['ascending', 'ascending'],
  ['trap-first', 'trap first'],
]

watch(
  () => [props.problem, props.given, order.value, seed.value],
  () => {
    const params = { path: { problem_id: props.problem }, query: { order: order.value, seed: seed.value } }
    return request.run(
      () => unwrap(api.GET('/api/problems/{problem_id}/anticipate', { params })),
      (answer) => {
        found.value = answer
        chosen.value = Math.min(chosen.value, Math.max(answer.wrong.length - 1, 0))
      },
    )
  },
  { immediate: true },
)
const way = computed(() => found.value?.wrong[chosen.value] ?? null)
const LETTERS = 'ABCDEFGH'

function onKey(event: KeyboardEvent): void {
  if (event.altKey || event.ctrlKey) return
  const count = found.value?.wrong.length ?? 0
  if (event.key === 'ArrowDown') chosen.value = Math.min(chosen.value + 1, count - 1)
  else if (event.key === 'ArrowUp') chosen.value = Math.max(chosen.value - 1, 0)
  else return
  event.preventDefault()
}
</script>

<template>
  <section class="face" aria-label="Wrong answers to expect" tabindex="0" @keydown="onKey">
    <TroubleNote v-if="request.trouble.value" :request="request" />
    <p v-else-if="found?.why_none" class="muted">{{ found.why_none }}</p>
    <template v-else-if="found">
      <p class="muted">
        right: <MathText :latex="found.answer_latex" :display="false" /><template v-if="found.learned">
          · ordered by what your classes write</template
        >
      </p>
      <div class="two">
        <ol class="ways">
          <li v-for="(each, k) in found.wrong" :key="each.answer">
            <button class="way" :class="{ chosen: k === chosen }" :aria-current="k === chosen" @click="chosen = k">
              <MathText class="answer" :latex="each.answer_latex" :display="false" />
              <span class="muted"
                >{{ each.names.join(', ') }}<template v-if="each.roads > 1"> · {{ each.roads }} roads</template></span
              >
            </button>
          </li>
          <li v-if="!found.wrong.length" class="muted">No wrong answer is foreseen.</li>
        </ol>
        <article v-if="way" class="road" aria-label="How it comes about">
          <p class="done">{{ way.done }}</p>
          <p class="muted">
            {{ way.why }} <em>{{ way.cue }}</em>
          </p>
          <ol class="lines">
            <li
              v-for="(echo, k) in way.echoes"
              :key="k"
              :class="{ wrong: k + 1 === way.at_line, after: k + 1 > way.at_line }"
            >
              <MathText :latex="`${echo.left} ${echo.right}`" />
              <span v-if="k + 1 === way.at_line" class="parts">parts from the right way</span>
            </li>
          </ol>
          <template v-if="way.refutation">
            <p class="refuted">{{ way.refutation.text }}</p>
            <p v-if="plainShape(way.refutation)" class="refuted">{{ plainShape(way.refutation) }}</p>
          </template>
          <el-button size="small" @click="emit('board', way.lines, way.at_line)">Show on the board</el-button>
          <el-button size="small" @click="emit('use', way.lines)">Put it on the paper</el-button>
        </article>
      </div>
      <section v-if="found.unfinished.length" class="more">
        <h2>Right but unfinished</h2>
        <ul>
          <li v-for="each in found.unfinished" :key="each.answer">
            <MathText :latex="each.answer_latex" :display="false" />{{ ' '
            }}<span class="muted">{{ each.missing.replaceAll('-', ' ') }}</span>
          </li>
        </ul>
      </section>
      <section v-if="found.options.length > 1" class="more">
        <h2>Multiple choice</h2>
        <p class="orders">
          <label v-for="[value, word] in ORDERS" :key="value" :class="{ on: order === value }">
            <input v-model="order" type="radio" name="order" :value="value" class="visually-hidden" />{{ word }}
          </label>
          <button class="plain-button muted" @click="seed++">mix again</button>
        </p>
        <ol class="options">
          <li v-for="(option, k) in found.options" :key="option.answer" :class="{ right: option.right }">
            <b>{{ LETTERS[k] }}</b>{{ ' ' }}<MathText :latex="option.answer_latex" :display="false" />
            <span class="muted">{{ option.right ? 'right' : option.reason }}</span>
          </li>
        </ol>
      </section>
    </template>
  </section>
</template>

<style scoped>
.face {
  max-width: 1000px;
  margin: 0 auto;
  outline: none;
}
.two {
  display: grid;
  grid-template-columns: minmax(220px, 300px) minmax(0, 1fr);
  gap: 18px;
  margin-top: 10px;
}
ol,
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.way {
  display: grid;
  width: 100%;
  text-align: left;
  padding: 9px 12px;
  border: 1px solid transparent;
  border-left: 4px solid transparent;
  background: none;
  cursor: pointer;
}
.way.chosen {
  background: var(--sheet);
  border-color: var(--hairline);
  border-left-color: var(--breaks);
  border-radius: 6px;
}
.answer {
  font-size: 17px;
  white-space: normal;
}
.way .muted {
  font-size: 13px;
}
.road {
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 8px;
  padding: 16px 20px;
  align-self: start;
}
.done {
  font-weight: 700;
}
.lines {
  margin: 12px 0;
  font-size: 1.1em;
  overflow-x: auto;
}
.lines li {
  padding: 4px 10px;
  border-left: 3px solid var(--holds);
}
.lines .wrong {
  border-left-color: var(--breaks);
  background: color-mix(in srgb, var(--breaks) 8%, transparent);
}
.lines .after {
  border-left: 3px dashed var(--breaks);
}
.parts {
  margin-left: 14px;
  font-size: 13px;
  color: var(--breaks);
}
.refuted {
  margin-bottom: 8px;
}
.more {
  margin-top: 18px;
}
.more ul li {
  padding: 6px 0;
}
h2 {
  font-size: 15px;
  margin-bottom: 6px;
}
.orders label {
  padding: 3px 9px;
  border-radius: 6px;
  cursor: pointer;
}
.orders .on {
  background: var(--quiet);
  font-weight: 700;
}
.options li {
  padding: 3px 0;
  display: flex;
  gap: 12px;
}
.options .right b {
  color: var(--holds);
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>

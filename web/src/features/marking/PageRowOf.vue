<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { bySymbols, nextReading, usePages, type PageLine } from './pages'
import type { Schema } from '@/api/client'
import MathText from '@/components/MathText.vue'
import { actionOf, SETTLING, type SettleAction } from '@/lib/shortcuts'

/** One row of a page: its handwriting, the reading below it, and the doubtful symbols to be settled by one key each. */
const props = defineProps<{ page: Schema['PageOut']; line: PageLine; number: number | null }>()
const emit = defineEmits<{ settled: [] }>()
const store = usePages()
const writing = ref<string | null>(null)
const field = ref<HTMLTextAreaElement | null>(null)

/** The part of the picture around the row, in pixels of the picture. */
const part = computed(() => {
  const [left = 0, top = 0, wide = 1, tall = 1] = props.line.box
  const x = Math.max(0, left * props.page.width - 16)
  const y = Math.max(0, top * props.page.height - 9)
  return { x, y, w: Math.min(props.page.width - x, wide * props.page.width + 40), h: tall * props.page.height + 18 }
})
const TALL = 46
/** The height at which the row is shown: tall rows, as of fractions, are shown taller. */
const height = computed(() => Math.min(120, Math.max(TALL, part.value.h * 0.95)))
const symbols = computed(() => bySymbols(props.line))
const typed = computed(() => props.line.doubtful && !symbols.value)
const now = (k: number): string => store.chosen[`${props.line.at} ${k}`] ?? props.line.symbols[k]?.text ?? ''
const isChosen = (k: number): boolean => `${props.line.at} ${k}` in store.chosen
const place = (k: number): { left: number; top: number; width: number; height: number } | null => {
  const box = props.line.symbols[k]?.box
  if (!box) return null
  return {
    left: box[0]! * props.page.width,
    top: box[1]! * props.page.height,
    width: box[2]! * props.page.width,
    height: box[3]! * props.page.height,
  }
}
const mended = computed(() =>
  props.line.mends.map((mend) => ({ ...mend, read: props.line.symbols[mend.symbol]?.text ?? '' })),
)
const shown = (text: string): string => (text === '' ? 'nothing' : text === ' ' ? 'a space' : text)

async function choose(k: number, text: string): Promise<void> {
  if (await store.choose(props.line, k, text)) emit('settled')
}
function onSymbol(event: KeyboardEvent, k: number): void {
  const symbol = props.line.symbols[k]
  if (!symbol) return
  const does: Record<SettleAction, () => unknown> = {
    same: () => choose(k, now(k)),
    other: () => choose(k, nextReading(symbol, now(k))),
    none: () => choose(k, ''),
    write: () => write(),
  }
  const action = actionOf(SETTLING, event)
  if (action !== null) {
    event.preventDefault()
    does[action]()
  } else if (event.key.length === 1 && !event.ctrlKey && !event.altKey && !event.metaKey) {
    event.preventDefault()
    void choose(k, event.key)
  }
}
async function write(): Promise<void> {
  writing.value = props.line.texts.join('\n')
  await nextTick()
  field.value?.focus()
}
async function keep(text: string): Promise<void> {
  const texts = text
    .split('\n')
    .map((each) => each.trim())
    .filter(Boolean)
  if (!(await store.settle(props.line.at, texts))) return
  writing.value = null
  emit('settled')
}
const area = (event: Event): string => (event.target as HTMLTextAreaElement).value
</script>

<template>
  <div
    class="entry"
    :class="{
      sure: !line.doubtful && writing === null,
      doubtful: line.doubtful || (number === null && line.texts.length),
      crossed: line.crossed,
    }"
  >
    <span class="number">{{ number ?? '?' }}</span>
    <div class="both">
      <svg
        :viewBox="`${part.x} ${part.y} ${part.w} ${part.h}`"
        :height="height"
        :style="{ maxWidth: '100%' }"
        preserveAspectRatio="xMinYMid meet"
        role="img"
        :aria-label="`Row ${line.at + 1} as written`"
      >
        <image :href="`/api/pages/${page.id}/picture`" x="0" y="0" :width="page.width" :height="page.height" />
        <template v-for="(symbol, k) in line.symbols" :key="k">
          <rect
            v-if="symbols && symbol.asks && place(k)"
            :x="place(k)!.left - 3"
            :y="place(k)!.top - 3"
            :width="place(k)!.width + 6"
            :height="place(k)!.height + 6"
            class="box"
            :class="{ chosen: isChosen(k) }"
          />
        </template>
      </svg>
      <p v-if="writing !== null || typed" class="typing">
        <textarea
          ref="field"
          :value="writing ?? line.texts.join('\n')"
          rows="2"
          spellcheck="false"
          :data-asks="typed || undefined"
          :aria-label="`Row ${line.at + 1} as you read it`"
          @keydown.enter.exact.prevent="keep(area($event))"
          @keydown.esc="writing = null"
        />
        <small class="muted"
          >Enter keeps it, Shift Enter begins another line, empty leaves it out<template v-if="number === null"
            >; a number in front says of which item it is: 3. x = 1</template
          ></small
        >
      </p>
      <p v-else-if="line.crossed && !line.settled" class="muted">struck out, not taken</p>
      <p v-else-if="symbols" class="reading">
        <template v-for="(symbol, k) in line.symbols" :key="k">
          <button
            v-if="symbol.asks"
            class="symbol"
            :class="{ chosen: isChosen(k) }"
            :data-asks="isChosen(k) ? undefined : ''"
            :aria-label="`${shown(now(k))}${symbol.others.length ? ` or ${symbol.others.map(shown).join(', ')}` : ''}: is it that?`"
            @keydown="onSymbol($event, k)"
            @click="choose(k, nextReading(symbol, now(k)))"
          >
            {{ shown(now(k)) }}<small v-if="symbol.others.length"> or {{ symbol.others.map(shown).join(', ') }}</small>
          </button>
          <span v-else>{{ symbol.text }}</span>
        </template>
      </p>
      <p v-else class="reading">
        <template v-for="(echo, k) in line.echoes" :key="k"
          ><code v-if="echo.error">{{ line.texts[k] }}</code
          ><MathText v-else :latex="`${echo.left} ${echo.right}`" />&emsp;</template
        >
        <span v-if="!line.texts.length" class="muted">left out</span>
      </p>
      <p v-if="line.doubtful && mended.length" class="mends">
        It does not follow as it was read; it does with
        <template v-for="(mend, k) in mended" :key="k"
          ><b>{{ shown(mend.text) }}</b> for {{ shown(mend.read) }}{{ k < mended.length - 1 ? ', or ' : '' }}</template
        >. Look at what is written: an error is kept.
      </p>
    </div>
    <span class="tools">
      <button class="plain-button" :aria-label="`type it: row ${line.at + 1}`" @click="write">type it</button>
      <button
        v-if="line.settled"
        class="plain-button"
        :aria-label="`as read: row ${line.at + 1}`"
        @click="store.settle(line.at, null)"
      >
        as read
      </button>
    </span>
  </div>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) auto;
  gap: 10px;
  align-items: start;
  padding: 5px 0;
  border-bottom: 1px solid var(--hairline);
}
.entry.doubtful {
  box-shadow: inset 3px 0 var(--widens);
  background: color-mix(in srgb, var(--widens) 5%, transparent);
}
.entry.crossed svg {
  opacity: 0.55;
}
.sure .both {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 18px;
  align-items: center;
}
.number {
  font-weight: 700;
  text-align: right;
}
svg {
  display: block;
  background: #f3f1ec;
  border-radius: 4px;
}
.box {
  fill: none;
  stroke: #b0641a;
  stroke-width: 2.5;
  stroke-dasharray: 5 3;
}
.box.chosen {
  stroke: #2c6e49;
  stroke-dasharray: none;
}
p {
  margin: 3px 0 0;
}
.reading {
  font-family: var(--mono);
  font-size: 18px;
  white-space: pre-wrap;
}
.symbol {
  font: inherit;
  border: 1.5px dashed var(--widens);
  border-radius: 5px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 6px;
  min-width: 26px;
  cursor: pointer;
}
.symbol small {
  color: var(--muted);
  font-size: 13px;
}
.symbol.chosen {
  border: 1.5px solid var(--holds);
}
.mends {
  font-size: 14px;
  color: var(--widens);
}
.typing textarea {
  width: 100%;
  max-width: 560px;
  font-family: var(--mono);
  font-size: 16px;
  padding: 5px 9px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.typing small {
  display: block;
}
.tools button {
  font-size: 13px;
}
@media (max-width: 700px) {
  .sure .both {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
}
</style>

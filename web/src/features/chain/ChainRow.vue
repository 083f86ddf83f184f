<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Echo, Link } from '@/api/client'
import MathText from '@/components/MathText.vue'
import { isSideLine, relationWord } from '@/lib/relations'
import type { LineAction } from '@/lib/shortcuts'

/** One committed line, set in the columns of the chain: left side, right side, move, relation in words. */
const props = defineProps<{
  number: number
  text: string
  echo: Echo | null
  link: Link | null
  selected: boolean
  /** Whether the move stands beside the line; else it stands below both sides of the line before. */
  beside: boolean
}>()
const emit = defineEmits<{ select: []; edit: []; key: [event: KeyboardEvent]; act: [action: LineAction] }>()
/** What fingers can do with a line; by keyboard the same is one key each. */
const TOOLS: [LineAction, string][] = [
  ['edit', 'Edit'],
  ['open-before', 'Line before'],
  ['open-after', 'Line after'],
  ['move-up', 'Up'],
  ['move-down', 'Down'],
  ['remove', 'Remove'],
]

const row = ref<HTMLElement | null>(null)
const side = computed(() => !!props.link && isSideLine(props.link.kind))
const error = computed(() => props.link?.error ?? props.echo?.error ?? null)
const word = computed(() => (props.link ? relationWord(props.link.relation, props.link.kind) : ''))
const spoken = computed(() => {
  const reading = props.echo?.plain || props.text
  return `Line ${props.number}: ${reading}. ${word.value}. ${props.link?.evidence?.text ?? error.value?.message ?? ''}`
})
const misstated = computed(() => props.link?.move?.as_stated === false)

watch(
  () => props.selected,
  (now) => now && row.value?.focus(),
  { flush: 'post' },
)
</script>

<template>
  <div
    ref="row"
    class="row"
    :class="[link?.relation ?? 'unread', { selected, side }]"
    role="listitem"
    :aria-current="selected"
    :aria-label="spoken"
    :tabindex="selected ? 0 : -1"
    :data-bead="number"
    @click="emit('select')"
    @dblclick="emit('edit')"
    @keydown="emit('key', $event)"
  >
    <template v-if="error">
      <span class="raw">
        {{ text }}
        <span class="place" :style="{ left: `${error.column - 1}ch` }" />
      </span>
    </template>
    <template v-else-if="side">
      <span class="aside-text">
        <span class="prefix">{{ echo?.prefix }}</span>
        <MathText v-if="echo?.left" :latex="echo.left" :display="false" />
        <MathText v-if="echo" :latex="` ${echo.right}`" :display="false" />
      </span>
    </template>
    <template v-else-if="echo">
      <span class="left"><MathText v-if="echo.left" :latex="echo.left" /></span>
      <span class="right"><MathText :latex="` ${echo.right}`" /></span>
    </template>
    <span v-else class="raw waiting">{{ text }}</span>
    <span class="move" :class="{ misstated }">
      <MathText v-if="echo?.move && beside" :latex="echo.move" :display="false" />
    </span>
    <span class="remark">{{ echo?.remark }}</span>
    <span class="word" :class="{ quiet: link?.relation === 'holds' }">{{ word }}</span>
    <span v-if="selected" class="tools">
      <button
        v-for="[action, words] in TOOLS"
        :key="action"
        class="plain-button"
        tabindex="-1"
        @click.stop="emit('act', action)"
      >
        {{ words }}
      </button>
    </span>
  </div>
</template>

<style scoped>
.row {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: subgrid;
  align-items: center;
  min-height: 46px;
  padding-block: 6px;
  border-radius: 8px;
  cursor: default;
  outline-offset: -2px;
}
.row:hover {
  background: color-mix(in srgb, var(--quiet) 55%, transparent);
}
.row.selected {
  background: var(--quiet);
}
.left {
  grid-column: 2;
  text-align: right;
  font-size: 1.25em;
}
.right {
  grid-column: 3;
  padding-left: 7px;
  font-size: 1.25em;
}
.raw {
  grid-column: 2 / 4;
  position: relative;
  font: 16px/1.6 var(--mono);
  padding: 4px 0;
  white-space: pre;
}
.waiting {
  color: var(--muted);
}
.place {
  position: absolute;
  bottom: 2px;
  width: 1ch;
  height: 3px;
  border-radius: 2px;
  background: var(--breaks);
}
.aside-text {
  grid-column: 2 / 4;
  display: flex;
  gap: 8px;
  align-items: center;
  padding-left: 22px;
}
.row.side {
  min-height: 34px;
  padding-block: 2px;
}
.prefix {
  color: var(--muted);
  font-size: 14px;
}
.move {
  grid-column: 4;
  color: var(--muted);
  padding-left: 22px;
  white-space: nowrap;
}
.move > * {
  border-left: 2px solid var(--hairline);
  padding-left: 9px;
}
.move.misstated > * {
  border-left-color: var(--widens);
  text-decoration: underline wavy var(--widens) 1px;
  text-underline-offset: 4px;
}
.remark {
  grid-column: 5;
  color: var(--muted);
  font-size: 13px;
  padding-left: 12px;
}
.word {
  grid-column: 6;
  justify-self: end;
  color: var(--relation);
  font-size: 13px;
  padding: 0 10px;
}
.word.quiet {
  opacity: 0;
}
.tools {
  display: none;
  grid-column: 2 / -1;
  flex-wrap: wrap;
  gap: 4px;
  padding-top: 4px;
}
.tools button {
  min-height: 36px;
  padding: 4px 10px;
  font-size: 13.5px;
  border: 1px solid var(--hairline);
  background: var(--sheet);
}
@media (pointer: coarse), (max-width: 900px) {
  .tools {
    display: flex;
    position: sticky;
    left: 36px;
    max-width: calc(100vw - 90px);
  }
}
@media (max-width: 600px) {
  .left,
  .right {
    font-size: 1.1em;
  }
  .word.quiet {
    display: none;
  }
}
.row:hover .word.quiet,
.row.selected .word.quiet {
  opacity: 1;
}
</style>

<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, onMounted, ref, toRef, watch } from 'vue'
import MathText from '@/components/MathText.vue'
import { useEcho } from '@/composables/useEcho'
import { kept, keep } from '@/lib/keep'
import { actionOf, WRITING } from '@/lib/shortcuts'

const ThumbField = defineAsyncComponent(() => import('./ThumbField.vue'))

/**
 * The line being written: the plain notation below, and right above it, at every key, what the core understood.
 * Enter commits. A line with an error is kept back once, with the caret at the place; Enter again keeps it as it is.
 */
const props = defineProps<{ text: string; decimal: 'point' | 'comma'; label: string; hint?: string }>()
const emit = defineEmits<{
  'update:text': [text: string]
  commit: [text: string]
  cancel: []
  leave: [direction: 'up' | 'down']
  undo: []
  redo: []
  help: []
}>()

const input = ref<HTMLInputElement | null>(null)
const text = toRef(props, 'text')
const { echo, echoed } = useEcho(text, toRef(props, 'decimal'))
const warned = ref('')
/** Whether the line is written with the palette, in mathematics as it will stand, in place of the plain notation. */
const byThumb = ref(kept<boolean>('thumb') ?? false)
function change(): void {
  byThumb.value = !byThumb.value
  keep('thumb', byThumb.value)
  if (!byThumb.value) void nextTick(focus)
}
/** What stands in the field of the palette to begin with. */
const begun = computed(() => (props.text ? `${left.value} ${right.value}`.trim() : ''))
const error = computed(() => (echoed.value === props.text ? (echo.value?.error ?? null) : null))
const left = computed(() => (echo.value && !echo.value.error ? echo.value.left : ''))
const right = computed(() => (echo.value && !echo.value.error ? echo.value.right : ''))

function focus(): void {
  input.value?.focus()
}

function caretTo(column: number): void {
  void nextTick(() => input.value?.setSelectionRange(column - 1, column - 1))
}

function insertAtCaret(piece: string, back = 0): void {
  const field = input.value
  if (!field) return
  const start = field.selectionStart ?? props.text.length
  const next = props.text.slice(0, start) + piece + props.text.slice(field.selectionEnd ?? start)
  emit('update:text', next)
  void nextTick(() => {
    field.focus()
    field.setSelectionRange(start + piece.length - back, start + piece.length - back)
  })
}

function commit(): void {
  const typed = props.text.trim()
  if (!typed) return
  if (error.value && warned.value !== props.text) {
    warned.value = props.text
    caretTo(error.value.column)
    return
  }
  // what was written in mathematics is stored in the plain notation, as the core understood it
  emit('commit', byThumb.value && echoed.value === props.text && echo.value?.plain ? echo.value.plain : typed)
}

function onKey(event: KeyboardEvent): void {
  const action = actionOf(WRITING, event)
  // in a field with text the browser's own undo is meant, and a question mark is one
  if (action === null || (props.text && (action === 'undo' || action === 'redo' || action === 'help'))) return
  if (action === 'commit') commit()
  else if (action === 'up' || action === 'down') emit('leave', action)
  else if (action === 'cancel') emit('cancel')
  else if (action === 'undo') emit('undo')
  else if (action === 'redo') emit('redo')
  else emit('help')
  event.preventDefault()
}

watch(text, () => (warned.value = ''))
onMounted(() => focus())
defineExpose({ focus, insertAtCaret })
</script>

<template>
  <div class="editor" :class="{ wrong: error }">
    <div v-if="!byThumb" class="echo" aria-hidden="true">
      <template v-if="echo && !echo.error">
        <span v-if="echo.prefix" class="prefix">{{ echo.prefix }}</span>
        <MathText v-if="left" :latex="left" /><MathText v-if="right" :latex="` ${right}`" />
        <span v-if="echo.move" class="move"><MathText :latex="echo.move" :display="false" /></span>
        <span v-if="echo.remark" class="remark">{{ echo.remark }}</span>
      </template>
      <span v-else-if="!text" class="muted small">{{ hint }}</span>
    </div>
    <ThumbField
      v-if="byThumb"
      :latex="begun"
      :text="text"
      :label="label"
      @input="emit('update:text', $event)"
      @commit="commit"
    />
    <input
      v-else
      ref="input"
      class="field"
      :value="text"
      :aria-label="label"
      :aria-invalid="!!error"
      aria-describedby="line-error"
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      maxlength="600"
      @input="emit('update:text', ($event.target as HTMLInputElement).value)"
      @keydown="onKey"
    />
    <button type="button" class="plain-button change muted" :aria-pressed="byThumb" @click="change">
      {{ byThumb ? 'plain notation' : 'by thumb' }}
    </button>
    <div id="line-error" class="error" role="status">
      <template v-if="error">
        <span class="place" :style="{ left: `calc(${error.column - 1}ch + 10px)` }" />
        <p>
          {{ error.message }}
          <span v-if="warned === text" class="muted">Enter again keeps the line as it is.</span>
        </p>
      </template>
    </div>
  </div>
</template>

<style scoped>
.editor {
  padding: 2px 0 6px;
}
.echo {
  min-height: 46px;
  padding-block: 5px;
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 1.1em;
  padding-left: 10px;
  overflow-x: auto;
  overflow-y: hidden;
}
.prefix,
.remark {
  color: var(--muted);
  font-size: 14px;
}
.move {
  border-left: 2px solid var(--hairline);
  margin-left: 12px;
  padding-left: 8px;
  color: var(--muted);
}
.small {
  font-size: 13px;
}
.field {
  width: 100%;
  font: 16px/1.4 var(--mono);
  padding: 6px 9px;
  background: var(--sheet);
  border: 1px solid #cfc8b8;
  border-radius: 6px;
}
.field:focus {
  outline: 2px solid var(--settles);
  outline-offset: -1px;
}
.change {
  float: right;
  font-size: 13px;
  padding: 3px 4px;
}
.wrong .field {
  border-color: var(--breaks);
}
.error {
  position: relative;
  font: 16px/1.4 var(--mono);
}
.error p {
  font: 13px/1.35 var(--text);
  color: var(--breaks);
  padding: 4px 0 0 10px;
}
.place {
  position: absolute;
  top: -7px;
  width: 1ch;
  height: 3px;
  border-radius: 2px;
  background: var(--breaks);
}
</style>

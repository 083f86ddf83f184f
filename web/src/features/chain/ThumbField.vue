<script setup lang="ts">
import 'mathlive/fonts.css'
import { MathfieldElement } from 'mathlive'
import { onMounted, ref, watch } from 'vue'
import { putOn, putOnAlways, setAside } from '@/lib/asidestyles'
import { toLine } from './thumb'

/**
 * A line written by thumb: the mathematics as it will stand, and a palette under it. It gives the LaTeX of what stands
 * there.
 */
const props = defineProps<{ latex: string; text: string; label: string }>()
const emit = defineEmits<{ input: [latex: string]; commit: [] }>()
MathfieldElement.fontsDirectory = null
MathfieldElement.soundsDirectory = null
MathfieldElement.createHTML = setAside

const field = ref<MathfieldElement | null>(null)
/** What it held when it last told so; anything else comes from outside. */
let told = ''

const KEYS: { shown: string; says: string; does: string | [string, string] }[][] = [
  [
    { shown: 'x', says: 'x', does: 'x' }, { shown: '7', says: '7', does: '7' }, { shown: '8', says: '8', does: '8' }, { shown: '9', says: '9', does: '9' },
    { shown: '+', says: 'plus', does: '+' }, { shown: 'a∕b', says: 'fraction', does: '\\frac{#@}{#?}' }, { shown: '⌫', says: 'take back one', does: ['deleteBackward', ''] },
  ],
  [
    { shown: 'y', says: 'y', does: 'y' }, { shown: '4', says: '4', does: '4' }, { shown: '5', says: '5', does: '5' }, { shown: '6', says: '6', does: '6' },
    { shown: '−', says: 'minus', does: '-' }, { shown: 'aⁿ', says: 'power', does: '#@^{#?}' }, { shown: '←', says: 'to the left', does: ['moveToPreviousChar', ''] },
  ],
  [
    { shown: 'a', says: 'a', does: 'a' }, { shown: '1', says: '1', does: '1' }, { shown: '2', says: '2', does: '2' }, { shown: '3', says: '3', does: '3' },
    { shown: '·', says: 'times', does: '\\cdot' }, { shown: '√', says: 'root', does: '\\sqrt{#?}' }, { shown: '→', says: 'to the right', does: ['moveToNextChar', ''] },
  ],
  [
    { shown: 'or', says: 'or', does: '\\text{ or }' }, { shown: '0', says: '0', does: '0' }, { shown: '( )', says: 'brackets', does: '(#?)' }, { shown: '±', says: 'plus or minus', does: '\\pm' },
    { shown: '÷', says: 'divided by', does: '\\div' }, { shown: '=', says: 'equals', does: '=' }, { shown: '↵', says: 'commit the line', does: ['commit', ''] },
  ],
] // prettier-ignore

function press(does: string | [string, string]): void {
  const target = field.value
  if (!target) return
  if (Array.isArray(does)) {
    if (does[0] === 'commit') return emit('commit')
    target.executeCommand(does[0] as 'deleteBackward')
  } else target.insert(does, { focus: true, feedback: false })
  target.focus()
  tell()
}

function tell(): void {
  told = toLine(field.value?.getValue('latex') ?? '')
  emit('input', told)
}

function onKey(event: KeyboardEvent): void {
  if (event.key !== 'Enter') return
  event.preventDefault()
  emit('commit')
}

onMounted(() => {
  const target = field.value!
  const shadow = target.shadowRoot
  if (shadow) {
    putOn(shadow)
    shadow.querySelectorAll('[part=content]').forEach(putOnAlways)
  }
  target.mathVirtualKeyboardPolicy = 'manual'
  target.smartSuperscript = false
  target.menuItems = []
  target.value = props.latex
  target.focus()
})
watch(
  () => props.text,
  (now) => {
    // the line was committed, or taken away
    if (!now && told && field.value) {
      field.value.value = ''
      told = ''
    }
  },
)
</script>

<template>
  <div class="thumb">
    <math-field ref="field" :aria-label="label" @input="tell" @keydown.capture="onKey" />
    <div class="palette" role="group" aria-label="Palette">
      <template v-for="(row, r) in KEYS" :key="r">
        <button v-for="key in row" :key="key.says" type="button" @pointerdown.prevent @click="press(key.does)">
          <span class="visually-hidden">{{ key.says }}</span><span aria-hidden="true">{{ key.shown }}</span>
        </button>
      </template>
    </div>
  </div>
</template>

<style scoped>
math-field {
  display: block;
  width: 100%;
  font-size: 21px;
  padding: 6px 9px;
  background: var(--sheet);
  color: inherit;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
}
/* the palette is below, and the lines need no menu of the field's own */
math-field::part(virtual-keyboard-toggle),
math-field::part(menu-toggle) {
  display: none;
}
math-field:focus-within {
  outline: 2px solid var(--settles);
  outline-offset: -1px;
}
.palette {
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  gap: 5px;
  margin-top: 7px;
  max-width: 430px;
}
.palette button {
  min-height: 44px;
  padding: 0;
  border: 1px solid var(--hairline);
  border-radius: 7px;
  background: var(--quiet);
  color: inherit;
  font:
    18px/1 KaTeX_Main,
    serif;
  white-space: nowrap;
  touch-action: manipulation;
}
.palette button:active {
  background: var(--sheet);
}
</style>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import MathText from '@/components/MathText.vue'
import { useEcho } from '@/composables/useEcho'
import { useRequest } from '@/composables/useRequest'
import { instruction, TASKS, type Numbers, type Task } from '@/lib/tasks'

/** A new problem, or a change of one: the task, the given with its echo, the letter to solve for. */
const props = defineProps<{
  open: boolean
  title: string
  decimal: 'point' | 'comma'
  start: { task: Task; given: string; variable: string; numbers: Numbers; method: string }
  save: (task: Task, given: string, variable: string, numbers: Numbers, method: string) => Promise<void>
}>()
const emit = defineEmits<{ close: [] }>()

const NAMED: [string, string][] = [
  ['factoring', 'by factoring'],
  ['square-root', 'by square roots'],
  ['completing-the-square', 'by completing the square'],
  ['quadratic-formula', 'by the quadratic formula'],
  ['clear-by-lcd', 'by clearing the denominators'],
  ['cross-multiply', 'by cross-multiplying'],
  ['substitution', 'by substitution'],
]
const task = ref<Task>('solve')
const given = ref('')
const variable = ref('')
const numbers = ref<Numbers>('real')
const method = ref('')
const request = useRequest('The server does not answer. What you typed is kept here.')
const { trouble } = request
const field = ref<HTMLInputElement | null>(null)
const { echo, echoed } = useEcho(
  given,
  computed(() => props.decimal),
)
const error = computed(() => (echoed.value === given.value ? (echo.value?.error ?? null) : null))
const letters = computed(() => {
  // from the text itself: Enter may come before the echo
  const found = given.value.replace(/\\[a-z]+|sqrt|cbrt|root|abs/g, '').match(/[a-zα-ω]/gi) ?? []
  return [...new Set(found)].filter((letter) => letter !== 'i' || numbers.value === 'real')
})
const asksLetter = computed(() => task.value === 'solve' && letters.value.length > 1)
const misfit = computed(() => {
  if (asksLetter.value && !letters.value.includes(variable.value)) return 'Choose the letter to solve for.'
  if (!echo.value || error.value || echoed.value !== given.value) return ''
  if (task.value === 'solve' && echo.value.kind !== 'equation') return 'To solve, the given must be an equation.'
  if (task.value !== 'solve' && task.value !== 'domain' && echo.value.kind !== 'expression')
    return `${instruction(task.value, '')}: the given must be an expression.`
  return ''
})

watch(
  () => props.open,
  (now) => {
    if (!now) return
    task.value = props.start.task
    given.value = props.start.given
    variable.value = props.start.variable
    numbers.value = props.start.numbers
    method.value = props.start.method
    trouble.value = ''
  },
)

watch([task, given, variable, numbers, method], () => (trouble.value = ''))

async function keepIt(): Promise<void> {
  if (!given.value.trim() || error.value) {
    trouble.value = error.value?.message ?? 'Type the given first.'
    if (error.value) field.value?.setSelectionRange(error.value.column - 1, error.value.column - 1)
    return
  }
  if (misfit.value) {
    trouble.value = misfit.value
    return
  }
  const letter = asksLetter.value ? variable.value : ''
  const way = task.value === 'solve' ? method.value : ''
  if (await request.run(() => props.save(task.value, given.value.trim(), letter, numbers.value, way))) emit('close')
}
</script>

<template>
  <el-dialog
    :model-value="open"
    :title="title"
    width="560"
    append-to-body
    @opened="field?.focus()"
    @close="emit('close')"
  >
    <form class="form" @submit.prevent="keepIt">
      <div class="tasks" role="radiogroup" aria-label="Task">
        <label v-for="each in TASKS" :key="each" :class="{ chosen: task === each }">
          <input v-model="task" type="radio" name="task" :value="each" class="visually-hidden" />{{
            instruction(each, '')
          }}
        </label>
      </div>
      <div class="echo">
        <MathText v-if="echo && !echo.error" :latex="`${echo.left} ${echo.right}`" />
      </div>
      <label>
        <span class="muted">The given</span>
        <input
          ref="field"
          v-model="given"
          class="field"
          aria-label="The given"
          autocomplete="off"
          spellcheck="false"
          maxlength="600"
        />
      </label>
      <div v-if="asksLetter" class="tasks" role="radiogroup" aria-label="Solve for">
        <span class="muted">Solve for</span>
        <label v-for="letter in letters" :key="letter" :class="{ chosen: variable === letter }">
          <input v-model="variable" type="radio" name="letter" :value="letter" class="visually-hidden" />{{ letter }}
        </label>
      </div>
      <div class="tasks" role="radiogroup" aria-label="Numbers">
        <span class="muted">Numbers</span>
        <label v-for="each in ['real', 'complex'] as const" :key="each" :class="{ chosen: numbers === each }">
          <input v-model="numbers" type="radio" name="numbers" :value="each" class="visually-hidden" />{{ each }}
        </label>
      </div>
      <label v-if="task === 'solve'" class="tasks">
        <span class="muted">The task names the method</span>
        <select v-model="method" class="method">
          <option value="">any method</option>
          <option v-for="[id, name] in NAMED" :key="id" :value="id">{{ name }}</option>
        </select>
      </label>
      <p class="error" role="status">{{ error ? `Column ${error.column}: ${error.message}` : trouble || '' }}</p>
      <div class="end">
        <el-button @click="emit('close')">Leave it</el-button>
        <el-button type="primary" native-type="submit">Put it on the sheet</el-button>
      </div>
    </form>
  </el-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
.tasks {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  align-items: center;
}
.tasks label {
  padding: 4px 10px;
  border: 1px solid var(--hairline);
  border-radius: 6px;
  cursor: pointer;
}
.tasks label.chosen {
  border-color: var(--settles);
  background: var(--el-color-primary-light-9);
}
.tasks label:focus-within {
  outline: 2px solid var(--settles);
  outline-offset: 1px;
}
.method {
  padding: 4px 8px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.echo {
  min-height: 56px;
  display: flex;
  align-items: center;
  font-size: 1.4em;
  overflow-x: auto;
}
.field {
  width: 100%;
  font: 16px/1.4 var(--mono);
  padding: 7px 9px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
}
.error {
  color: var(--breaks);
  min-height: 1.4em;
}
.end {
  display: flex;
  justify-content: flex-end;
}
</style>

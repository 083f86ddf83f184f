<script setup lang="ts">
import { computed } from 'vue'
import { useChain } from '@/features/chain/store'
import KeyPanel from '@/features/keys/KeyPanel.vue'
import { useMethods } from '@/features/methods/store'
import { useNextStep } from '@/features/next/store'
import ConventionsDrawer from '@/features/sheets/ConventionsDrawer.vue'
import { useSheets } from '@/features/sheets/store'
import TaughtDrawer from '@/features/sheets/TaughtDrawer.vue'
import ProblemDialog from '@/features/strip/ProblemDialog.vue'
import type { Conventions } from '@/lib/conventions'
import type { Numbers, Task } from '@/lib/tasks'
import type { Opened } from './opened'

/** What opens over the desk, one at a time; what is asked there is done here. */
const props = defineProps<{ opened: Opened | null; place: number; face: string }>()
const emit = defineEmits<{ close: []; go: [place: number]; fill: [lines: string[]]; remove: [] }>()

const sheets = useSheets()
const chain = useChain()
const methods = useMethods()
const next = useNextStep()

const changing = computed(() => props.opened?.kind === 'change')
const pending = computed(() => (props.opened?.kind === 'replace' ? props.opened.lines : []))
const start = computed(() => {
  const problem = chain.problem
  if (changing.value && problem) {
    const { given, variable, method } = problem
    return { task: problem.task as Task, given, variable, numbers: problem.numbers as Numbers, method }
  }
  return {
    task: (problem?.task ?? 'solve') as Task,
    given: '',
    variable: '',
    numbers: (problem?.numbers ?? 'real') as Numbers,
    method: '',
  }
})

async function saveProblem(
  task: Task,
  given: string,
  variable: string,
  numbers: Numbers,
  method: string,
): Promise<void> {
  if (changing.value && chain.problem) {
    const { id } = chain.problem
    await chain.flush()
    await sheets.changeProblem(id, task, given, variable, numbers, method)
    await chain.open(id)
  } else {
    await sheets.addProblem(task, given, variable, numbers, method)
    emit('go', sheets.sheet!.problems.length)
  }
}

async function saveConventions(chosen: Conventions): Promise<void> {
  await chain.flush()
  await sheets.setConventions(chosen)
  if (chain.problem) await chain.open(chain.problem.id)
}

async function saveTaught(untaught: string[]): Promise<void> {
  await sheets.setUntaught(untaught)
  next.clear()
  if (chain.problem && props.face === 'methods') await methods.load(chain.problem.id)
}
</script>

<template>
  <KeyPanel :open="opened?.kind === 'keys'" @close="emit('close')" />
  <ProblemDialog
    :open="opened?.kind === 'new' || changing"
    :title="changing ? 'Change the problem' : 'New problem'"
    :decimal="sheets.decimal"
    :start="start"
    :save="saveProblem"
    @close="emit('close')"
  />
  <ConventionsDrawer
    :open="opened?.kind === 'conventions'"
    :chosen="sheets.sheet?.conventions ?? {}"
    :save="saveConventions"
    @close="emit('close')"
  />
  <TaughtDrawer
    :open="opened?.kind === 'taught'"
    :untaught="sheets.sheet?.untaught ?? []"
    :save="saveTaught"
    @close="emit('close')"
  />
  <el-dialog
    :model-value="opened?.kind === 'replace'"
    title="Replace the lines on the paper?"
    width="440"
    @close="emit('close')"
  >
    <p>
      The {{ chain.lines.length }} lines that stand there give way to the {{ pending.length }} new ones. Undo brings
      them back.
    </p>
    <template #footer>
      <el-button @click="emit('close')">Keep mine</el-button>
      <el-button type="primary" @click="emit('fill', pending)">Replace them</el-button>
    </template>
  </el-dialog>
  <el-dialog :model-value="opened?.kind === 'remove'" title="Delete this problem?" width="420" @close="emit('close')">
    <p>Problem {{ place }} and its {{ chain.lines.length }} lines will be gone for good.</p>
    <template #footer>
      <el-button @click="emit('close')">Keep it</el-button>
      <el-button type="danger" @click="emit('remove')">Delete it</el-button>
    </template>
  </el-dialog>
</template>

import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'

export type Solution = Schema['SolutionOut']
export type { Step } from '@/api/client'
export type Grain = 'every' | 'board' | 'brief'

/**
 * The methods that lead to the answer of a problem, each worked out, and which of them and of its steps is looked at.
 */
export const useMethods = defineStore('methods', () => {
  const found = shallowRef<Schema['MethodsOut'] | null>(null)
  const grain = ref<Grain>('board')
  const chosen = ref(0)
  const at = ref(0)
  const request = useRequest()

  /** Asks for the methods of a problem; an answer that was overtaken by another question is dropped. */
  async function load(problem: number): Promise<void> {
    const query = { grain: grain.value }
    await request.run(
      () => unwrap(api.GET('/api/problems/{problem_id}/methods', { params: { path: { problem_id: problem }, query } })),
      (answer) => {
        found.value = answer
        chosen.value = Math.min(chosen.value, Math.max(answer.methods.length - 1, 0))
        at.value = 0
      },
    )
    if (request.trouble.value) found.value = null
  }

  function choose(method: number, step = 0): void {
    const count = found.value?.methods.length ?? 0
    if (method < 0 || method >= count) return
    chosen.value = method
    const steps = found.value!.methods[method]!.steps.length
    at.value = Math.max(0, Math.min(step, steps - 1))
  }

  return { found, grain, chosen, at, request, trouble: request.trouble, waiting: request.busy, load, choose }
})

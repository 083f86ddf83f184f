import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api, unwrap, type Schema } from '@/api/client'

export type Solution = Schema['SolutionOut']
export type { Step } from '@/api/client'
export type Grain = 'every' | 'board' | 'brief'

/** The methods that lead to the answer of a problem, each worked out, and which of them and of its steps is looked at. */
export const useMethods = defineStore('methods', () => {
  const found = shallowRef<Schema['MethodsOut'] | null>(null)
  const grain = ref<Grain>('board')
  const chosen = ref(0)
  const at = ref(0)
  const trouble = ref('')
  const waiting = ref(false)
  let asked = 0

  /** Asks for the methods of a problem; an answer that was overtaken by another question is dropped. */
  async function load(problem: number): Promise<void> {
    const mine = ++asked
    waiting.value = true
    trouble.value = ''
    try {
      const answer = await unwrap(
        api.GET('/api/problems/{problem_id}/methods', { params: { path: { problem_id: problem }, query: { grain: grain.value } } }),
      )
      if (mine !== asked) return
      found.value = answer
      chosen.value = Math.min(chosen.value, Math.max(answer.methods.length - 1, 0))
      at.value = 0
    } catch (problemFound) {
      if (mine === asked) {
        found.value = null
        trouble.value = problemFound instanceof TypeError ? 'The server does not answer.' : (problemFound as Error).message
      }
    } finally {
      if (mine === asked) waiting.value = false
    }
  }

  function choose(method: number, step = 0): void {
    const count = found.value?.methods.length ?? 0
    if (method < 0 || method >= count) return
    chosen.value = method
    const steps = found.value!.methods[method]!.steps.length
    at.value = Math.max(0, Math.min(step, steps - 1))
  }

  return { found, grain, chosen, at, trouble, waiting, load, choose }
})

import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'

export type Hint = Schema['HintOut']

/** The next step, told in three stages: what to look at, the rule, the line. */
export const useNextStep = defineStore('next-step', () => {
  const hint = shallowRef<Hint | null>(null)
  const stage = ref(0)
  const request = useRequest()
  let forLines = ''

  function clear(): void {
    hint.value = null
    stage.value = 0
    request.clear()
    forLines = ''
  }

  /**
   * Tells a little more; asks anew when the lines have changed. Returns the line once all is told and it is to be
   * written.
   */
  async function more(problem: number, lines: string[]): Promise<string | null> {
    const key = JSON.stringify([problem, lines])
    if (key !== forLines) {
      clear()
      forLines = key
      await request.run(
        () =>
          unwrap(
            api.POST('/api/problems/{problem_id}/next-step', {
              params: { path: { problem_id: problem } },
              body: { lines },
            }),
          ),
        (found) => {
          hint.value = found
          stage.value = 1
        },
      )
      return null
    }
    if (!hint.value?.step) return null
    if (stage.value < 3) {
      stage.value++
      return null
    }
    const line = hint.value.step.text
    clear()
    return line
  }

  return { hint, stage, request, trouble: request.trouble, more, clear }
})

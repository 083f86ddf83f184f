import { markRaw, ref, type Raw, type Ref } from 'vue'

export interface Request {
  /** Whether an answer is awaited. */
  busy: Ref<boolean>
  /** What went wrong the last time, in a sentence; empty when nothing did. */
  trouble: Ref<string>
  /** Whether asking the same once more may help: the server did not answer. */
  again: Ref<boolean>
  /**
   * Does the work and hands over what it found; whether that went through. When asked again before an answer has
   * come, only the last
   * answer counts: an earlier one is neither taken nor complained about.
   */
  run<T>(work: () => Promise<T>, take?: (found: T) => void): Promise<boolean>
  /** Does the last work once more. */
  retry(): Promise<boolean>
  /** Forgets the trouble, and whatever is still awaited. */
  clear(): void
}

/** What went wrong, in a sentence; `offline` is said when the server could not be reached. */
export function troubleOf(found: unknown, offline = 'The server does not answer.'): string {
  return found instanceof TypeError ? offline : (found as Error).message
}

/** The one way of loading, failing and trying again. */
export function useRequest(offline?: string): Raw<Request> {
  const busy = ref(false)
  const trouble = ref('')
  const again = ref(false)
  let asked = 0
  let last: () => Promise<boolean> = () => Promise.resolve(true)

  async function attempt<T>(work: () => Promise<T>, take?: (found: T) => void): Promise<boolean> {
    const mine = ++asked
    busy.value = true
    trouble.value = ''
    again.value = false
    try {
      const found = await work()
      if (mine !== asked) return false
      take?.(found)
      return true
    } catch (found) {
      if (mine === asked) {
        trouble.value = troubleOf(found, offline)
        again.value = found instanceof TypeError
      }
      return false
    } finally {
      if (mine === asked) busy.value = false
    }
  }

  // raw, so that its refs stay refs inside of a store
  return markRaw({
    busy,
    trouble,
    again,
    run(work, take) {
      last = () => attempt(work, take)
      return last()
    },
    retry: () => last(),
    clear() {
      asked++
      busy.value = false
      trouble.value = ''
      again.value = false
    },
  })
}

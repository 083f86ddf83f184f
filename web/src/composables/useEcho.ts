import { inject, onScopeDispose, ref, watch, type InjectionKey, type Ref } from 'vue'
import { api, unwrap, type Echo } from '@/api/client'

export interface UseEchoReturn {
  /** What the core made of the text last; null while nothing is typed. */
  echo: Ref<Echo | null>
  /** The text that `echo` belongs to. */
  echoed: Ref<string>
}

const PAUSE = 40
/** Who is asked how a line is understood: the desk, unless a screen above says otherwise. */
export const ECHO_OF: InjectionKey<(text: string, decimal: 'point' | 'comma') => Promise<Echo>> = Symbol('echo')
const ofTheDesk = (text: string, decimal: 'point' | 'comma'): Promise<Echo> =>
  unwrap(api.POST('/api/check/echo', { body: { text, decimal } }))

/** The typeset echo of a line while it is typed, as the core understands it. Late answers are dropped. */
export function useEcho(text: Ref<string>, decimal: Ref<'point' | 'comma'>): UseEchoReturn {
  const echo = ref<Echo | null>(null)
  const echoed = ref('')
  const understand = inject(ECHO_OF, ofTheDesk)
  let latest = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  async function ask(wanted: string, ticket: number): Promise<void> {
    try {
      const found = await understand(wanted, decimal.value)
      if (ticket !== latest) return
      echo.value = found
      echoed.value = wanted
    } catch {
      // without a connection there is no echo; the typing goes on
    }
  }

  watch(
    text,
    (now) => {
      const ticket = ++latest
      clearTimeout(timer)
      if (!now.trim()) {
        echo.value = null
        echoed.value = now
        return
      }
      timer = setTimeout(() => void ask(now, ticket), PAUSE)
    },
    { immediate: true },
  )
  onScopeDispose(() => clearTimeout(timer))
  return { echo, echoed }
}

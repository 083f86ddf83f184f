import { ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import { api, unwrap, type Schema } from '@/api/client'

export type Run = Schema['RunOut']
/** After how many milliseconds one looks again how far it is: soon at first, for most of it is short. */
const PAUSES = [150, 250, 400, 700]
/** After how long without an item done it is said that nobody works on it. */
const QUIET_MS = 10_000

const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms))

export interface Following<R extends Pick<Run, 'id' | 'done' | 'ended'>> {
  /** The run that is followed, as it was last heard; null where there is none. */
  now: ShallowRef<R | null>
  /** Whether the server does not answer just now; the work goes on without it. */
  away: Ref<boolean>
  /** Whether nothing of it was done for a while. */
  quiet: Ref<boolean>
  /** Looks how far it is until it has ended, was stopped or another is followed; hands over whatever is new. */
  follow(begun: R, look: (id: number) => Promise<R>, seen?: (run: R) => void): Promise<R>
  /** Cancels it; what is there of it stays. */
  stop(): Promise<void>
}

/** Work that takes longer than an answer may: how far it is, what is there of it, and its end. */
export function useRun<R extends Pick<Run, 'id' | 'done' | 'ended'> = Run>(): Following<R> {
  const now = shallowRef<R | null>(null) as ShallowRef<R | null>
  const away = ref(false)
  const quiet = ref(false)

  async function follow(begun: R, look: (id: number) => Promise<R>, seen?: (run: R) => void): Promise<R> {
    now.value = begun
    away.value = quiet.value = false
    let moved = Date.now()
    for (let k = 0; now.value?.id === begun.id && !now.value.ended; k++) {
      const before: R = now.value
      await wait(PAUSES[Math.min(k, PAUSES.length - 1)]!)
      if ((now.value as R | null)?.id !== begun.id) break
      try {
        const found = await look(begun.id)
        if ((now.value as R | null)?.id !== begun.id) break
        away.value = false
        if (found.done !== before.done) moved = Date.now()
        quiet.value = Date.now() - moved > QUIET_MS
        now.value = begun = found
        seen?.(found)
      } catch (problem) {
        if (!(problem instanceof TypeError)) {
          now.value = null
          throw problem
        }
        away.value = true
      }
    }
    return begun
  }

  async function stop(): Promise<void> {
    const left = now.value
    now.value = null
    if (left && !left.ended) await api.DELETE('/api/runs/{run_id}', { params: { path: { run_id: left.id } } })
  }

  return { now, away, quiet, follow, stop }
}

/** How far a run is. */
export const lookAtRun = (id: number): Promise<Run> =>
  unwrap(api.GET('/api/runs/{run_id}', { params: { path: { run_id: id } } }))

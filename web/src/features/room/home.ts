import { defineStore } from 'pinia'
import { ApiError, api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'
import { keep, kept } from '@/lib/keep'
import { goesOn, goesOut, type Unsent } from './unsent'

export type HomeTask = Schema['HomeTask']
type UnsentTask = Unsent & { id: number }
const AGAIN_MS = 4000

/**
 * A student's own page: the own chains, errors that come again, and the problem that is next. Lines that can't be sent
 * stay in this browser.
 */
export const useHome = defineStore('room-home', {
  state: () => ({
    home: null as Schema['MyHome'] | null,
    /** The problem that is worked; it stays after it is solved, until the next is wished. */
    task: null as HomeTask | null,
    unsent: null as UnsentTask | null,
    sending: false,
    offline: false,
    refused: '',
    request: useRequest('There is no connection. Try again in a moment.'),
  }),
  getters: {
    lines: (state): string[] =>
      (state.unsent?.id === state.task?.id ? state.unsent?.lines : undefined) ?? state.task?.working.lines ?? [],
    due: (state): Schema['HomeSlip'][] => state.home?.slips.filter((each) => !each.rid) ?? [],
    rid: (state): Schema['HomeSlip'][] => state.home?.slips.filter((each) => each.rid) ?? [],
  },
  actions: {
    place(): string {
      return `home.${this.home?.school_class ?? ''}.${this.home?.student ?? ''}`
    },
    /** The page as it is now; false where one is outside. */
    load(): Promise<boolean> {
      return this.request.run(
        () => unwrap(api.GET('/api/room/home')),
        (found) => {
          this.home = found
          this.task = found.next
          const left = kept<UnsentTask>(this.place())
          this.unsent = left && left.id === found.next?.id ? left : null
          void this.send()
        },
      )
    },
    /** Leaves the page; an answer that is still awaited does not open it again. */
    close() {
      this.request.clear()
      this.$reset()
    },
    write(lines: string[]) {
      if (!this.task) return
      this.unsent = {
        id: this.task.id,
        lines,
        revision: this.unsent?.revision ?? this.task.working.revision,
        tried: this.unsent?.tried ?? [],
      }
      keep(this.place(), this.unsent)
      void this.send()
    },
    async send(): Promise<void> {
      if (this.sending) return
      this.sending = true
      this.refused = ''
      try {
        while (this.unsent) {
          goesOut(this.unsent)
          keep(this.place(), this.unsent)
          const { id, lines, revision } = this.unsent
          const found = await unwrap(
            api.PUT('/api/room/home/problems/{problem_id}', {
              params: { path: { problem_id: id } },
              body: { lines, revision },
            }),
          )
          if (!this.unsent) return // the page was left meanwhile
          this.offline = false
          this.task = found
          // what was typed meanwhile goes on from what is there now
          this.unsent =
            this.unsent.lines === lines ? null : { ...this.unsent, revision: found.working.revision, tried: [] }
          keep(this.place(), this.unsent)
        }
      } catch (found) {
        if (!(found instanceof ApiError)) {
          this.offline = true
          setTimeout(() => void this.send(), AGAIN_MS)
        } else if (found.status === 409) {
          if (this.unsent && goesOn(this.unsent, found.body as Partial<Unsent> | null)) {
            setTimeout(() => void this.send())
            return
          }
          this.unsent = null
          keep(this.place(), null)
          await this.load()
        } else this.refused = found.message
      } finally {
        this.sending = false
      }
    },
  },
})

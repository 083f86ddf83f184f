import { defineStore } from 'pinia'
import { api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'

const LOOK_MS = 1000

/** What a room is asked from the board, and its answers while they come in. */
export const useAsks = defineStore('room-asks', {
  state: () => ({
    set: 0,
    ask: null as Schema['AskOut'] | null,
    request: useRequest('The room can’t be reached just now.'),
  }),
  actions: {
    start(set: number, wanted: Partial<Schema['AskIn']> & { kind: 'vote' | 'try' }): Promise<boolean> {
      this.set = set
      return this.request.run(
        () =>
          unwrap(
            api.POST('/api/sets/{set_id}/room/ask', {
              params: { path: { set_id: set } },
              body: { lines: [], ...wanted },
            }),
          ),
        (found) => {
          this.ask = found.ask
          void this.follow(found.ask?.id ?? 0)
        },
      )
    },
    /** Looks each second, until something else is asked or nothing. */
    async follow(id: number): Promise<void> {
      while (id && this.ask?.id === id) {
        await new Promise((done) => setTimeout(done, LOOK_MS))
        if (this.ask?.id !== id) return
        try {
          const found = await unwrap(api.GET('/api/sets/{set_id}/room/ask', { params: { path: { set_id: this.set } } }))
          if (this.ask?.id === id) this.ask = found.ask
        } catch {
          // it is looked at again in a second
        }
      }
    },
    async stop(): Promise<void> {
      if (!this.ask) return
      this.ask = null
      await unwrap(api.DELETE('/api/sets/{set_id}/room/ask', { params: { path: { set_id: this.set } } })).catch(
        () => undefined,
      )
    },
  },
})

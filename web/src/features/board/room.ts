import { defineStore } from 'pinia'
import { api, unwrap, type Schema } from '@/api/client'

/** The room that works the problem on the board just now, if any, and what it has written. */
export const useBoardRoom = defineStore('board-room', {
  state: () => ({ set: 0, item: 0, written: [] as Schema['WrittenInRoom'][], listed: false }),
  actions: {
    async load(problem: number): Promise<void> {
      this.listed = false
      const found = await unwrap(
        api.GET('/api/problems/{problem_id}/room', { params: { path: { problem_id: problem } } }),
      ).catch(() => null)
      Object.assign(this, { set: found?.given_set ?? 0, item: found?.item ?? 0, written: found?.written ?? [] })
    },
    /** Lists what has been written until now; once more puts the list away. */
    async list(problem: number): Promise<void> {
      const wanted = !this.listed
      await this.load(problem)
      this.listed = wanted
    },
  },
})

import { defineStore } from 'pinia'
import { api, unwrap, type Schema } from '@/api/client'

export type Person = Schema['PersonOut']
export type Happening = Schema['HappeningOut']
type Change = Schema['PersonChange']

/** Everybody with an account, what was done last, and the one-time word that was just made: it is shown once. */
export const usePeople = defineStore('people', {
  state: () => ({ people: [] as Person[], happenings: [] as Happening[], made: null as Schema['PersonWord'] | null }),
  actions: {
    async load() {
      const found = await unwrap(api.GET('/api/people'))
      this.people = found.people
      this.happenings = found.happenings
    },
    async add(username: string, name: string, teaches: boolean, manages: boolean) {
      this.made = await unwrap(api.POST('/api/people', { body: { username, name, teaches, manages } }))
      await this.load()
    },
    async change(id: number, changes: Partial<Change>) {
      await unwrap(api.PATCH('/api/people/{user_id}', { params: { path: { user_id: id } }, body: changes as Change }))
      await this.load()
    },
    async unlock(id: number) {
      await unwrap(api.POST('/api/people/{user_id}/unlock', { params: { path: { user_id: id } } }))
      await this.load()
    },
    async reset(id: number) {
      this.made = await unwrap(api.POST('/api/people/{user_id}/reset', { params: { path: { user_id: id } } }))
      await this.load()
    },
  },
})

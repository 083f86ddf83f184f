import { defineStore } from 'pinia'
import { api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'
import { inBase64, textOf } from '@/lib/files'

type Wanted = Schema['RosterIn']

/** A roster on its way into classes: where it comes from, what would be taken, which classes are chosen. */
export const useRoster = defineStore('roster', {
  state: () => ({
    records: null as Schema['RecordsOut'] | null,
    wanted: null as Wanted | null,
    preview: null as Schema['RosterOut'] | null,
    chosen: [] as number[],
    told: '',
    request: useRequest('The server does not answer. Nothing was taken; try again in a moment.'),
  }),
  actions: {
    loadRecords(): Promise<boolean> {
      return this.request.run(
        () => unwrap(api.GET('/api/records/classes')),
        (found) => (this.records = found),
      )
    },
    /** Shows what would be taken; nothing is. */
    look(wanted: Wanted): Promise<boolean> {
      this.told = ''
      return this.request.run(
        () => unwrap(api.POST('/api/rosters/preview', { body: wanted })),
        (found) => Object.assign(this, { preview: found, wanted, chosen: found.classes.map((_, k) => k) }),
      )
    },
    async lookAtFile(file: File, into: number | null, title: string): Promise<boolean> {
      const zip = file.name.toLowerCase().endsWith('.zip')
      return this.look({
        source: zip ? 'bundle' : 'table',
        text: zip ? await inBase64(file) : await textOf(file),
        ids: [],
        into,
        title,
      })
    },
    /** Looks once more, with what was said of the columns. */
    say(columns: Schema['RosterColumn']['means'][], titles: boolean): Promise<boolean> {
      return this.wanted ? this.look({ ...this.wanted, columns, titles }) : Promise.resolve(false)
    },
    take(): Promise<boolean> {
      const wanted = this.wanted
      if (!wanted) return Promise.resolve(false)
      return this.request.run(
        () => unwrap(api.POST('/api/rosters', { body: { ...wanted, chosen: this.chosen } })),
        (found) => {
          this.told = `${found.students} new ${found.students === 1 ? 'student' : 'students'} in ${found.classes.length} ${found.classes.length === 1 ? 'class' : 'classes'}.`
          this.leave()
        },
      )
    },
    leave() {
      Object.assign(this, { preview: null, wanted: null, chosen: [] })
    },
  },
})

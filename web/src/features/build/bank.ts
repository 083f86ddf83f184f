import { defineStore } from 'pinia'
import { api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'
import { keep, kept } from '@/lib/keep'

export type BankRow = Schema['BankRow']
export interface Wanted {
  text: string
  family: string
  method: string
  slip: string
  low: number
  high: number
  unused: string
  repeated: boolean
  order: 'recent' | 'easiest' | 'hardest' | 'unused'
}
export const ANYTHING: Wanted = {
  text: '',
  family: '',
  method: '',
  slip: '',
  low: 1,
  high: 10,
  unused: '',
  repeated: false,
  order: 'recent',
}
const AGAIN_MS = 1500

/**
 * All problems of a teacher, searched. What is wanted is kept in this browser; what is chosen lasts while the page is
 * open.
 */
export const useBank = defineStore('bank', {
  state: () => ({
    wanted: { ...ANYTHING, ...kept<Partial<Wanted>>('bank.wanted') } as Wanted,
    kinds: null as Schema['KindsOut'] | null,
    rows: [] as BankRow[],
    found: 0,
    waiting: 0,
    more: false,
    page: 1,
    chosen: {} as Record<number, BankRow>,
    request: useRequest('The server does not answer. Try again in a moment.'),
  }),
  getters: {
    picked: (state): BankRow[] => Object.values(state.chosen),
  },
  actions: {
    ask(page: number): Promise<Schema['BankOut']> {
      const { unused, ...rest } = this.wanted
      return unwrap(api.GET('/api/bank', { params: { query: { ...rest, ...(unused ? { unused } : {}), page } } }))
    },
    /** Looks anew for what is wanted. */
    find(): Promise<boolean> {
      keep('bank.wanted', this.wanted)
      return this.request.run(
        () => this.ask(1),
        (found) => {
          Object.assign(this, {
            rows: found.rows,
            found: found.found,
            waiting: found.waiting,
            more: found.more,
            page: 1,
          })
        },
      )
    },
    /** The next page behind those that are shown. */
    further(): Promise<boolean> {
      return this.request.run(
        () => this.ask(this.page + 1),
        (found) => {
          this.rows.push(...found.rows)
          this.more = found.more
          this.page += 1
        },
      )
    },
    async loadKinds() {
      this.kinds = await unwrap(api.GET('/api/bank/kinds'))
    },
    /** Has new problems looked through, and waits until that is done or the screen is left. */
    async lookThrough(isLeft: () => boolean): Promise<void> {
      if (!this.waiting) return
      await unwrap(api.POST('/api/bank/looked-through'))
      while (this.waiting && !isLeft()) {
        await new Promise((done) => setTimeout(done, AGAIN_MS))
        const before = this.waiting
        if (isLeft()) return
        await this.find()
        if (before !== this.waiting) await this.loadKinds()
      }
    },
    choose(row: BankRow) {
      if (this.chosen[row.id]) delete this.chosen[row.id]
      else this.chosen[row.id] = row
    },
  },
})

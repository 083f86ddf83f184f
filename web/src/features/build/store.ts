import { defineStore } from 'pinia'
import { markRaw } from 'vue'
import { api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'
import { useRun } from '@/composables/useRun'
import { nextForm } from '@/lib/items'
import { keep, kept } from '@/lib/keep'

export type Rung = Schema['RungOut'] & { pinned: boolean }
export type Family = Schema['FamilyOut']
type Drawing = Schema['LadderRunOut']
const look = (id: number): Promise<Drawing> =>
  unwrap(api.GET('/api/ladders/runs/{ladder_id}', { params: { path: { ladder_id: id } } }))
export interface Wish {
  families: string[]
  low: number
  high: number
  count: number
  events: string[]
  slip: string
  largest: number
  seed: number
}
const begin = (): Wish => ({ families: [], low: 1, high: 9, count: 12, events: [], slip: '', largest: 400, seed: 1 })

const asProblem = ({
  task,
  given,
  variable,
  numbers,
  method,
  instruction,
  form,
}: Schema['ProblemIn']): Schema['ProblemIn'] => ({ task, given, variable, numbers, method, instruction, form })

/**
 * A sheet that is being built: what it is for, the ladder as it stands, and every state before for undoing. Nothing
 * is stored until
 * the sheet is made; what stands is kept in this browser. */
export const useBuild = defineStore('build', {
  state: () => ({
    families: [] as Family[],
    events: [] as string[],
    slips: [] as Schema['SlipOut'][],
    wish: { ...begin(), ...kept<Partial<Wish>>('build.wish') } as Wish,
    title: kept<string>('build.title') ?? '',
    rungs: kept<Rung[]>('build.rungs') ?? ([] as Rung[]),
    before: [] as Rung[][],
    after: [] as Rung[][],
    at: 0,
    /** The drawing of a ladder that is under way, and what is there of it. */
    drawing: markRaw(useRun<Drawing>()),
    coming: [] as Schema['RungOut'][],
    /** Events that no problem was found for. */
    without: [] as string[],
    request: useRequest('The server does not answer. What stands here is kept; try again in a moment.'),
  }),
  getters: {
    minutes: (state): number =>
      Math.round(state.rungs.reduce((sum, rung) => sum + 0.5 + 0.42 * (rung.difficulty ?? 3), 0)),
    /** What they are worth together, as far as that is known. */
    marks: (state): number => state.rungs.reduce((sum, rung) => sum + (rung.marks ?? 1), 0),
    /** The highest level that one of the chosen families has. */
    top: (state): number =>
      Math.max(
        1,
        ...state.families
          .filter((family) => !state.wish.families.length || state.wish.families.includes(family.id))
          .map((family) => family.levels.length),
      ),
  },
  actions: {
    async load() {
      if (this.families.length) return
      const found = await unwrap(api.GET('/api/families'))
      this.families = found.families
      this.events = found.events
      this.slips = found.slips
    },
    keep() {
      keep('build.wish', this.wish)
      keep('build.rungs', this.rungs.length ? this.rungs : null)
      keep('build.title', this.title || null)
    },
    /** Puts another state of the ladder in place of this one, which can be brought back. */
    put(rungs: Rung[]) {
      this.before.push(this.rungs)
      this.after = []
      this.rungs = rungs
      this.at = Math.max(0, Math.min(this.at, rungs.length - 1))
      this.keep()
    },
    undo() {
      const back = this.before.pop()
      if (!back) return
      this.after.push(this.rungs)
      this.rungs = back
      this.at = Math.max(0, Math.min(this.at, back.length - 1))
      this.keep()
    },
    redo() {
      const again = this.after.pop()
      if (!again) return
      this.before.push(this.rungs)
      this.rungs = again
      this.keep()
    },
    /** A ladder in place of what stands; what is pinned stays in it. */
    propose(): Promise<boolean> {
      const pinned = this.rungs.filter((rung) => rung.pinned)
      const { high, ...wish } = this.wish
      const top = this.top
      this.coming = []
      return this.request.run(
        async () => {
          const body = {
            ...wish,
            low: Math.min(wish.low, top),
            high: Math.min(high, top),
            kept: pinned.map(asProblem),
          }
          const begun = await unwrap(api.POST('/api/ladders/runs', { body }))
          return this.drawing.follow(begun, look, (now) => (this.coming = now.rungs))
        },
        (found) => {
          this.coming = []
          this.without = found.without
          // one that was cancelled before anything was drawn leaves what stands
          if (found.rungs.length || found.ended)
            this.put(found.rungs.map((rung) => ({ ...rung, pinned: pinned.some((each) => each.given === rung.given) })))
          if (found.trouble.length) throw new Error(found.trouble.join(' '))
        },
      )
    },
    /** Another one in the place of the one at the cursor. */
    replace(what: 'like' | 'easier' | 'harder'): Promise<boolean> {
      const place = this.at
      const old = this.rungs[place]
      if (!old) return Promise.resolve(false)
      this.wish.seed += 1
      return this.request.run(async () => {
        const { rung } = await unwrap(
          api.POST('/api/another', {
            body: { problem: asProblem(old), known: this.rungs.map(asProblem), what, seed: this.wish.seed },
          }),
        )
        if (!rung)
          throw new Error(what === 'like' ? 'No other one like it was found.' : `There is none ${what} in its family.`)
        const { instruction, form } = old // how it stands on paper stays
        this.put(
          this.rungs.map((each, k) =>
            k === place
              ? {
                  ...rung,
                  instruction,
                  form,
                  adds: { like: 'another one like it', easier: 'an easier one', harder: 'a harder one' }[what],
                  pinned: false,
                }
              : each,
          ),
        )
      })
    },
    /** Another given for the one at the cursor, worked as the others are; nothing changes where it can't be. */
    edit(given: string): Promise<boolean> {
      const place = this.at
      const old = this.rungs[place]
      if (!old || !given || given === old.given) return Promise.resolve(false)
      const family = old.family || this.families[0]?.id || 'linear-equations'
      return this.request.run(async () => {
        const { rungs } = await unwrap(
          api.POST('/api/ladders', {
            body: {
              families: [family],
              count: 1,
              low: 1,
              events: [],
              slip: '',
              largest: 400,
              seed: 1,
              kept: [{ ...asProblem(old), given }],
            },
          }),
        )
        const { instruction, form, pinned } = old
        this.put(
          this.rungs.map((each, k) =>
            k === place && rungs[0] ? { ...rungs[0], instruction, form, pinned, adds: 'changed by hand' } : each,
          ),
        )
      })
    },
    /** Another form of the one at the cursor: the next in the row. */
    changeForm() {
      this.put(this.rungs.map((each, k) => (k === this.at ? { ...each, form: nextForm(each.form) } : each)))
    },
    /** Words over the one at the cursor and over those behind it that had the same as it; empty for the usual words. */
    instruct(words: string) {
      const old = this.rungs[this.at]?.instruction ?? ''
      let runs = true
      this.put(
        this.rungs.map((each, k) => {
          runs = k < this.at || (runs && (each.instruction ?? '') === old)
          return k >= this.at && runs ? { ...each, instruction: words } : each
        }),
      )
    },
    /** Problems from the bank behind those that stand. */
    take(rows: Schema['BankRow'][]) {
      const rungs = rows.map(({ task, given, variable, numbers, method, given_latex, difficulty, family }) => ({
        task,
        given,
        variable,
        numbers,
        method,
        given_latex,
        difficulty,
        family,
        answer_latex: '',
        level: 0,
        marks: 1,
        adds: 'from the bank',
        pinned: true,
        instruction: '',
        form: 'work' as const,
      }))
      this.put([...this.rungs, ...rungs])
      this.at = this.rungs.length - rungs.length
    },
    pin() {
      this.put(this.rungs.map((each, k) => (k === this.at ? { ...each, pinned: !each.pinned } : each)))
    },
    remove() {
      this.put(this.rungs.filter((_, k) => k !== this.at))
    },
    move(by: -1 | 1) {
      const to = this.at + by
      if (to < 0 || to >= this.rungs.length) return
      const rungs = [...this.rungs]
      ;[rungs[this.at], rungs[to]] = [rungs[to]!, rungs[this.at]!]
      this.put(rungs)
      this.at = to
    },
    /** Makes the sheet, and empties the builder; the number of the sheet, or null when that failed. */
    async make(): Promise<number | null> {
      let made: number | null = null
      await this.request.run(async () => {
        const sheet = await unwrap(
          api.POST('/api/built', { body: { title: this.title, problems: this.rungs.map(asProblem) } }),
        )
        made = sheet.id
        this.rungs = []
        this.before = []
        this.after = []
        this.title = ''
        this.keep()
      })
      return made
    },
  },
})

import { defineStore } from 'pinia'
import { markRaw } from 'vue'
import { api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'
import { useOutbox } from '@/lib/outbox'
import { useRegional } from '@/lib/regional'

export type Cell = Schema['CellOut']
export type Opened = Schema['WorkingOut']
const AGAIN_MS = 1000

type Table = Pick<Schema['SetOut'], 'students' | 'items' | 'cells' | 'totals'>
const nothing = (): Table => ({ students: [], items: [], cells: [], totals: [] })

/** A number that has nothing to do with the order of the ids (the finalizer of a common integer hash). */
function scattered(id: number, seed: number): number {
  let value = Math.imul(id ^ seed, 0x9e3779b1)
  value = Math.imul(value ^ (value >>> 15), 0x85ebca6b)
  return (value ^ (value >>> 13)) >>> 0
}

/** A class set in the marking table: where one stands, what is open, what was decided. */
export const useMarking = defineStore('marking', {
  state: () => ({
    set: null as Schema['SetOut'] | null,
    row: 0,
    column: 0,
    opened: null as Opened | null,
    names: true,
    /** What the order of the papers is shuffled by; 0 while they stand by name. */
    mixed: 0,
    patterns: null as Schema['PatternsOut'] | null,
    told: '',
    turn: markRaw(Promise.resolve(true)) as Promise<boolean>,
    left: [] as Schema['LeftOut'][],
    /** What was written for the item that is being typed. */
    written: [] as Schema['WrittenOut'][],
    request: useRequest('The server does not answer. Nothing was decided; try again in a moment.'),
    opening: useRequest('The server does not answer. Try again in a moment.'),
  }),
  getters: {
    /** The set with its students by name, or shuffled. */
    table: (state): Table => {
      if (!state.set || !state.mixed) return state.set ?? nothing()
      return {
        ...state.set,
        students: [...state.set.students].sort((a, b) => scattered(a.id, state.mixed) - scattered(b.id, state.mixed)),
      }
    },
    /** The cells by student and item. */
    byPlace(): Map<string, Cell> {
      return new Map(this.table.cells.map((cell) => [`${cell.student} ${cell.item}`, cell]))
    },
    here(): Cell | null {
      return this.cellAt(this.row, this.column)
    },
    cellAt(): (row: number, column: number) => Cell | null {
      return (row, column) => {
        const student = this.table.students[row]
        const item = this.table.items[column]
        return (student && item && this.byPlace.get(`${student.id} ${item.id}`)) || null
      }
    },
    totalOf(): (student: number) => Schema['TotalOut'] | null {
      const rows = new Map(this.table.totals.map((each) => [each.student, each]))
      return (student) => rows.get(student) ?? null
    },
    /** Cells with a mark that was confirmed by a scheme that is no more. */
    outdated(): Cell[] {
      return this.table.cells.filter((cell) => cell.outdated)
    },
    decided(): number {
      return this.table.cells.filter((cell) => cell.mark !== null).length
    },
  },
  actions: {
    load(id: number): Promise<boolean> {
      return this.request.run(
        () => unwrap(api.GET('/api/sets/{set_id}', { params: { path: { set_id: id } } })),
        (found) => {
          if (this.set?.id !== id)
            Object.assign(this, { row: 0, column: 0, opened: null, patterns: null, told: '', left: [] })
          this.set = found
        },
      )
    },
    /** Looks again until everything is verified or the screen is left. */
    async follow(isLeft: () => boolean): Promise<void> {
      const id = this.set?.id
      if (id === undefined) return
      if (this.set && this.set.done < this.set.total)
        await unwrap(api.POST('/api/sets/{set_id}/verified', { params: { path: { set_id: id } } })).catch(
          () => undefined,
        )
      while (!isLeft() && this.set?.id === id && this.set.done < this.set.total) {
        await new Promise((done) => setTimeout(done, AGAIN_MS))
        if (!isLeft()) await this.load(id)
      }
    },
    /** Shuffles the papers, or puts them by name again; one stays on the paper where one stands. */
    mix(seed = 1 + Math.floor(Math.random() * 1e6)) {
      const student = this.table.students[this.row]?.id
      this.mixed = this.mixed ? 0 : seed
      this.row = Math.max(
        0,
        this.table.students.findIndex((each) => each.id === student),
      )
    },
    move(by: [number, number]) {
      this.row = Math.max(0, Math.min(this.table.students.length - 1, this.row + by[0]))
      this.column = Math.max(0, Math.min(this.table.items.length - 1, this.column + by[1]))
    },
    /** Goes on to the next working, down the column and then to the next one, for which this is so. */
    goOn(wanted: (cell: Cell) => boolean): boolean {
      const { students, items } = this.table
      const start = this.column * students.length + this.row
      for (let step = 1; step <= students.length * items.length; step++) {
        const place = (start + step) % (students.length * items.length)
        const cell = this.cellAt(place % students.length, Math.floor(place / students.length))
        if (cell && wanted(cell)) {
          this.row = place % students.length
          this.column = Math.floor(place / students.length)
          return true
        }
      }
      return false
    },
    /**
     * Decides a mark, or confirms the proposed one where none is given; for all alike if wished. It is shown at once
     * and sent in its
     * turn: who is fast loses nothing. What could not be sent is taken back from the screen, and that is said.
     */
    decide(cell: Cell, mark: number | null, alike = false): Promise<boolean> {
      const id = this.set?.id
      const value = mark ?? cell.proposed
      if (id === undefined || value === null || cell.waits) return Promise.resolve(false)
      const changed = this.table.cells.filter(
        (each) =>
          each === cell || (alike && each.item === cell.item && each.mark === null && each.alike === cell.alike),
      )
      const before = changed.map((each) => each.mark)
      changed.forEach((each) => (each.mark = value))
      const sent = useOutbox().add('decide', id, { workings: [cell.working], mark, alike })
      return this.inTurn(async () => {
        const done = await this.request.run(
          () => sent,
          (found) => this.take(found, alike ? 'decided alike' : ''),
        )
        if (!done) changed.forEach((each, k) => (each.mark = before[k] ?? null))
        return done
      })
    },
    takeBack(): Promise<boolean> {
      const id = this.set?.id
      if (id === undefined) return Promise.resolve(false)
      return this.inTurn(() =>
        this.request.run(
          () => unwrap(api.DELETE('/api/sets/{set_id}/decisions', { params: { path: { set_id: id } } })),
          (found) => this.goTo(found, 'taken back'),
        ),
      )
    },
    /** Decides again what was taken back last. */
    doAgain(): Promise<boolean> {
      const id = this.set?.id
      if (id === undefined) return Promise.resolve(false)
      return this.inTurn(() =>
        this.request.run(
          () => unwrap(api.POST('/api/sets/{set_id}/decisions/again', { params: { path: { set_id: id } } })),
          (found) => this.goTo(found, 'decided again'),
        ),
      )
    },
    /** Takes confirmed marks away, so that what is proposed stands in their place. */
    proposeAnew(cells: Cell[]): Promise<boolean> {
      const id = this.set?.id
      if (id === undefined || !cells.length) return Promise.resolve(false)
      const workings = cells.map((cell) => cell.working)
      return this.inTurn(() =>
        this.request.run(
          () =>
            unwrap(
              api.POST('/api/sets/{set_id}/decisions/anew', { params: { path: { set_id: id } }, body: { workings } }),
            ),
          (found) => this.take(found, 'proposed anew'),
        ),
      )
    },
    /** What was decided, with the place where it was named, and one stands there. */
    goTo(found: Schema['DecidedOut'], words: string) {
      this.take(found, words)
      const cell = this.table.cells.find((each) => String(each.working) in found.marks)
      if (!cell) return
      this.row = this.table.students.findIndex((each) => each.id === cell.student)
      this.column = this.table.items.findIndex((each) => each.id === cell.item)
      const who = this.names ? (this.table.students[this.row]?.name ?? '') : `student ${this.row + 1}`
      const rest = Object.keys(found.marks).length - 1
      const mark = cell.mark === null ? 'no mark' : `mark ${useRegional(() => this.set?.in_force).number(cell.mark)}`
      const more = rest ? `, and ${rest} more` : ''
      this.told = `${who}, ${this.table.items[this.column]?.number} ${words}: ${mark}${more}.`
    },
    /** One after the other, in the order in which they were decided. */
    inTurn(work: () => Promise<boolean>): Promise<boolean> {
      const mine = this.turn.then(work)
      this.turn = markRaw(mine.catch(() => false))
      return mine
    },
    take({ marks, totals }: Schema['DecidedOut'], words: string) {
      if (this.set) this.set.totals = totals
      for (const cell of this.table.cells)
        if (String(cell.working) in marks)
          Object.assign(cell, { mark: marks[String(cell.working)] ?? null, outdated: false })
      if (this.opened && String(this.opened.id) in marks) this.opened.mark = marks[String(this.opened.id)] ?? null
      const count = Object.keys(marks).length
      this.told = words ? `${count} ${count === 1 ? 'working' : 'workings'} ${words}.` : ''
    },
    open(working: number): Promise<boolean> {
      return this.opening.run(
        () => unwrap(api.GET('/api/workings/{working_id}', { params: { path: { working_id: working } } })),
        (found) => (this.opened = found),
      )
    },
    /** Goes to a working and opens it. */
    jump(working: number): Promise<boolean> {
      const cell = this.table.cells.find((each) => each.working === working)
      if (!cell) return Promise.resolve(false)
      this.row = this.table.students.findIndex((each) => each.id === cell.student)
      this.column = this.table.items.findIndex((each) => each.id === cell.item)
      return this.open(working)
    },
    /** The lines of a place, as they were typed; one after the other, so that who is fast loses nothing. */
    type(lines: string[], row: number, column: number): Promise<boolean> {
      const [set, student, item] = [this.set, this.table.students[row], this.table.items[column]]
      if (!set || !student || !item) return Promise.resolve(false)
      const sent = useOutbox().add('type', set.id, { student: student.id, item: item.id, lines })
      return this.inTurn(() =>
        this.request.run(async () => {
          await sent
          this.set = await unwrap(api.GET('/api/sets/{set_id}', { params: { path: { set_id: set.id } } }))
          void this.loadWritten(item.id)
        }),
      )
    },
    /** Puts the lines of another version back into the working that is open; its mark is proposed and confirmed anew. */
    async putBack(lines: string[]): Promise<boolean> {
      const working = this.opened
      if (!working) return false
      const row = this.table.students.findIndex((each) => each.id === working.student)
      const column = this.table.items.findIndex((each) => each.id === working.item)
      return (await this.type(lines, row, column)) && this.open(working.id)
    },
    /** What others wrote for an item; without it one types on. */
    async loadWritten(item: number): Promise<void> {
      this.written = await unwrap(
        api.GET('/api/items/{item_id}/written', { params: { path: { item_id: item } } }),
      ).catch(() => [])
    },
    takeIn(form: Schema['PileIn']['form'], text: string): Promise<boolean> {
      const id = this.set?.id
      if (id === undefined) return Promise.resolve(false)
      return this.request.run(async () => {
        const found = await unwrap(
          api.POST('/api/sets/{set_id}/taken', { params: { path: { set_id: id } }, body: { form, text } }),
        )
        this.left = found.left
        this.told = `Taken in: ${found.new} new, ${found.changed} changed, ${found.same} that stood there already.`
        this.set = await unwrap(api.GET('/api/sets/{set_id}', { params: { path: { set_id: id } } }))
      })
    },
    changeScheme(item: number, scheme: Schema['SchemeIn']): Promise<boolean> {
      return this.request.run(
        () => unwrap(api.PUT('/api/items/{item_id}/scheme', { params: { path: { item_id: item } }, body: scheme })),
        (found) => (this.set = found),
      )
    },
    changeSet(change: Schema['SetChange']): Promise<boolean> {
      const id = this.set?.id
      if (id === undefined) return Promise.resolve(false)
      return this.request.run(
        () => unwrap(api.PATCH('/api/sets/{set_id}', { params: { path: { set_id: id } }, body: change })),
        (found) => (this.set = found),
      )
    },
    changePaper(student: number, change: Schema['PaperChange']): Promise<boolean> {
      const id = this.set?.id
      if (id === undefined) return Promise.resolve(false)
      return this.request.run(
        () =>
          unwrap(
            api.PATCH('/api/sets/{set_id}/papers/{student_id}', {
              params: { path: { set_id: id, student_id: student } },
              body: change,
            }),
          ),
        (found) => (this.set = found),
      )
    },
    fillBlanks(): Promise<boolean> {
      const id = this.set?.id
      if (id === undefined) return Promise.resolve(false)
      return this.request.run(
        () => unwrap(api.POST('/api/sets/{set_id}/blanks', { params: { path: { set_id: id } } })),
        (found) => {
          const before = this.table.cells.length
          this.set = found
          this.told = `${found.cells.length - before} blank ${found.cells.length - before === 1 ? 'item' : 'items'}, proposed for like the others.`
        },
      )
    },
    /** A starter against the commonest error, as a sheet; its number, or null where that failed. */
    async tomorrow(): Promise<number | null> {
      const id = this.set?.id
      let made: number | null = null
      if (id === undefined) return made
      await this.opening.run(
        () => unwrap(api.POST('/api/sets/{set_id}/tomorrow', { params: { path: { set_id: id } } })),
        (found) => (made = found.sheet),
      )
      return made
    },
    loadPatterns(): Promise<boolean> {
      const id = this.set?.id
      if (id === undefined) return Promise.resolve(false)
      return this.opening.run(
        () => unwrap(api.GET('/api/sets/{set_id}/patterns', { params: { path: { set_id: id } } })),
        (found) => (this.patterns = found),
      )
    },
  },
})

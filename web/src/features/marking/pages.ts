import { defineStore } from 'pinia'
import { toRaw } from 'vue'
import { api, unwrap, type Schema } from '@/api/client'
import { troubleOf, useRequest } from '@/composables/useRequest'

export type PageLine = Schema['PageLine']
const AGAIN_MS = 1000
/** With more doubtful symbols than this share of a line, it is typed rather than asked about symbol by symbol. */
const MOST_ASKED = 0.4

/** Whether a line is settled symbol by symbol; else it is typed. */
export function bySymbols(line: PageLine): boolean {
  const asked = line.symbols.filter((symbol) => symbol.asks).length
  return line.doubtful && asked > 0 && asked <= MOST_ASKED * line.symbols.length
}
/** The other reading that comes after this one; the first reading comes again at the end. */
export function nextReading(symbol: Schema['SymbolOut'], now: string): string {
  const all = [symbol.text, ...symbol.others]
  return all[(all.indexOf(now) + 1) % all.length] ?? symbol.text
}

/** The pages of a set: which there are, which one is open, what is chosen for its doubtful symbols. */
/** A file of pages on its way, and what became of it. */
export interface Upload {
  name: string
  fate: 'waits' | 'goes' | 'taken' | 'refused'
  words: string
}
/** The files themselves, by their place in the list: they are no state to look at. */
const files = new Map<Upload, File>()

export const usePages = defineStore('pages', {
  state: () => ({
    uploads: [] as Upload[],
    sending: false,
    set: 0,
    pages: [] as Schema['PageRow'][],
    reader: true,
    open: null as Schema['PageOut'] | null,
    /** What was chosen for a symbol, by line and symbol, until the whole line is settled. */
    chosen: {} as Record<string, string>,
    told: '',
    request: useRequest('The server does not answer. Nothing was changed; try again in a moment.'),
  }),
  getters: {
    /** How many pages wait for something that a person does. */
    waiting: (state) =>
      state.pages.filter(
        (page) => page.student === null || page.open || page.state === 'failed' || page.again_of !== null,
      ).length,
    /** How many files are behind one, of all that were picked. */
    sent: (state): number => state.uploads.filter((each) => each.fate === 'taken' || each.fate === 'refused').length,
  },
  actions: {
    load(set: number): Promise<boolean> {
      if (this.set !== set) Object.assign(this, { set, pages: [], open: null, chosen: {}, told: '', uploads: [] })
      return this.request.run(
        () => unwrap(api.GET('/api/sets/{set_id}/pages', { params: { path: { set_id: set } } })),
        (found) => Object.assign(this, { pages: found.pages, reader: found.reader }),
      )
    },
    /** Looks again while pages are being read. */
    async follow(isLeft: () => boolean): Promise<void> {
      const set = this.set
      while (!isLeft() && this.set === set && this.pages.some((page) => page.state === 'waiting')) {
        await new Promise((done) => setTimeout(done, AGAIN_MS))
        if (isLeft()) return
        await this.load(set)
        const row = this.pages.find((page) => page.id === this.open?.id)
        if (row && this.open && row.state !== this.open.state) await this.show(row.id)
      }
    },
    show(page: number): Promise<boolean> {
      return this.request.run(
        () => unwrap(api.GET('/api/pages/{page_id}', { params: { path: { page_id: page } } })),
        this.take,
      )
    },
    take(found: Schema['PageOut']) {
      if (this.open?.id !== found.id) this.chosen = {}
      this.open = found
      const row = this.pages.find((page) => page.id === found.id)
      if (row)
        Object.assign(row, {
          student: found.student,
          state: found.state,
          trouble: found.trouble,
          again_of: found.again_of,
          open: found.lines.filter((line) => line.doubtful || (line.item === null && line.texts.length > 0)).length,
        })
    },
    /** Takes files in one after the other, each with its own fate: one that is refused stops no other. More may be
     * picked meanwhile. */
    async takeIn(set: number, picked: Iterable<File>): Promise<void> {
      if (!this.sending) this.uploads = []
      for (const file of picked) {
        this.uploads.push({ name: file.name, fate: 'waits', words: '' })
        files.set(toRaw(this.uploads.at(-1)!), file)
      }
      if (this.sending) return
      this.sending = true
      try {
        for (let next = this.waitingUpload(); next; next = this.waitingUpload()) await this.upload(set, next)
      } finally {
        this.sending = false
        this.tell()
      }
    },
    waitingUpload(): Upload | undefined {
      return this.uploads.find((each) => each.fate === 'waits')
    },
    async upload(set: number, upload: Upload): Promise<void> {
      upload.fate = 'goes'
      const file = files.get(toRaw(upload))
      files.delete(toRaw(upload))
      const form = new FormData()
      if (file) form.append('file', file)
      const path = { params: { path: { set_id: set } } }
      try {
        const found = await unwrap(
          api.POST('/api/sets/{set_id}/pages', {
            ...path,
            body: form as unknown as { file: string },
            bodySerializer: (body) => body as unknown as FormData,
          }),
        )
        const there = found.same ? `${found.same} there already` : ''
        const taken = found.new || !there ? `${found.new} ${found.new === 1 ? 'page' : 'pages'} taken in` : ''
        Object.assign(upload, { fate: 'taken', words: [taken, there].filter(Boolean).join(', ') })
        const all = await unwrap(api.GET('/api/sets/{set_id}/pages', path))
        if (this.set === set) this.pages = all.pages
      } catch (found) {
        Object.assign(upload, { fate: 'refused', words: troubleOf(found) })
      }
    },
    /** What became of all files, in a sentence. */
    tell() {
      const count = (fate: Upload['fate']): number => this.uploads.filter((each) => each.fate === fate).length
      const files = `${count('taken')} of ${this.uploads.length} ${this.uploads.length === 1 ? 'file' : 'files'} taken in`
      this.told = count('refused') ? `${files}; ${count('refused')} refused.` : `${files}.`
    },
    /** Says that the open page is not the one that it looks like. */
    isOther(): Promise<boolean> {
      const page = this.open?.id
      if (page === undefined) return Promise.resolve(false)
      return this.request.run(
        () => unwrap(api.POST('/api/pages/{page_id}/other', { params: { path: { page_id: page } } })),
        this.take,
      )
    },
    /** Says what a symbol is; once all of a line are told, the line is settled. */
    choose(line: PageLine, symbol: number, text: string): Promise<boolean> {
      this.chosen[`${line.at} ${symbol}`] = text
      const asked = line.symbols.flatMap((each, k) => (each.asks ? [k] : []))
      if (!asked.every((k) => `${line.at} ${k}` in this.chosen)) return Promise.resolve(true)
      const whole = line.symbols.map((each, k) => this.chosen[`${line.at} ${k}`] ?? each.text).join('')
      return this.settle(line.at, [whole])
    },
    /** What stands for a row; nothing where it is left out; null as it was read at first. */
    settle(at: number, texts: string[] | null): Promise<boolean> {
      const page = this.open?.id
      if (page === undefined) return Promise.resolve(false)
      for (const key of Object.keys(this.chosen))
        if (texts === null && key.startsWith(`${at} `)) delete this.chosen[key]
      return this.request.run(
        () =>
          unwrap(
            api.POST('/api/pages/{page_id}/settled', { params: { path: { page_id: page } }, body: { at, texts } }),
          ),
        this.take,
      )
    },
    giveTo(student: number | null): Promise<boolean> {
      const page = this.open?.id
      if (page === undefined) return Promise.resolve(false)
      return this.request.run(
        () =>
          unwrap(api.POST('/api/pages/{page_id}/student', { params: { path: { page_id: page } }, body: { student } })),
        this.take,
      )
    },
    readAgain(): Promise<boolean> {
      const page = this.open?.id
      if (page === undefined) return Promise.resolve(false)
      this.chosen = {}
      return this.request.run(
        () => unwrap(api.POST('/api/pages/{page_id}/again', { params: { path: { page_id: page } } })),
        this.take,
      )
    },
    remove(): Promise<boolean> {
      const page = this.open?.id
      if (page === undefined) return Promise.resolve(false)
      return this.request.run(async () => {
        await unwrap(api.DELETE('/api/pages/{page_id}', { params: { path: { page_id: page } } }))
        this.pages = this.pages.filter((each) => each.id !== page)
        this.open = null
      })
    },
  },
})

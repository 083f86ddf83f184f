import { defineStore } from 'pinia'
import { markRaw } from 'vue'
import { ApiError, api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'
import { lookAtRun, useRun } from '@/composables/useRun'
import { inBase64 } from '@/lib/files'
import { keep, kept } from '@/lib/keep'

export interface Layout {
  kind: 'sheet' | 'answers' | 'key' | 'choose' | 'mend' | 'fill' | 'way' | 'claim' | 'cards' | 'large'
  paper: 'a4' | 'letter'
  columns: number
  space: 'blank' | 'lines' | 'squares' | 'none'
  name_line: boolean
  reasons: boolean
  marks: boolean
  version: string
  /** The order of the items: 0 as they stand, else one of nine others. */
  order: number
}
export const USUAL: Layout = {
  kind: 'sheet',
  paper: 'a4',
  columns: 1,
  space: 'blank',
  name_line: true,
  reasons: false,
  marks: false,
  version: 'A',
  order: 0,
}

const asked = (layout: Layout): string =>
  String(new URLSearchParams(Object.entries(layout).map(([key, value]) => [key, String(value)])))

/** The pages of a sheet as they will print. The layout chosen last is kept in this browser. */
export const usePaper = defineStore('paper', {
  state: () => ({
    layout: { ...USUAL, ...kept<Partial<Layout>>('paper.layout') } as Layout,
    found: null as Schema['PreviewOut'] | null,
    advised: null as Schema['AdvisedOut'] | null,
    /** Minutes that there are; null where it does not matter. */
    lesson: kept<number>('paper.lesson'),
    /** The making of the items of a sheet that is under way. */
    making: markRaw(useRun()),
    request: useRequest('The server does not answer. Nothing of the sheet is lost; try again in a moment.'),
  }),
  getters: {
    /** The address of the PDF for what is shown. */
    address:
      (state) =>
      (sheet: number): string =>
        `/api/sheets/${sheet}/paper.pdf?${asked(state.layout)}`,
    /** The address of a picture of one page. */
    picture:
      (state) =>
      (sheet: number, number: number, form: string): string =>
        `/api/sheets/${sheet}/page?${asked(state.layout)}&number=${number}&form=${form}`,
  },
  actions: {
    /** What a careful colleague would say of the sheet. */
    async advise(sheet: number) {
      keep('paper.lesson', this.lesson)
      const query = this.lesson ? { lesson: this.lesson } : {}
      this.advised = await unwrap(
        api.GET('/api/sheets/{sheet_id}/advice', { params: { path: { sheet_id: sheet }, query } }),
      )
    },
    /** A new sheet from a file; the form is told by the ending of its name, of a text by its first line. */
    async take(file: File): Promise<Schema['TakenOut']> {
      const ending = /\.(\w+)$/.exec(file.name)?.[1]?.toLowerCase() ?? ''
      if (ending === 'zip')
        return unwrap(api.POST('/api/taken', { body: { form: 'qti', text: await inBase64(file), title: '' } }))
      const text = await file.text()
      const form =
        ending === 'txt' && /^\s*(#|task:)/.test(text)
          ? 'chain'
          : ((['chain', 'json', 'csv', 'tex', 'txt'] as const).find((each) => each === ending) ?? 'txt')
      const title = ['csv', 'tex', 'txt'].includes(form) ? file.name.replace(/\.[^.]*$/, '') : ''
      return unwrap(api.POST('/api/taken', { body: { form, text, title } }))
    },
    /** Mends what was said of an item; what stood there before, to be put back. */
    mend(sheet: number, item: number, how: string, seed: number): Promise<Schema['MendedOut']> {
      return unwrap(
        api.POST('/api/sheets/{sheet_id}/mended', {
          params: { path: { sheet_id: sheet } },
          body: { item, mend: how as 'replace', seed },
        }),
      )
    },
    /** Puts back what stood there before it was mended. */
    async putBack({ problem, before }: Schema['MendedOut']) {
      await unwrap(api.PUT('/api/problems/{problem_id}', { params: { path: { problem_id: problem } }, body: before }))
    },
    /** How a problem stands on paper: its form, or the words over it. */
    async setItem(problem: number, change: { form?: Schema['ProblemRow']['form']; instruction?: string }) {
      await unwrap(
        api.PATCH('/api/problems/{problem_id}', {
          params: { path: { problem_id: problem } },
          body: change as Schema['ProblemChange'],
        }),
      )
    },
    /** Another version of the sheet, as a sheet of its own. */
    version(sheet: number, name: string): Promise<Schema['VersionOut']> {
      return unwrap(
        api.POST('/api/sheets/{sheet_id}/versions', { params: { path: { sheet_id: sheet } }, body: { name, seed: 1 } }),
      )
    },
    show(sheet: number): Promise<boolean> {
      keep('paper.layout', this.layout)
      const query = { ...this.layout }
      const pages = (more: { quick?: boolean; so_far?: boolean }): Promise<Schema['PreviewOut']> =>
        unwrap(
          api.GET('/api/sheets/{sheet_id}/paper', {
            params: { path: { sheet_id: sheet }, query: { ...query, ...more } },
          }),
        )
      return this.request.run(
        async () => {
          try {
            return await pages({ quick: true })
          } catch (problem) {
            if (!(problem instanceof ApiError && problem.code === 'to-make')) throw problem
          }
          const begun = await unwrap(
            api.POST('/api/sheets/{sheet_id}/items', {
              params: { path: { sheet_id: sheet } },
              body: { kind: query.kind },
            }),
          )
          const made = await this.making.follow(begun, lookAtRun)
          return pages(made.ended ? {} : { so_far: true })
        },
        (found) => {
          this.found = found
        },
      )
    },
  },
})

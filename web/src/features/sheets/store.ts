import { defineStore } from 'pinia'
import { api, unwrap, type Problem, type ProblemRow, type Schema, type Sheet, type SheetRow } from '@/api/client'
import { asBody, type Conventions } from '@/lib/conventions'
import { forgetCopies, withCopy } from '@/lib/copies'
import { keep, kept } from '@/lib/keep'
import type { Numbers, Task } from '@/lib/tasks'

/** The list of sheets, and the one that is open with its problems. */
export const useSheets = defineStore('sheets', {
  state: () => ({
    rows: [] as SheetRow[],
    more: false,
    all: 0,
    page: 1,
    sheet: null as Sheet | null,
    colleagues: [] as Schema['Colleague'][],
  }),
  getters: {
    decimal: (state): 'point' | 'comma' => (state.sheet?.conventions.decimal === 'comma' ? 'comma' : 'point'),
  },
  actions: {
    /** The first page of the sheets with this in their title, or the next one below those that stand there. */
    async list(search = '', page = 1) {
      const found = await unwrap(api.GET('/api/sheets', { params: { query: { search, page } } }))
      this.rows = page === 1 ? found.sheets : [...this.rows, ...found.sheets]
      this.page = page
      this.more = found.more
      this.all = found.all
    },
    async loadColleagues() {
      this.colleagues = await unwrap(api.GET('/api/colleagues'))
    },
    async giveCopy(id: number, username: string, workings: boolean) {
      await unwrap(
        api.POST('/api/sheets/{sheet_id}/copies', { params: { path: { sheet_id: id } }, body: { username, workings } }),
      )
    },
    async open(id: number) {
      if (this.sheet?.id !== id) this.sheet = null
      const found = await withCopy(`sheet.${id}`, () =>
        unwrap(api.GET('/api/sheets/{sheet_id}', { params: { path: { sheet_id: id } } })),
      )
      // of the sheet that is open alone a copy is kept, with the problems that were opened
      if (kept<number>('copy.open') !== id) {
        forgetCopies('problem.')
        forgetCopies('sheet.')
        keep('copy.open', id)
        keep(`copy.sheet.${id}`, found)
      }
      this.sheet = found
    },
    async create(title: string): Promise<number> {
      const sheet = await unwrap(api.POST('/api/sheets', { body: { title } }))
      return sheet.id
    },
    async rename(id: number, title: string) {
      await unwrap(api.PATCH('/api/sheets/{sheet_id}', { params: { path: { sheet_id: id } }, body: { title } }))
      if (this.sheet?.id === id) this.sheet.title = title
    },
    async setConventions(chosen: Conventions) {
      this.sheet = await unwrap(
        api.PATCH('/api/sheets/{sheet_id}', {
          params: { path: { sheet_id: this.sheet!.id } },
          body: { conventions: asBody(chosen) },
        }),
      )
    },
    async setUntaught(untaught: string[]) {
      this.sheet = await unwrap(
        api.PATCH('/api/sheets/{sheet_id}', { params: { path: { sheet_id: this.sheet!.id } }, body: { untaught } }),
      )
    },
    async remove(id: number) {
      await unwrap(api.DELETE('/api/sheets/{sheet_id}', { params: { path: { sheet_id: id } } }))
      this.rows = this.rows.filter((row) => row.id !== id)
    },
    async addProblem(task: Task, given: string, variable: string, numbers: Numbers, method: string): Promise<Problem> {
      const problem = await unwrap(
        api.POST('/api/sheets/{sheet_id}/problems', {
          params: { path: { sheet_id: this.sheet!.id } },
          body: { task, given, variable, numbers, method },
        }),
      )
      await this.open(this.sheet!.id)
      return problem
    },
    async changeProblem(
      id: number,
      task: Task,
      given: string,
      variable: string,
      numbers: Numbers,
      method: string,
    ): Promise<Problem> {
      const problem = await unwrap(
        api.PATCH('/api/problems/{problem_id}', {
          params: { path: { problem_id: id } },
          body: { task, given, variable, numbers, method },
        }),
      )
      await this.open(this.sheet!.id)
      return problem
    },
    async copyProblem(id: number): Promise<Problem> {
      const problem = await unwrap(
        api.POST('/api/problems/{problem_id}/copy', { params: { path: { problem_id: id } } }),
      )
      await this.open(this.sheet!.id)
      return problem
    },
    async removeProblem(id: number) {
      await unwrap(api.DELETE('/api/problems/{problem_id}', { params: { path: { problem_id: id } } }))
      await this.open(this.sheet!.id)
    },
    async reorder(order: number[]) {
      const sheet = this.sheet!
      sheet.problems.sort((a, b) => order.indexOf(a.id) - order.indexOf(b.id))
      this.sheet = await unwrap(
        api.PUT('/api/sheets/{sheet_id}/order', {
          params: { path: { sheet_id: sheet.id } },
          body: { problems: order },
        }),
      )
    },
    /** Brings the row of a problem up to date with what its working has become. */
    follow(problem: Problem) {
      const row = this.sheet?.problems.find((each) => each.id === problem.id)
      if (row) Object.assign(row, rowState(problem))
    },
  },
})

function rowState(problem: Problem): Pick<ProblemRow, 'beads' | 'verdict' | 'finished' | 'owed' | 'slips'> {
  const { links, answer, finish, owed } = problem.report
  return {
    beads: links.map(({ kind, relation }) => ({ kind, relation })),
    verdict: answer.verdict,
    finished: finish.finished,
    owed: owed.length,
    slips: [
      ...new Map(
        links.flatMap(({ slip }) => (slip ? [[slip.id, { id: slip.id, name: slip.name }] as const] : [])),
      ).values(),
    ],
  }
}

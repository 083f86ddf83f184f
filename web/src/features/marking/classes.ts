import { defineStore } from 'pinia'
import { api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'

export type ClassRow = Schema['ClassRow']

/**
 * Names as a register has them, one a line; a number of the school stands behind a semicolon, a tab or in front with a
 * dot.
 */
export function studentsIn(text: string): Schema['StudentIn'][] {
  return text
    .split('\n')
    .map((row) => row.trim())
    .filter(Boolean)
    .map((row) => {
      const [name = '', number = ''] = row.split(/\s*[;\t]\s*/)
      return { name, number }
    })
}

/** The classes of a teacher. */
export const useClasses = defineStore('classes', {
  state: () => ({
    classes: null as ClassRow[] | null,
    open: null as Schema['ClassOut'] | null,
    sheets: [] as Schema['SheetRow'][],
    colleagues: [] as Schema['Colleague'][],
    request: useRequest('The server does not answer. Nothing was changed; try again in a moment.'),
  }),
  actions: {
    load(): Promise<boolean> {
      return this.request.run(async () => {
        this.classes = await unwrap(api.GET('/api/classes'))
        const sheets: Schema['SheetRow'][] = []
        for (let page = 1, more = true; more; page++) {
          const found = await unwrap(api.GET('/api/sheets', { params: { query: { page } } }))
          sheets.push(...found.sheets)
          more = found.more
        }
        this.sheets = sheets
        this.colleagues = await unwrap(api.GET('/api/colleagues'))
      })
    },
    show(id: number): Promise<boolean> {
      return this.request.run(
        () => unwrap(api.GET('/api/classes/{class_id}', { params: { path: { class_id: id } } })),
        (found) => (this.open = found),
      )
    },
    make(name: string, names: string): Promise<boolean> {
      return this.request.run(async () => {
        this.open = await unwrap(api.POST('/api/classes', { body: { name, students: studentsIn(names) } }))
        this.classes = await unwrap(api.GET('/api/classes'))
      })
    },
    change(change: {
      name?: string
      archived?: boolean
      regional?: Schema['Regional']
      students?: Schema['StudentIn'][]
    }): Promise<boolean> {
      const id = this.open?.id
      if (id === undefined) return Promise.resolve(false)
      const path = { class_id: id }
      return this.request.run(
        async () => ({
          open: await unwrap(
            api.PATCH('/api/classes/{class_id}', { params: { path }, body: { students: [], ...change } }),
          ),
          classes: await unwrap(api.GET('/api/classes')),
        }),
        (found) => Object.assign(this, found), // of several changes at once the last one's answer
      )
    },
    end(): Promise<boolean> {
      const id = this.open?.id
      if (id === undefined) return Promise.resolve(false)
      return this.request.run(async () => {
        await unwrap(api.DELETE('/api/classes/{class_id}', { params: { path: { class_id: id } } }))
        this.open = null
        this.classes = await unwrap(api.GET('/api/classes'))
      })
    },
    handOver(username: string): Promise<boolean> {
      const id = this.open?.id
      if (id === undefined) return Promise.resolve(false)
      return this.request.run(async () => {
        await unwrap(
          api.POST('/api/classes/{class_id}/handed-over', { params: { path: { class_id: id } }, body: { username } }),
        )
        this.open = null
        this.classes = await unwrap(api.GET('/api/classes'))
      })
    },
    /** Another name or number of a student, or another class; the class that is open is shown as it is then. */
    changeStudent(student: number, change: Partial<Schema['StudentChange']>): Promise<boolean> {
      return this.request.run(async () => {
        await unwrap(
          api.PATCH('/api/students/{student_id}', { params: { path: { student_id: student } }, body: change }),
        )
        if (this.open)
          this.open = await unwrap(api.GET('/api/classes/{class_id}', { params: { path: { class_id: this.open.id } } }))
        this.classes = await unwrap(api.GET('/api/classes'))
      })
    },
    erase(student: number): Promise<boolean> {
      return this.request.run(async () => {
        await unwrap(api.DELETE('/api/students/{student_id}', { params: { path: { student_id: student } } }))
        if (this.open)
          this.open = await unwrap(api.GET('/api/classes/{class_id}', { params: { path: { class_id: this.open.id } } }))
      })
    },
    /** Gives the open class a sheet; the number of the set, or null where that failed. */
    async give(sheet: number, day: string, scheme: Schema['SetIn']['scheme']): Promise<number | null> {
      const id = this.open?.id
      let made: number | null = null
      if (id === undefined) return made
      await this.request.run(async () => {
        const set = await unwrap(
          api.POST('/api/classes/{class_id}/sets', {
            params: { path: { class_id: id } },
            body: { sheet, day, scheme, title: '' },
          }),
        )
        made = set.id
      })
      return made
    },
  },
})

import { createPinia, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import type { Schema } from '@/api/client'
import { rest } from '@/lib/outbox'

/** For tests: a server that says what it is told to, remembers what it was asked, and can be out of reach. */
export type Says = unknown | ((body: unknown, request: Request) => unknown)

/** What it says to “METHOD /path”. */
export const says: Record<string, Says> = {}
/** What it was asked, in order. */
export const asked: { what: string; body: unknown }[] = []
/** Whether it can be reached. */
export const line = { down: false }

async function answer(request: Request): Promise<Response> {
  if (line.down) throw new TypeError('no connection')
  const { pathname } = new URL(request.url)
  const what = `${request.method} ${pathname}`
  const body = request.method === 'GET' || request.method === 'DELETE' ? null : await request.json().catch(() => null)
  asked.push({ what, body })
  const found = says[what]
  if (found === undefined) return Response.json({ detail: `nobody knows ${what}` }, { status: 404 })
  const given =
    typeof found === 'function' ? await (found as (b: unknown, r: Request) => unknown)(body, request) : found
  return given instanceof Response ? given : Response.json(given)
}

/** A server that knows nothing yet, an empty browser store, new stores of the application. */
export function beginAnew(): void {
  for (const key of Object.keys(says)) delete says[key]
  asked.length = 0
  line.down = false
  rest()
  localStorage.clear()
  setActivePinia(createPinia())
  vi.stubGlobal('fetch', (input: Request) => answer(input))
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe(): void {}
      disconnect(): void {}
      unobserve(): void {}
    },
  )
  Element.prototype.scrollIntoView = () => {}
}

/** The bodies sent to one place. */
export function sentTo(what: string): unknown[] {
  return asked.filter((each) => each.what === what).map((each) => each.body)
}

export const person = (username: string, name: string, more: object = {}) => ({
  id: 1,
  username,
  name,
  teaches: true,
  manages: false,
  new_password: false,
  reset: null as { who: string; when: string } | null,
  second_factor: false,
  needs_second_factor: false,
  regional: { decimal: null, dates: null, week: null } as Schema['Regional'],
  in_force: { decimal: 'point', dates: 'day-first', week: 'monday' } as Schema['InForce'],
  ...more,
})
export const sheetList = (rows: object[], more = false) => ({ sheets: rows, more, all: rows.length })
export const echo = (left: string, more: object = {}) => ({
  left,
  right: '',
  kind: 'equation',
  plain: left,
  prefix: '',
  move: '',
  remark: '',
  notes: [],
  error: null,
  ...more,
})
export const unread = (message: string, column: number) => ({
  ...echo(''),
  error: { line: 0, column, message, code: 'syntax' },
})
export const link = (at: number, relation: string | null, more: object = {}) => ({
  line: at,
  relation,
  kind: 'equation',
  move: null,
  gained: [],
  lost: [],
  reasons: {},
  excluded: [],
  slip: null,
  other_slips: [],
  evidence: null,
  notes: [],
  conditions: [],
  error: null,
  ...more,
})
export const step = (text: string, more: object = {}) => ({
  text,
  kind: 'line',
  name: 'Add to both sides',
  reason: 'undo the minus',
  before_echo: echo(`before ${text}`),
  after_echo: echo(text),
  side_work: [],
  excluded: [],
  lurking: [],
  noticed: [],
  ...more,
})
export const difficulty = (rating: number) => ({
  rating,
  parts: { steps: 2, search: 0, numbers: 1, noticing: 0, length: 1 },
  noticed: ['a minus'],
})
export const method = (id: string, ...texts: string[]) => ({
  method: id,
  name: `By ${id}`,
  description: `What ${id} does.`,
  searches: 'nothing',
  answer: ['7'],
  steps: texts.map((text) => step(text)),
  difficulty: difficulty(3),
  not_yet: [] as string[],
})

/** A problem as the API gives it, with these lines, all of which hold. */
export function problem(
  lines: string[],
  more: {
    finished?: boolean
    links?: object[]
    report?: object
    task?: string
    id?: number
    given?: string
    tints?: object[]
  } = {},
) {
  const { finished = false, links, report, task = 'solve', id = 3, given = 'x - 2 = 5', tints = [] } = more
  return {
    id,
    sheet: 1,
    position: 0,
    task,
    given,
    variable: '',
    numbers: 'real',
    method: '',
    given_echo: echo('x - 2', { right: '= 5' }),
    revision: 0,
    lines: lines.map((text) => ({ text, echo: echo(text) })),
    report: {
      links: links ?? lines.map((_, k) => link(k + 1, 'holds')),
      owed: [],
      excluded: [],
      error: null,
      answer: {
        verdict: finished ? 'correct' : 'none',
        text: finished ? 'The answer is right.' : 'There is no answer yet.',
      },
      finish: { finished, remaining: [] },
      ...report,
    },
    tints,
  }
}
export const row = (id: number, more: object = {}) => ({
  id,
  position: 0,
  task: 'solve',
  given: `x = ${id}`,
  given_latex: `x = ${id}`,
  beads: [],
  difficulty: 2.5,
  verdict: 'none',
  finished: false,
  owed: 0,
  slips: [],
  ...more,
})
export const sheet = (...ids: number[]) => ({
  id: 1,
  title: 'Roots',
  conventions: {},
  untaught: [] as string[],
  problems: ids.map((id) => row(id)),
})

/** A key as one presses it. */
export const key = (name: string, more: object = {}) => ({ key: name, bubbles: true, cancelable: true, ...more })
/** What the session says of the server's versions. */
export const VERSIONS = { version: '0.6.0', core: '16' }

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useHome } from './home'
import { useRoom } from './store'
import type { MyItem } from '@/features/items/answer'
import { beginAnew, echo } from '@/testing/server'

/**
 * A room on a server that keeps what it gets as the real one does, behind a line that is cut at one request: before it
 * arrives, or before its answer does.
 */
const kept = new Map<number, { lines: string[]; revision: number }>()
const arrived: string[] = []
const cut = { at: -1, after: false, count: 0 }
const news = { tells: 'line', hints: 0, paused: '', nudge: '', closes: null, over: false, ask: null }
const told = (id: number) => {
  const { lines, revision } = kept.get(id) ?? { lines: [], revision: 0 }
  return {
    revision,
    lines,
    echoes: lines.map((each) => echo(each)),
    told: lines.map(() => ({ verdict: 'holds', words: '', right: '' })),
    answered: false,
    hints: 0,
  }
}
const item = (id: number) => ({
  id,
  number: id - 10,
  task: 'solve',
  instruction: 'Solve.',
  given: '3x = 6',
  given_latex: '3x = 6',
  form: null,
  working: kept.has(id) ? told(id) : null,
})
const room = () => ({ ...news, title: 'Thursday', student: 'Ada', decimal: 'point', items: [item(11), item(12)] })
const task = () => ({
  id: 4,
  against: 'Sign',
  decimal: 'point',
  instruction: 'Solve.',
  given_latex: '3x',
  done: false,
  working: told(4),
})

function put(id: number, body: { lines: string[]; revision: number }): Response {
  const stands = kept.get(id) ?? { lines: [], revision: 0 }
  if (JSON.stringify(stands.lines) !== JSON.stringify(body.lines)) {
    if (body.revision !== stands.revision)
      return Response.json({ code: 'conflict', detail: 'Changed.', ...stands }, { status: 409 })
    kept.set(id, { lines: body.lines, revision: stands.revision + 1 })
    arrived.push(`${id}: ${body.lines.join('; ')}`)
  }
  return Response.json(id === 4 ? task() : { ...news, item: id, working: told(id) })
}
async function answer(request: Request): Promise<Response> {
  const isCut = cut.count++ === cut.at
  if (isCut && !cut.after) throw new TypeError('cut')
  const path = new URL(request.url).pathname
  const number = Number(/\d+$/.exec(path)?.[0])
  const given =
    request.method === 'PUT'
      ? put(number, await request.json())
      : Response.json(
          path === '/api/room/home'
            ? { student: 'Ada', school_class: 'A', sets: [], slips: [], next: task() }
            : path === '/api/room/news'
              ? news
              : room(),
        )
  if (isCut) throw new TypeError('cut')
  return given
}
beforeEach(() => {
  beginAnew()
  kept.clear()
  arrived.length = 0
  vi.useFakeTimers()
  vi.stubGlobal('fetch', (input: Request) => answer(input))
})
afterEach(() => vi.useRealTimers())

describe.each(
  Array.from({ length: 9 }, (_, at) => [at, false] as [number, boolean]).concat(
    Array.from({ length: 9 }, (_, at) => [at, true] as [number, boolean]),
  ),
)('the line is cut at request %i, its answer alone: %s', (at, after) => {
  beforeEach(() => void Object.assign(cut, { at, after, count: 0 }))
  const settle = () => vi.advanceTimersByTimeAsync(20_000)

  it('every line of two problems arrives once, in order, and nothing is overtaken', async () => {
    const store = useRoom()
    while (!(await store.resume())) await settle()
    const first = (id: number) => store.room!.items.find((each) => each.id === id) as MyItem
    for (const [id, lines] of [
      [11, ['a']],
      [11, ['a', 'b']],
      [12, ['c']],
      [11, ['a', 'b', 'd']],
      [12, ['c', 'e']],
    ] as [number, string[]][]) {
      store.write(first(id), lines)
      await vi.advanceTimersByTimeAsync(id === 12 ? 0 : 50) // some are typed while the one before is under way
    }
    await settle()
    expect([kept.get(11)!.lines, kept.get(12)!.lines]).toEqual([
      ['a', 'b', 'd'],
      ['c', 'e'],
    ])
    expect([store.waiting, store.overtaken]).toEqual([0, {}])
    expect(new Set(arrived).size).toBe(arrived.length)
    const left = Object.keys(localStorage).filter((each) => !each.includes('later'))
    expect(left).toEqual(['uchuu.copy.room']) // for a reload without a connection
  })
  it('at home too', async () => {
    const store = useHome()
    while (!(await store.load())) await settle()
    store.write(['a'])
    await vi.advanceTimersByTimeAsync(50)
    store.write(['a', 'b'])
    await settle()
    expect(kept.get(4)!.lines).toEqual(['a', 'b'])
    expect(new Set(arrived).size).toBe(arrived.length)
    expect(store.unsent).toBeNull()
  })
})

import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useChain } from './store'
import { keep, kept } from '@/lib/keep'

/** A small server: one problem with lines under a revision, as the API keeps it. */
const server = { revision: 0, lines: [] as string[], down: false, puts: 0, refuses: '' }

function problem(id: number) {
  const echo = {
    kind: 'equation',
    left: '',
    right: '',
    plain: '',
    prefix: '',
    move: '',
    remark: '',
    notes: [],
    error: null,
  }
  const links = server.lines.map((_, k) => ({ line: k + 1, relation: 'holds', kind: 'equation' }))
  return {
    id,
    sheet: 1,
    position: 0,
    task: 'solve',
    given: 'x = 1',
    variable: '',
    numbers: 'real',
    given_echo: echo,
    revision: server.revision,
    lines: server.lines.map((text) => ({ text, echo })),
    report: { links, owed: [], answer: { verdict: 'none' }, finish: { finished: false, remaining: [] }, excluded: [] },
  }
}

async function answer(request: Request): Promise<Response> {
  if (server.down) throw new TypeError('no connection')
  if (request.method === 'PUT') {
    server.puts++
    if (server.refuses) return Response.json({ detail: server.refuses }, { status: 422 })
    const body = (await request.json()) as { revision: number; lines: string[] }
    if (body.revision !== server.revision) {
      const conflict = { code: 'conflict', detail: 'changed', revision: server.revision, lines: server.lines }
      return Response.json(conflict, { status: 409 })
    }
    server.revision++
    server.lines = body.lines
  }
  return Response.json(problem(Number(/problems\/(\d+)/.exec(request.url)?.[1])))
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  Object.assign(server, { revision: 0, lines: ['x = 2'], down: false, puts: 0, refuses: '' })
  localStorage.clear()
  setActivePinia(createPinia())
  vi.stubGlobal('fetch', (input: Request) => answer(input))
})

describe('the chain', () => {
  it('saves every committed line at once and knows which lines are judged', async () => {
    const chain = useChain()
    await chain.open(7)
    chain.insert(1, 'x = 3')
    expect(chain.judged).toBe(false)
    expect(chain.linkAt(0)?.relation).toBe('holds')
    expect(chain.linkAt(1)).toBeNull()
    await chain.flush()
    expect(server.lines).toEqual(['x = 2', 'x = 3'])
    expect([chain.state, chain.judged]).toEqual(['saved', true])
    expect(kept('pending.7')).toBeNull()
  })

  it('undoes, redoes and moves lines, each saved', async () => {
    const chain = useChain()
    await chain.open(7)
    chain.insert(1, 'x = 3')
    expect(chain.move(1, -1)).toBe(0)
    expect(chain.lines).toEqual(['x = 3', 'x = 2'])
    chain.undo()
    chain.undo()
    expect(chain.lines).toEqual(['x = 2'])
    chain.redo()
    await chain.flush()
    expect(server.lines).toEqual(['x = 2', 'x = 3'])
    expect(chain.move(0, -1)).toBe(0)
  })

  it('keeps what could not be sent and sends it when the connection is back', async () => {
    const chain = useChain()
    await chain.open(7)
    server.down = true
    chain.replace(0, 'x = 5')
    await chain.flush()
    expect(chain.state).toBe('offline')
    expect(kept('pending.7')).toEqual({ revision: 0, lines: ['x = 5'] })
    server.down = false
    await vi.advanceTimersByTimeAsync(4000)
    await chain.flush()
    expect([server.lines, chain.state]).toEqual([['x = 5'], 'saved'])
  })

  it('never overwrites another window silently', async () => {
    const chain = useChain()
    await chain.open(7)
    Object.assign(server, { revision: 4, lines: ['x = 9'] })
    chain.replace(0, 'x = 5')
    await chain.flush()
    expect([chain.state, chain.theirs?.lines, server.lines]).toEqual(['conflict', ['x = 9'], ['x = 9']])
    await chain.resolve('mine')
    await chain.flush()
    expect([server.lines, chain.state]).toEqual([['x = 5'], 'saved'])
  })

  it('sends nothing while the conflict stands, and all of it afterwards', async () => {
    const chain = useChain()
    await chain.open(7)
    Object.assign(server, { revision: 4, lines: ['x = 9'] })
    chain.replace(0, 'x = 5')
    await chain.flush()
    const sent = server.puts
    chain.insert(1, 'x = 6')
    chain.undo()
    chain.redo()
    await vi.advanceTimersByTimeAsync(10_000)
    expect([server.puts, chain.state, server.lines]).toEqual([sent, 'conflict', ['x = 9']])
    await chain.resolve('mine')
    await chain.flush()
    expect(server.lines).toEqual(['x = 5', 'x = 6'])
  })

  it.each([
    [422, 'refused', false],
    [400, 'refused', false],
    [499, 'refused', false],
    [500, 'offline', true],
    [503, 'offline', true],
  ])('a status %i is taken as %s', async (status, state, again) => {
    const chain = useChain()
    await chain.open(7)
    vi.stubGlobal('fetch', () => Promise.resolve(Response.json({ detail: 'No.' }, { status })))
    chain.replace(0, 'x = 5')
    await chain.flush()
    expect(chain.state).toBe(state)
    expect(chain.trouble).toBe(again ? '' : 'No.')
    vi.stubGlobal('fetch', (input: Request) => answer(input))
    await vi.advanceTimersByTimeAsync(4000)
    expect(server.lines).toEqual(again ? ['x = 5'] : ['x = 2'])
  })

  it('takes the lines of the other window when asked to', async () => {
    const chain = useChain()
    await chain.open(7)
    Object.assign(server, { revision: 4, lines: ['x = 9'] })
    chain.remove(0)
    await chain.flush()
    await chain.resolve('theirs')
    expect([chain.lines, chain.state]).toEqual([['x = 9'], 'saved'])
  })

  it('sends what is not saved yet before another problem is opened', async () => {
    const chain = useChain()
    await chain.open(7)
    server.down = true
    chain.insert(1, 'x = 4')
    await chain.flush()
    server.down = false
    await chain.open(8)
    expect([server.puts, server.lines, chain.problem?.id]).toEqual([1, ['x = 2', 'x = 4'], 8])
  })

  it('sends nothing where nothing has changed', async () => {
    const chain = useChain()
    await chain.open(7)
    chain.replace(0, 'x = 2')
    expect([chain.move(0, 1), chain.move(0, -1)]).toEqual([0, 0])
    await chain.flush()
    await chain.open(7)
    expect(server.puts).toBe(0)
  })

  it('fills the paper as one change, which one step takes back', async () => {
    const chain = useChain()
    await chain.open(7)
    chain.fill(['x = 3', 'x = 4'])
    await chain.flush()
    expect(server.lines).toEqual(['x = 3', 'x = 4'])
    chain.undo()
    await chain.flush()
    expect(server.lines).toEqual(['x = 2'])
  })

  it.each([
    [
      'lines that were written without a connection are sent when the problem is opened again',
      ['x = 6'],
      0,
      1,
      'saved',
      ['x = 6'],
    ],
    ['lines that had arrived all the same are let go', ['x = 2'], 0, 0, 'saved', ['x = 2']],
    ['one line more is a difference', ['x = 2', 'x = 6'], 0, 1, 'saved', ['x = 2', 'x = 6']],
    ['lines from before another window’s are shown, and not sent', ['x = 6'], -1, 0, 'conflict', ['x = 2']],
  ] as const)('%s', async (_, lines, revision, puts, state, keptThere) => {
    keep('pending.7', { revision, lines })
    const chain = useChain()
    await chain.open(7)
    await chain.flush()
    expect([server.puts, chain.state, server.lines, chain.lines]).toEqual([puts, state, keptThere, lines])
    expect(chain.theirs?.lines).toEqual(state === 'conflict' ? ['x = 2'] : undefined)
    expect(kept('pending.7') === null).toBe(state === 'saved')
  })

  it('says why the server refuses a line, until one is taken', async () => {
    const chain = useChain()
    await chain.open(7)
    server.refuses = 'The line is too long.'
    chain.replace(0, 'x = 5')
    await chain.flush()
    expect([chain.state, chain.trouble, chain.lines]).toEqual(['refused', 'The line is too long.', ['x = 5']])
    server.refuses = ''
    chain.replace(0, 'x = 6')
    await chain.flush()
    expect([chain.state, chain.trouble, server.lines]).toEqual(['saved', '', ['x = 6']])
  })

  it('a change made elsewhere can be undone like one’s own', async () => {
    const chain = useChain()
    await chain.open(7)
    Object.assign(server, { revision: 3, lines: ['x = 9'] })
    await chain.open(7)
    chain.undo()
    await chain.flush()
    expect(server.lines).toEqual(['x = 2'])
  })

  it('nothing is resolved where nothing is in conflict', async () => {
    const chain = useChain()
    await chain.open(7)
    await chain.resolve('mine')
    await chain.flush()
    expect([chain.state, server.puts]).toEqual(['saved', 0])
  })
})

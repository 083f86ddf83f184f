import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useChain } from './store'
import { kept } from '@/lib/keep'

/** A small server: one problem with lines under a revision, as the API keeps it. */
const server = { revision: 0, lines: [] as string[], down: false, puts: 0 }

function problem() {
  const echo = { kind: 'equation', left: '', right: '', plain: '', prefix: '', move: '', remark: '', notes: [], error: null }
  const links = server.lines.map((_, k) => ({ line: k + 1, relation: 'holds', kind: 'equation' }))
  return {
    id: 7, sheet: 1, position: 0, task: 'solve', given: 'x = 1', variable: '', numbers: 'real', given_echo: echo,
    revision: server.revision,
    lines: server.lines.map((text) => ({ text, echo })),
    report: { links, owed: [], answer: { verdict: 'none' }, finish: { finished: false, remaining: [] }, excluded: [] },
  }
}

async function answer(request: Request): Promise<Response> {
  if (server.down) throw new TypeError('no connection')
  if (request.method === 'PUT') {
    server.puts++
    const body = (await request.json()) as { revision: number; lines: string[] }
    if (body.revision !== server.revision) {
      const conflict = { code: 'conflict', detail: 'changed', revision: server.revision, lines: server.lines }
      return Response.json(conflict, { status: 409 })
    }
    server.revision++
    server.lines = body.lines
  }
  return Response.json(problem())
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  Object.assign(server, { revision: 0, lines: ['x = 2'], down: false, puts: 0 })
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

  it('takes the lines of the other window when asked to', async () => {
    const chain = useChain()
    await chain.open(7)
    Object.assign(server, { revision: 4, lines: ['x = 9'] })
    chain.remove(0)
    await chain.flush()
    await chain.resolve('theirs')
    expect([chain.lines, chain.state]).toEqual([['x = 9'], 'saved'])
  })
})

import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, onTestFinished, vi } from 'vitest'
import { ApiError, api, unwrap } from '@/api/client'
import { keep, kept } from '@/lib/keep'
import { writeAs } from '@/lib/regional'
import { FORESEEN, useBoard } from './board/store'
import { useMethods } from './methods/store'
import { useNextStep } from './next/store'
import { useProofs } from './proofs/store'
import { useSession } from './session/store'
import { useSheets } from './sheets/store'
import {
  asked,
  beginAnew,
  echo,
  line,
  link,
  method,
  problem,
  says,
  sentTo,
  sheetList,
  VERSIONS,
} from '@/testing/server'

beforeEach(beginAnew)

describe('unwrap', () => {
  it.each([
    [400, { detail: 'The given must be an equation.' }, 'The given must be an equation.'],
    [422, { detail: [{ msg: 'too long' }, { msg: 'too late' }] }, 'too long too late'],
    [401, { detail: null }, 'You are logged out. Log in again; nothing is lost.'],
    [500, {}, 'The server answered with an error (500).'],
  ])('says what a refusal with %i means', async (status, body, message) => {
    says['GET /api/sheets'] = () => Response.json(body, { status })
    await expect(unwrap(api.GET('/api/sheets'))).rejects.toThrow(message)
    await expect(unwrap(api.GET('/api/sheets'))).rejects.toBeInstanceOf(ApiError)
  })
  it('sends the CSRF token with every change, and with no reading', async () => {
    document.cookie = 'uchuu_csrf=abc'
    const tokens: (string | null)[] = []
    const note = (_: unknown, request: Request) => {
      tokens.push(request.headers.get('X-CSRFToken'))
      return { id: 1 }
    }
    Object.assign(says, { 'GET /api/sheets': note, 'POST /api/sheets': note })
    await api.GET('/api/sheets')
    await api.POST('/api/sheets', { body: { title: 'A' } })
    expect(tokens).toEqual([null, 'abc'])
  })
})

describe('the methods', () => {
  const path = 'GET /api/problems/3/methods'
  it('keep the chosen one within what there is', async () => {
    const methods = useMethods()
    says[path] = { methods: [method('undo', 'x = 7'), method('formula', 'a', 'b', 'c')] }
    await methods.load(3)
    methods.choose(1, 9)
    expect([methods.chosen, methods.at]).toEqual([1, 2])
    methods.choose(5)
    methods.choose(-1)
    expect(methods.chosen).toBe(1)
    says[path] = { methods: [method('undo', 'x = 7')] }
    await methods.load(3)
    expect([methods.chosen, methods.at]).toEqual([0, 0])
  })
  it('drop an answer that was overtaken', async () => {
    const methods = useMethods()
    let release = (): void => {}
    says[path] = () => new Promise((done) => (release = () => done({ methods: [method('late', 'x')] })))
    const first = methods.load(3)
    await vi.waitFor(() => expect(asked).toHaveLength(1))
    const late = release
    says[path] = { methods: [method('new', 'x')] }
    await methods.load(3)
    late()
    await first
    expect(methods.found?.methods[0]?.method).toBe('new')
    expect(methods.waiting).toBe(false)
  })
  it('say when the server does not answer, and what it refuses', async () => {
    const methods = useMethods()
    line.down = true
    await methods.load(3)
    expect(methods.trouble).toBe('The server does not answer.')
    line.down = false
    await methods.load(3)
    expect(methods.trouble).toContain('nobody knows')
    expect(methods.found).toBeNull()
  })
})

describe('the next step', () => {
  const path = 'POST /api/problems/3/next-step'
  it('is told in three stages, then written, then asked for anew', async () => {
    const next = useNextStep()
    says[path] = { step: { text: 'x = 7   | +2' } }
    const told = []
    for (let k = 0; k < 4; k++) told.push([await next.more(3, []), next.stage])
    expect(told).toEqual([
      [null, 1],
      [null, 2],
      [null, 3],
      ['x = 7   | +2', 0],
    ])
    expect(asked).toHaveLength(1)
    expect(next.hint).toBeNull()
  })
  it('begins again when the lines have changed', async () => {
    const next = useNextStep()
    says[path] = (body: unknown) => ({ step: { text: String((body as { lines: string[] }).lines.length) } })
    await next.more(3, [])
    await next.more(3, [])
    await next.more(3, ['x = 7'])
    expect([next.stage, next.hint?.step?.text]).toEqual([1, '1'])
  })
  it('has nothing to write where no step is known, and says when there is no connection', async () => {
    const next = useNextStep()
    says[path] = { step: null }
    await next.more(3, [])
    expect(await next.more(3, [])).toBeNull()
    line.down = true
    await next.more(3, ['other'])
    expect(next.trouble).toBe('The server does not answer.')
  })
})

describe('the board', () => {
  const open = (lines: string[], finished: boolean, ...ways: ReturnType<typeof method>[]) =>
    Object.assign(says, {
      'GET /api/problems/3': problem(lines, { finished }),
      'GET /api/problems/3/methods': { methods: ways },
      'POST /api/check/echo': (body: unknown) => echo((body as { text: string }).text),
      'POST /api/check': (body: unknown) => ({
        links: (body as { lines: string[] }).lines.map((text, k) => ({
          line: k + 1,
          kind: 'equation',
          relation: text.includes('3') ? 'breaks' : 'holds',
          slip: null,
          error: null,
          evidence: text.includes('3') ? { text: 'x = 7 solves the line before.', plain: null } : null,
        })),
      }),
    })

  it.each([
    ['a finished working of one’s own', ['x = 7'], true, '', 'own'],
    ['the first method while the own is unfinished', ['x = 7'], false, '', 'undo'],
    ['the one that was asked for', ['x = 7'], true, 'formula', 'formula'],
    ['a method where a wrong way was foreseen', ['x = 7'], true, FORESEEN, 'undo'],
  ])('starts with %s', async (_, lines, finished, start, source) => {
    open(lines, finished, method('undo', 'x = 7'), method('formula', 'x = 7'))
    const board = useBoard()
    await board.load(3, start)
    expect(board.source).toBe(source)
    expect(board.sources.map((each) => each.id)).toEqual(['own', 'undo', 'formula'])
    expect(board.lines[0]?.left).toBe('x = 7')
  })
  it('starts with one’s own lines, finished or not, where no method is known', async () => {
    open(['x = 7'], false)
    const board = useBoard()
    expect([board.sources, board.lines, board.givenLatex]).toEqual([[], [], ''])
    await board.load(3, '')
    expect([board.source, board.sources.map((each) => each.name), board.trouble]).toEqual(['own', ['my lines'], ''])
    expect(board.givenLatex).toBe('x - 2 = 5')
  })
  it('shows no lines of a method that is not there', async () => {
    open(['x = 7'], true, method('undo', 'x = 7'))
    const board = useBoard()
    await board.load(3, 'gone')
    expect(board.lines).toEqual([])
  })
  it('says of a wrong line what was done and what shows it, or why it can’t be read', async () => {
    open([], false, method('undo', 'x = 7'))
    const board = useBoard()
    await board.load(3, '')
    const at = [
      link(1, 'breaks', { slip: { done: 'The 2 was left out.' }, evidence: { text: 'Try x = 7.', values: {} } }),
      link(1, null, { error: { message: 'A bracket is open.' } }),
    ]
    for (const each of at) {
      says['POST /api/check'] = { links: [each] }
      board.back()
      await board.wander([], 'x = 3')
      const told = each === at[0] ? 'The 2 was left out. Try x = 7.' : 'A bracket is open.'
      expect(board.detour[0]?.evidence).toBe(told)
    }
    expect(asked.filter((each) => each.what === 'POST /api/check/echo').map((each) => each.body)).toEqual([
      { text: 'x = 3', decimal: 'point' },
      { text: 'x = 3', decimal: 'point' },
    ])
  })
  it('reads a wrong line with the decimals of its sheet', async () => {
    open([], false, method('undo', 'x = 7'))
    says['POST /api/check'] = { links: [link(1, 'breaks')] }
    const board = useBoard()
    await board.load(3, '')
    board.conventions = { decimal: 'comma' }
    await board.wander([], 'x = 2,5')
    expect(sentTo('POST /api/check/echo')).toEqual([{ text: 'x = 2,5', decimal: 'comma' }])
  })
  it('says when there is nothing to show', async () => {
    open([], false)
    const board = useBoard()
    await board.load(3, '')
    expect(board.trouble).toContain('no lines yet')
  })
  it('judges a wrong path after the lines that stand, and comes back', async () => {
    open([], false, method('undo', 'x = 7'))
    const board = useBoard()
    await board.load(3, '')
    await board.wander(['x - 2 = 5'], 'x = 3')
    await board.wander(['x - 2 = 5'], 'x = 33')
    expect(board.detour.map((each) => [each.text, each.relation])).toEqual([
      ['x = 3', 'breaks'],
      ['x = 33', 'breaks'],
    ])
    expect(board.detour[0]?.evidence).toBe('x = 7 solves the line before.')
    const last = asked.filter((each) => each.what === 'POST /api/check').at(-1)
    expect((last?.body as { lines: string[] }).lines).toEqual(['x - 2 = 5', 'x = 3', 'x = 33'])
    board.back()
    expect(board.detour).toEqual([])
  })
  it('shows a wrong path without a verdict when there is no connection', async () => {
    open([], false, method('undo', 'x = 7'))
    const board = useBoard()
    await board.load(3, '')
    line.down = true
    await board.wander([], 'x = 3')
    expect(board.detour[0]).toMatchObject({ text: 'x = 3', relation: null, word: 'not judged:' })
  })
  it('shows a wrong way that was foreseen line by line from where it parts', async () => {
    open([], false, method('undo', 'x = 7'))
    const board = useBoard()
    board.foreseen = { lines: ['x - 2 = 5', 'x = 3', 'x = 33'], at: 2 }
    await board.load(3, FORESEEN)
    await board.foresee(['x - 2 = 5'])
    expect(board.detour.map((each) => each.text)).toEqual(['x = 3'])
    expect([board.more(), board.more()]).toEqual([true, false])
    expect(board.detour).toHaveLength(2)
  })
})

describe('a key', () => {
  it('is kept as it is written and read once at a time', async () => {
    const proofs = useProofs()
    proofs.write('1) x = 2')
    expect(kept('key')).toBe('1) x = 2')
    says['POST /api/keys/proofread'] = { problems: [] }
    await Promise.all([proofs.proofread(), proofs.proofread()])
    expect(asked).toHaveLength(1)
    expect(proofs.stale).toBe(false)
    proofs.write('1) x = 3')
    expect(proofs.stale).toBe(true)
  })
  it('loses nothing when the server does not answer', async () => {
    const proofs = useProofs()
    proofs.write('1) x = 2')
    line.down = true
    await proofs.proofread()
    expect([proofs.trouble, proofs.text, proofs.busy]).toEqual([
      'The server does not answer. Your text is kept.',
      '1) x = 2',
      false,
    ])
    expect(await proofs.makeSheet('Key')).toBeNull()
    setActivePinia(createPinia())
    const again = useProofs()
    again.recall()
    expect(again.text).toBe('1) x = 2')
  })
  it('is not sent while it is empty', async () => {
    await useProofs().proofread()
    expect(asked).toEqual([])
  })
  it('is read and kept with decimals as the account writes them', async () => {
    onTestFinished(() => writeAs({ decimal: 'point', dates: 'day-first', week: 'monday' }))
    Object.assign(says, { 'POST /api/keys/proofread': { problems: [] }, 'POST /api/keys/sheet': { id: 12 } })
    const proofs = useProofs()
    proofs.write('1) 0,5x = 2')
    await proofs.proofread()
    writeAs({ decimal: 'comma', dates: 'day-first', week: 'monday' })
    proofs.write('1) 0,5x = 3')
    await proofs.proofread()
    await proofs.makeSheet('Key')
    const conventions = (path: string) => sentTo(path).map((each) => (each as { conventions: object }).conventions)
    expect(conventions('POST /api/keys/proofread')).toEqual([{}, { decimal: 'comma' }])
    expect(conventions('POST /api/keys/sheet')).toEqual([{ decimal: 'comma' }])
  })
  it('becomes a sheet', async () => {
    says['POST /api/keys/sheet'] = { id: 12 }
    expect(await useProofs().makeSheet('Key')).toBe(12)
  })

  describe('that is long', () => {
    /** One looks again at the latest after so long. */
    const PAUSE = 250
    const LINES = Array.from({ length: 500 }, (_, k) => `${k}) x = 2`).join('\n')
    const part = (done: number, ended = false, trouble: string[] = []) => ({
      id: 5, total: 3, done, ended, trouble, found: { problems: Array.from({ length: done }, () => ({})), skipped: [], faulty: 0 },
    }) // prettier-ignore
    const coming = (...parts: unknown[]) => {
      says['POST /api/keys/runs'] = parts.shift()
      says['GET /api/keys/runs/5'] = () => parts.shift()
      says['DELETE /api/runs/5'] = new Response(null, { status: 204 })
    }
    beforeEach(() => vi.useFakeTimers())
    afterEach(() => vi.useRealTimers())

    it('is read in parts, and shown as they come', async () => {
      coming(part(0), part(1), part(3, true, ['7: too long']))
      const proofs = useProofs()
      proofs.write(LINES)
      const reading = proofs.proofread()
      await vi.advanceTimersByTimeAsync(PAUSE + 10)
      expect([proofs.run?.done, proofs.proofs?.problems.length, proofs.busy]).toEqual([1, 1, true])
      await vi.advanceTimersByTimeAsync(PAUSE + 10)
      await reading
      expect([proofs.run?.trouble, proofs.proofs?.problems.length, proofs.busy, proofs.stale]).toEqual([
        ['7: too long'],
        3,
        false,
        false,
      ])
      expect(asked.map((one) => one.what)).toEqual([
        'POST /api/keys/runs',
        'GET /api/keys/runs/5',
        'GET /api/keys/runs/5',
      ])
    })
    it('keeps what was found when it is stopped', async () => {
      coming(part(0), part(2))
      const proofs = useProofs()
      proofs.write(LINES)
      const reading = proofs.proofread()
      await vi.advanceTimersByTimeAsync(PAUSE + 10)
      await proofs.stop()
      await vi.advanceTimersByTimeAsync(PAUSE + 10)
      await reading
      expect([proofs.run, proofs.proofs?.problems.length, proofs.busy]).toEqual([null, 2, false])
      expect(asked.at(-1)?.what).toBe('DELETE /api/runs/5')
    })
    it('waits while the server is away, and goes on', async () => {
      coming(part(0), part(3, true))
      const proofs = useProofs()
      proofs.write(LINES)
      const reading = proofs.proofread()
      await vi.advanceTimersByTimeAsync(10)
      line.down = true
      await vi.advanceTimersByTimeAsync(PAUSE)
      expect([proofs.away, proofs.trouble, proofs.busy]).toEqual([true, '', true])
      line.down = false
      await vi.advanceTimersByTimeAsync(PAUSE)
      await reading
      expect([proofs.away, proofs.proofs?.problems.length]).toEqual([false, 3])
    })
    it('is gone on with after the page was left, unless the text is another or the reading is gone', async () => {
      coming(part(0), part(3, true))
      useProofs().write(LINES)
      void useProofs().proofread()
      await vi.advanceTimersByTimeAsync(10)
      setActivePinia(createPinia())
      const again = useProofs()
      again.recall()
      await again.resume()
      expect([again.run?.ended, again.proofs?.problems.length]).toEqual([true, 3])
      setActivePinia(createPinia())
      const other = useProofs()
      other.write('1) x = 2')
      await other.resume()
      expect(other.run).toBeNull()
      delete says['GET /api/keys/runs/5']
      setActivePinia(createPinia())
      const gone = useProofs()
      gone.write(LINES)
      await gone.resume()
      expect([gone.run, gone.trouble, kept('key.run')]).toEqual([null, '', null])
    })
    it('becomes a sheet without being read again', async () => {
      coming(part(3, true))
      says['POST /api/keys/runs/5/sheet'] = { id: 12 }
      const proofs = useProofs()
      proofs.write(LINES)
      await proofs.proofread()
      expect(await proofs.makeSheet('Key')).toBe(12)
    })
    it('is also what takes too long at once', async () => {
      coming(part(3, true))
      says['POST /api/keys/proofread'] = () => Response.json({ code: 'too-long', detail: 'Too long.' }, { status: 400 })
      const proofs = useProofs()
      proofs.write('1) x = 2')
      await proofs.proofread()
      expect([proofs.proofs?.problems.length, proofs.trouble]).toEqual([3, ''])
    })
  })
})

describe('a sheet', () => {
  const row = (id: number) => ({ id, beads: [], verdict: 'none', finished: false, owed: 0, slips: [] })
  const sheet = (...ids: number[]) => ({ id: 1, title: 'Roots', conventions: {}, untaught: [], problems: ids.map(row) })

  it('shows the new order at once and keeps what the server says', async () => {
    says['GET /api/sheets/1'] = sheet(5, 6, 7)
    const sheets = useSheets()
    await sheets.open(1)
    says['PUT /api/sheets/1/order'] = (body: unknown) => sheet(...(body as { problems: number[] }).problems)
    const done = sheets.reorder([7, 5, 6])
    expect(sheets.sheet?.problems.map((each) => each.id)).toEqual([7, 5, 6])
    await done
    expect(sheets.sheet?.problems.map((each) => each.id)).toEqual([7, 5, 6])
  })
  it('follows a working: its beads, verdict and slips, each slip once', async () => {
    says['GET /api/sheets/1'] = sheet(3)
    const sheets = useSheets()
    await sheets.open(1)
    const flip = { id: 'flip', name: 'Sign lost' }
    const links = [link(1, 'holds'), link(2, 'holds', { slip: flip }), link(3, 'holds', { slip: flip })]
    sheets.follow(problem(['a', 'b', 'c'], { finished: true, links }) as never)
    expect(sheets.sheet?.problems[0]).toMatchObject({
      verdict: 'correct',
      finished: true,
      slips: [{ id: 'flip', name: 'Sign lost' }],
    })
    expect(sheets.sheet?.problems[0]?.beads).toHaveLength(3)
  })
  it('forgets the one that was open when another is opened, and a row that is erased', async () => {
    Object.assign(says, {
      'GET /api/sheets/1': sheet(3),
      'GET /api/sheets': sheetList([{ id: 1 }, { id: 2 }]),
      'DELETE /api/sheets/2': () => new Response(null, { status: 204 }),
    })
    const sheets = useSheets()
    await sheets.open(1)
    await expect(sheets.open(9)).rejects.toThrow()
    expect(sheets.sheet).toBeNull()
    await sheets.list()
    await sheets.remove(2)
    expect(sheets.rows.map((each) => each.id)).toEqual([1])
  })
  it.each([
    [{}, 'point'],
    [{ decimal: 'comma' }, 'comma'],
  ])('reads decimals by its conventions %j', async (conventions, decimal) => {
    says['GET /api/sheets/1'] = { ...sheet(), conventions }
    const sheets = useSheets()
    expect(sheets.decimal).toBe('point')
    await sheets.open(1)
    expect(sheets.decimal).toBe(decimal)
  })
  it.each([
    ['create', ['Powers'], 'POST /api/sheets', { title: 'Powers' }],
    ['rename', [1, 'Powers'], 'PATCH /api/sheets/1', { title: 'Powers' }],
    [
      'setConventions',
      [{ decimal: 'comma', powers: undefined }],
      'PATCH /api/sheets/1',
      { conventions: { decimal: 'comma' } },
    ],
    ['setUntaught', [['formula']], 'PATCH /api/sheets/1', { untaught: ['formula'] }],
    [
      'addProblem',
      ['solve', 'x = 1', 'x', 'real', 'undo'],
      'POST /api/sheets/1/problems',
      { task: 'solve', given: 'x = 1', variable: 'x', numbers: 'real', method: 'undo' },
    ],
    [
      'changeProblem',
      [3, 'factor', 'x^2', '', 'complex', ''],
      'PATCH /api/problems/3',
      { task: 'factor', given: 'x^2', variable: '', numbers: 'complex', method: '' },
    ],
    ['copyProblem', [3], 'POST /api/problems/3/copy', null],
    ['removeProblem', [3], 'DELETE /api/problems/3', null],
  ] as const)('%s asks the server for it and shows what it says', async (action, given, what, body) => {
    says['GET /api/sheets/1'] = sheet(3)
    const sheets = useSheets()
    await sheets.open(1)
    says['GET /api/sheets/1'] = sheet(3, 4)
    says[what] = () =>
      what.startsWith('DELETE') ? new Response(null, { status: 204 }) : { ...sheet(3, 4), id: 1, title: 'Powers' }
    const told = await (sheets[action] as (...all: readonly unknown[]) => Promise<unknown>)(...given)
    const sent = asked.find((each) => each.what === what)!
    expect(sent.body ?? null).toEqual(body)
    if (action === 'create') expect(told).toBe(1)
    else if (action === 'rename') expect(sheets.sheet?.title).toBe('Powers')
    else expect(sheets.sheet?.problems.map((each) => each.id)).toEqual([3, 4])
  })
  it('renaming another sheet leaves the title of the open one', async () => {
    says['GET /api/sheets/1'] = sheet(3)
    says['PATCH /api/sheets/2'] = {}
    const sheets = useSheets()
    await sheets.open(1)
    await sheets.rename(2, 'Powers')
    expect(sheets.sheet?.title).toBe('Roots')
  })
})

describe('the session', () => {
  const open = { teacher: { username: 'orsel', name: 'Tavi Orsel' }, needs_setup: false, ...VERSIONS }
  it('is asked for once, and told whether a teacher has still to be set up', async () => {
    says['GET /api/account/session'] = { teacher: null, needs_setup: true, ...VERSIONS }
    const session = useSession()
    expect([session.loaded, session.needsSetup]).toEqual([false, false])
    await session.load()
    await session.load()
    expect([asked.length, session.loaded, session.needsSetup, session.teacher]).toEqual([1, true, true, null])
  })
  it.each([
    ['logIn', ['orsel', 'quay'], 'POST /api/account/log-in', { username: 'orsel', password: 'quay', digits: '' }],
    [
      'setUp',
      ['orsel', 'quay', 'Tavi', 'ab12'],
      'POST /api/account/set-up',
      { username: 'orsel', password: 'quay', name: 'Tavi', word: 'ab12' },
    ],
  ] as const)('%s sends what was typed and takes the teacher', async (action, given, what, body) => {
    says[what] = open
    const session = useSession()
    await (session[action] as (...all: readonly string[]) => Promise<void>)(...given)
    expect([asked, session.teacher?.name]).toEqual([[{ what, body }], 'Tavi Orsel'])
  })
  it('forgets what was kept in this browser when one logs out, and not when that fails', async () => {
    const session = useSession()
    keep('draft.1', 'x = (')
    await expect(session.logOut()).rejects.toThrow()
    expect(kept('draft.1')).toBe('x = (')
    says['POST /api/account/log-out'] = { teacher: null, needs_setup: false, ...VERSIONS }
    localStorage.setItem('other', 'stays')
    await session.logOut()
    expect([kept('draft.1'), localStorage.getItem('other'), session.teacher]).toEqual([null, 'stays', null])
  })
})

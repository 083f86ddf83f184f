import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import RoomScreen from './RoomScreen.vue'
import RoomFace from '@/features/room/RoomFace.vue'
import { useMarking } from '@/features/marking/store'
import { useHome } from '@/features/room/home'
import { useRoom } from '@/features/room/store'
import { asked, beginAnew, echo, key, line, says, sentTo } from '@/testing/server'

const router = createRouter({
  history: createMemoryHistory(),
  routes: [{ path: '/:rest(.*)*', component: { template: '<p />' } }],
})
let made: VueWrapper
const told = (verdict: string, words = '', right = '') => ({ verdict, words, right })
const working = (lines: string[], tells: object[], more: object = {}) => ({
  revision: 1,
  lines,
  echoes: lines.map((each) => echo(each)),
  told: tells,
  answered: false,
  hints: 0,
  ...more,
})
const item = (id: number, more: object = {}) => ({
  id,
  number: id - 10,
  task: 'solve',
  instruction: 'Solve.',
  given: '3x = 6',
  given_latex: '3x = 6',
  form: null as object | null,
  closed: false,
  working: null as object | null,
  ...more,
})
const news = (more: object = {}) => ({
  tells: 'cue',
  hints: 2,
  paused: '',
  nudge: '',
  closes: null,
  over: false,
  ask: null as object | null,
  ...more,
})
const room = (more: object = {}) => ({
  ...news(),
  title: 'Thursday',
  student: 'Ada',
  decimal: 'point',
  items: [item(11), item(12)],
  ...more,
})
const written = (found: object, more: object = {}) => ({ ...news(more), item: 11, working: found })

async function show(component: object): Promise<void> {
  made = mount(component, { attachTo: document.body, global: { plugins: [router] } })
  await flushPromises()
}
const press = async (words: string): Promise<void> => {
  await made
    .findAll('button')
    .find((each) => each.text().startsWith(words))!
    .trigger('click')
  await flushPromises()
}
async function type(text: string): Promise<void> {
  const field = made.find<HTMLInputElement>('[aria-label="Next line"]')
  await field.setValue(text)
  await field.trigger('keydown', key('Enter'))
  await flushPromises()
}
beforeEach(() => {
  made?.unmount()
  document.body.innerHTML = ''
  beginAnew()
  Object.assign(says, {
    'GET /api/room': Response.json({ code: 'outside', detail: 'Come in first.' }, { status: 403 }),
    'GET /api/room/home': Response.json({ code: 'outside', detail: 'Come in first.' }, { status: 403 }),
    'POST /api/room/come-in': { room: room() },
    'POST /api/room/leave': new Response(null, { status: 204 }),
    'POST /api/room/echo': (body: unknown) => echo((body as { text: string }).text),
    'GET /api/room/news': news(),
    'PUT /api/room/items/11': (body: unknown) =>
      written(working((body as { lines: string[] }).lines, [told('look', 'Mind the sign.')])),
  })
})
async function comeIn(): Promise<void> {
  await show(RoomScreen)
  const [code, name, secret] = made.findAll('.door input')
  await code!.setValue('ABC234')
  await name!.setValue('Ada')
  await secret!.setValue('river7')
  await made.find('.door').trigger('submit')
  await flushPromises()
}
const sent = () => sentTo('PUT /api/room/items/11')

describe('a student in a practice room', () => {
  it('comes in by code, name and secret, and leaves by one press', async () => {
    await comeIn()
    expect(sentTo('POST /api/room/come-in')).toEqual([{ code: 'ABC234', name: 'Ada', secret: 'river7' }])
    expect(made.find('h1').text()).toBe('Thursday')
    await press('leave')
    expect(made.find('.door').exists()).toBe(true)
    expect(asked.map((each) => each.what)).toContain('POST /api/room/leave')
  })
  it('is told why the door stays closed', async () => {
    says['POST /api/room/come-in'] = Response.json(
      { code: 'name', detail: 'This name is not on the list of the class.' },
      { status: 400 },
    )
    await comeIn()
    expect(made.find('[role=alert]').text()).toContain('not on the list')
  })
  it('writes line by line, each verdict in words', async () => {
    await comeIn()
    await type('x = 3')
    expect(sent()).toEqual([{ revision: 0, lines: ['x = 3'] }])
    expect(made.find('.chain li').text()).toContain('look again')
    expect(
      made
        .findAll('[role=status]')
        .map((each) => each.text())
        .join(' '),
    ).toContain('Line 1: look again. Mind the sign.')
    await press('take the last line up again')
    expect(made.find<HTMLInputElement>('[aria-label="Next line"]').element.value).toBe('x = 3')
    expect(sent().at(-1)).toEqual({ revision: 1, lines: [] })
  })
  it('changes nothing in what is marked, and sends the rest', async () => {
    await comeIn()
    line.down = true
    await type('x = 3')
    await made.findAll('.place')[1]!.trigger('click')
    await type('x = 7')
    line.down = false
    says['PUT /api/room/items/11'] = Response.json({ code: 'marked', detail: 'This one is marked.' }, { status: 400 })
    says['PUT /api/room/items/12'] = (body: unknown) => ({
      ...written(working((body as { lines: string[] }).lines, [told('holds')])),
      item: 12,
    })
    says['GET /api/room'] = room({
      items: [item(11, { closed: true, working: working(['x = 2'], [told('holds')]) }), item(12)],
    })
    await useRoom().send()
    await vi.waitFor(() => expect(sentTo('PUT /api/room/items/12')).toHaveLength(1))
    await made.findAll('.place')[0]!.trigger('click')
    expect(made.findAll('.chain li')).toHaveLength(1)
    expect(made.text()).toContain('This one is closed: what you wrote stands as it is.')
    expect(made.find('[aria-label="Next line"]').exists()).toBe(false)
    expect(made.findAll('button').map((each) => each.text())).not.toContain('a hint (2)')
    expect(useRoom().waiting).toBe(0)
  })
  it('loses nothing without a connection, keeps it in the browser, and sends it once when it is back', async () => {
    await comeIn()
    line.down = true
    await type('x = 3')
    await type('x = 4')
    expect(made.findAll('.chain li')).toHaveLength(2)
    expect(made.text()).toContain('kept here and sent later')
    made.unmount()
    beginKept()
    says['GET /api/room'] = room()
    await show(RoomScreen)
    expect(sent()).toEqual([{ revision: 0, lines: ['x = 3', 'x = 4'] }])
    await useRoom().send()
    expect(sent()).toHaveLength(1)
    expect(Object.keys(localStorage).filter((each) => each.includes('room.'))).toEqual([])
  })
  it('knows its own lines again whose answer was lost, and goes on from them', async () => {
    await comeIn()
    line.down = true
    await type('x = 3') // it arrives; its answer does not
    await type('x = 4')
    line.down = false
    let stands = { lines: ['x = 3'], revision: 1 }
    says['PUT /api/room/items/11'] = (body: unknown) => {
      const wanted = body as typeof stands
      if (wanted.revision !== stands.revision)
        return Response.json({ code: 'conflict', detail: 'Changed.', ...stands }, { status: 409 })
      stands = { lines: wanted.lines, revision: stands.revision + 1 }
      return written(
        working(
          wanted.lines,
          wanted.lines.map(() => told('holds')),
          { revision: stands.revision },
        ),
      )
    }
    await useRoom().send()
    await new Promise((done) => setTimeout(done, 20))
    await flushPromises()
    expect(stands).toEqual({ lines: ['x = 3', 'x = 4'], revision: 2 })
    expect(made.text()).not.toContain('Another device')
  })
  it('is outside when the server says so, with what was typed kept for the next time', async () => {
    await comeIn()
    says['PUT /api/room/items/11'] = Response.json({ code: 'outside', detail: 'Come in first.' }, { status: 403 })
    await type('x = 3')
    expect(useRoom().room).toBeNull()
    expect(made.find('.door').exists()).toBe(true)
    expect(useRoom().unsent[11]?.lines).toEqual(['x = 3'])
  })
  it.each([
    [400, true],
    [500, false],
    [503, false],
  ])('status %i is a refusal of the lines: %s', async (status, refused) => {
    await comeIn()
    says['PUT /api/room/items/11'] = Response.json({ code: 'x', detail: 'Not now.' }, { status })
    await type('x = 3')
    expect([useRoom().refused, useRoom().offline]).toEqual(refused ? ['Not now.', false] : ['', true])
    expect(useRoom().room).not.toBeNull()
    expect(useRoom().unsent[11]?.lines).toEqual(['x = 3'])
  })
  it('names the keys of what is answered, and those of lines where lines are written', async () => {
    const form = { form: 'choose', options: ['x = 1', 'x = 2'], lines: [], blanks: 0, ways: [], letters: [], reach: 0 }
    says['POST /api/room/come-in'] = { room: room({ items: [item(11, { form }), item(12)] }) }
    await comeIn()
    expect(made.text()).toContain('A B C …')
    expect(made.text()).not.toContain('the line stands')
    await press('the next problem')
    expect(made.text()).toContain('the line stands')
    expect(made.text()).not.toContain('A B C …')
  })
  it('does not lose what another device has overtaken', async () => {
    says['PUT /api/room/items/11'] = Response.json(
      { code: 'conflict', detail: 'Changed.', lines: ['x = 9'], revision: 4 },
      { status: 409 },
    )
    await comeIn()
    says['GET /api/room'] = room({
      items: [item(11, { working: working(['x = 9'], [told('holds')], { revision: 4 }) }), item(12)],
    })
    await type('x = 3')
    expect(made.find('.chain').text()).toContain('x = 9')
    says['PUT /api/room/items/11'] = written(working(['x = 3'], [told('holds')], { revision: 5 }))
    await press('put the lines of this device in their place')
    expect(sent().at(-1)).toEqual({ revision: 4, lines: ['x = 3'] })
  })
  it('sees a pause, a nudge, the end and the hints that are left', async () => {
    says['POST /api/room/come-in'] = { room: room({ paused: 'Eyes to the board.', nudge: 'Begin with the 7.' }) }
    says['POST /api/room/items/11/hint'] = {
      look: 'Look at the 7.',
      rule: 'Subtract from both sides',
      line: '',
      left: 1,
    }
    await comeIn()
    says['GET /api/room'] = room({
      over: true,
      items: [item(11, { working: working([], [], { hints: 1 }) }), item(12)],
    })
    says['GET /api/room/news'] = news({ over: true })
    expect(made.text()).toContain('A pause: Eyes to the board.')
    expect(made.text()).toContain('Your teacher: Begin with the 7.')
    await press('a hint (2)')
    await useRoom().look()
    await flushPromises()
    expect(made.text()).toContain('The room is closed.')
    expect(made.find('[aria-label="Next line"]').exists()).toBe(false)
  })
})
describe('a student by keys', () => {
  const press = async (name: string, more: object = {}): Promise<void> => {
    window.dispatchEvent(new KeyboardEvent('keydown', { ...key(name), cancelable: true, ...more } as KeyboardEventInit))
    await flushPromises()
  }
  const at = (): string => made.find('section[aria-label^="Problem "]').attributes('aria-label') ?? ''
  it('goes from problem to problem, and no further than there are any', async () => {
    await comeIn()
    const seen = []
    for (const name of ['PageUp', 'PageDown', 'PageDown', 'PageUp']) {
      await press(name)
      seen.push(at())
    }
    expect(seen).toEqual(['Problem 1', 'Problem 2', 'Problem 2', 'Problem 1'])
  })
  it('leaves a problem for later, once', async () => {
    await comeIn()
    await press('s', { altKey: true })
    expect(at()).toBe('Problem 2')
    expect(made.find('[aria-label="1, for later"]').exists()).toBe(true)
  })
  it('asks for a hint where there are any left', async () => {
    says['POST /api/room/items/11/hint'] = { look: 'Look at the 3.', rule: '', line: '', left: 1 }
    await comeIn()
    says['GET /api/room'] = room()
    await press('h', { altKey: true })
    expect(made.find('.hint').text()).toBe('Look at the 3.')
    says['GET /api/room'] = room({ hints: 0 })
    Object.assign(useRoom().room!, { hints: 0 })
    await press('h', { altKey: true })
    expect(sentTo('POST /api/room/items/11/hint')).toHaveLength(1)
    expect(made.text()).not.toContain('Alt H')
  })
  it('takes the last line up again from an empty field only', async () => {
    await comeIn()
    await type('3x = 7')
    const field = made.find<HTMLInputElement>('[aria-label="Next line"]')
    await field.setValue('x')
    await field.trigger('keydown', key('ArrowUp'))
    expect(field.element.value).toBe('x')
    await field.setValue('')
    await field.trigger('keydown', key('ArrowUp'))
    expect(field.element.value).toBe('3x = 7')
    await flushPromises()
    expect(sent().at(-1)).toMatchObject({ lines: [] })
  })
  it('is let out before anybody is shown anything, where it left without a connection', async () => {
    await comeIn()
    line.down = true
    await press('q', { altKey: true })
    expect(made.find('.door').exists()).toBe(true)
    line.down = false
    made.unmount()
    asked.length = 0
    says['GET /api/room'] = () =>
      sentTo('POST /api/room/leave').length
        ? Response.json({ code: 'outside', detail: 'Come in first.' }, { status: 403 })
        : room()
    await show(RoomScreen)
    expect(asked[0]?.what).toBe('POST /api/room/leave')
    expect(made.find('.door').exists()).toBe(true)
    made.unmount()
    await show(RoomScreen)
    expect(sentTo('POST /api/room/leave')).toHaveLength(1)
  })
  it('leaves by one key, and looks at the own page by another', async () => {
    await comeIn()
    await press('q')
    expect(useRoom().room).not.toBeNull()
    await press('m', { altKey: true })
    expect(asked.map((each) => each.what)).toContain('GET /api/room/home')
    await press('q', { altKey: true })
    expect(useRoom().room).toBeNull()
    expect(made.find('.door').exists()).toBe(true)
  })
})
describe('what is left and what comes again', () => {
  it('leaves a problem for later and comes back to it behind the last', async () => {
    await comeIn()
    await press('later')
    expect(made.find('[aria-label="Problem 2"]').exists()).toBe(true)
    expect(made.find('.place').attributes('aria-label')).toBe('1, for later')
    await press('back to 1')
    expect(made.find('[aria-label="Problem 1"]').exists()).toBe(true)
    await type('x = 3')
    expect(made.find('.place').attributes('aria-label')).toBe('1, look again')
  })
  it('keeps what was begun and not committed', async () => {
    await comeIn()
    await made.find('[aria-label="Next line"]').setValue('x = 2')
    await press('the next problem')
    expect(made.find<HTMLInputElement>('[aria-label="Next line"]').element.value).toBe('')
    await made.findAll('.place')[0]!.trigger('click')
    expect(made.find<HTMLInputElement>('[aria-label="Next line"]').element.value).toBe('x = 2')
  })
  it('places on the grid as lines', async () => {
    const form = { form: 'features', options: [], lines: [], blanks: 0, ways: [], letters: [], reach: 10 }
    says['POST /api/room/come-in'] = { room: room({ items: [item(11, { task: 'analyze', form })] }) }
    await comeIn()
    const grid = made.find('[role=application]')
    for (const name of ['ArrowRight', 'v']) await grid.trigger('keydown', key(name))
    await flushPromises()
    expect(sent().at(-1)).toEqual({ revision: 0, lines: ['vertical asymptote: x = 1'] })
  })
  it('hears what is new every ten seconds from coming in on', async () => {
    vi.useFakeTimers()
    await comeIn()
    says['GET /api/room/news'] = news({ nudge: 'Begin with the 7.' })
    await vi.advanceTimersByTimeAsync(10_100)
    expect(made.text()).toContain('Your teacher: Begin with the 7.')
    vi.useRealTimers()
  })
  it('looks at once when the device is taken up again', async () => {
    await comeIn()
    says['GET /api/room/news'] = news({ paused: 'Eyes to the board.' })
    useRoom().heard = 0
    document.dispatchEvent(new Event('pointerdown'))
    await flushPromises()
    expect(made.text()).toContain('A pause: Eyes to the board.')
  })
  const task = (lines: string[], tells: object[], more: object = {}) => ({
    id: 4,
    against: 'Sign lost',
    decimal: 'point',
    instruction: 'Solve.',
    given_latex: '2x = 8',
    done: false,
    working: working(lines, tells),
    ...more,
  })
  const page = (next: object | null, more: object = {}) => ({
    student: 'Ada',
    school_class: 'Evening A',
    next,
    slips: [
      { name: 'Sign lost', cue: 'Mind the sign.', rid: false, due: new Date().toISOString().slice(0, 10), solved: 1 },
      { name: 'Carried across', cue: 'Undo it.', rid: true, due: '2026-01-01', solved: 4 },
    ],
    sets: [
      {
        title: 'Thursday',
        day: '2026-03-05',
        items: [item(11, { working: working(['x = 3'], [told('look', 'Mind the sign.')]) }), item(12)],
      },
    ],
    ...more,
  })
  const outside = () => Response.json({ code: 'outside', detail: 'Come in first.' }, { status: 403 })
  it.each([
    ['GET /api/room', () => useRoom().reload(), room],
    ['GET /api/room/news', () => useRoom().look(), outside],
    ['GET /api/room/home', () => useHome().load(), () => page(null)],
  ])('stays outside, though what %s was asked before is answered after that', async (what, ask, found) => {
    await comeIn()
    let answer: (found: unknown) => void = () => {}
    says[what] = () => new Promise((done) => (answer = done))
    const asks = ask()
    await flushPromises()
    await press('leave')
    answer(found())
    await asks
    await flushPromises()
    expect(made.find('.door').exists()).toBe(true)
    expect(made.find('[role=alert]').exists()).toBe(false)
    expect(localStorage.getItem('uchuu.copy.room')).toBeNull()
  })
  it('shows at home what comes again, what one is rid of, and what was written', async () => {
    let looks = 0
    says['GET /api/room/home'] = () =>
      looks++ ? page(task([], [])) : Response.json({ code: 'outside', detail: 'Come in first.' }, { status: 403 })
    says['POST /api/room/come-in'] = { room: null }
    await comeIn()
    expect(made.find('[aria-label="Errors"]').text()).toMatch(/Sign lost.*due today.*rid of.*Carried across/s)
    expect(made.find('[aria-label="What you wrote"]').text()).toMatch(/look at line 1.*not worked/s)
    expect(made.text()).not.toMatch(/point|rank|%/)
  })
  it('works the next problem line by line, and asks for another', async () => {
    Object.assign(says, {
      'GET /api/room/home': page(task([], [])),
      'PUT /api/room/home/problems/4': (body: unknown) =>
        task((body as { lines: string[] }).lines, [told('holds')], { done: true }),
    })
    await show(RoomScreen)
    line.down = true
    await type('x = 4')
    expect(made.text()).toContain('kept here and sent later')
    line.down = false
    await useHome().send()
    await flushPromises()
    expect(sentTo('PUT /api/room/home/problems/4')).toEqual([{ revision: 1, lines: ['x = 4'] }])
    says['GET /api/room/home'] = page(null)
    await press('what is next?')
    expect(made.text()).toContain('Nothing is due today.')
  })
})
/** The same browser, the page loaded anew: the server can be reached again. */
function beginKept(): void {
  const kept = Object.entries(localStorage)
  const before = { ...says }
  beginAnew()
  Object.assign(says, before)
  for (const [name, value] of kept) localStorage.setItem(name, value as string)
}

describe('the teacher’s view of a room', () => {
  const cell = (more: object = {}) => ({
    item: 11,
    working: 5,
    beads: [{ kind: 'equation', relation: 'breaks' }],
    stuck: 1,
    answered: false,
    slip: 'Sign lost',
    hints: 1,
    ...more,
  })
  const view = (more: object = {}) => ({
    given_set: 7,
    reading: false,
    version: 3,
    code: 'ABC234',
    tells: 'line',
    right_line: false,
    hints: 0,
    paused: '',
    closes: null,
    ended: false,
    items: [11, 12],
    seats: [
      { student: 1, name: 'Ada', heard: new Date().toISOString(), nudge: '', more_minutes: 0, cells: [cell()] },
      { student: 2, name: 'Bo', heard: null, nudge: '', more_minutes: 5, cells: [] },
    ] as object[] | null,
    ...more,
  })
  beforeEach(async () => {
    useMarking().set = { id: 7, school_class: 3, cells: [] as object[], again_of: 0 } as never
    Object.assign(says, {
      'GET /api/classes/3/door': { code: '' },
      'POST /api/classes/3/door': { code: 'HOME42' },
      'DELETE /api/classes/3/door': new Response(null, { status: 204 }),
      'GET /api/sets/7/room': view(),
      'PATCH /api/sets/7/room': view({ paused: 'Eyes up.' }),
      'POST /api/sets/7/room': view(),
      'POST /api/sets/7/room/students/1': view(),
      'POST /api/sets/7/room/students/2': view(),
    })
  })
  it('hides names until they are wished, and shows who is stuck at which line', async () => {
    await show(RoomFace)
    expect(made.text()).not.toContain('Ada')
    expect(made.find('tbody tr').text()).toContain('line 1')
    expect(made.text()).toContain('commonest just now: Sign lost')
    await press('show the names')
    expect(made.findAll('tbody th').map((each) => each.text())).toEqual(['Ada writing', 'Bo not here'])
  })
  it('asks only for what has changed and keeps what has not', async () => {
    vi.useFakeTimers()
    await show(RoomFace)
    let since = ''
    says['GET /api/sets/7/room'] = (_: unknown, request: Request) => (
      (since = new URL(request.url).search),
      view({
        version: 4,
        items: [],
        seats: [
          {
            student: 2,
            name: 'Bo',
            heard: new Date().toISOString(),
            nudge: '',
            more_minutes: 5,
            cells: [cell({ item: 12, working: 6, stuck: 3 })],
          },
        ],
      })
    )
    await vi.advanceTimersByTimeAsync(1100)
    const rows = made.findAll('tbody tr').map((each) => each.text())
    expect(rows).toHaveLength(2)
    expect(rows[0]).toContain('line 1')
    expect(rows[1]).toContain('line 3')
    expect(made.findAll('thead th').map((each) => each.text())).toEqual(['2 of 2 here', '1', '2', 'For one'])
    expect(since).toBe('?since=3')
    vi.useRealTimers()
  })
  it('pauses all with a sentence, nudges one, gives time, takes a secret away', async () => {
    await show(RoomFace)
    await made.find('[aria-label="Sentence of the pause"]').setValue('Eyes up.')
    await made.find('[aria-label="Steer the room"]').trigger('submit')
    await flushPromises()
    expect(sentTo('PATCH /api/sets/7/room')).toEqual([{ new_code: false, paused: 'Eyes up.' }])
    await made.find('[aria-label="… for student 1"]').trigger('click')
    await made.find('[aria-label="A nudge"]').setValue('Begin with the 7.')
    await made.find('.one').trigger('submit')
    await press('take the secret away')
    await made.find('[aria-label="… for student 2"]').trigger('click')
    await press('5 minutes more')
    expect(sentTo('POST /api/sets/7/room/students/1')).toEqual([
      { forget_secret: false, nudge: 'Begin with the 7.' },
      { forget_secret: true },
    ])
    expect(sentTo('POST /api/sets/7/room/students/2')).toEqual([{ forget_secret: false, more_minutes: 10 }])
  })
  it('pauses, goes on, shows the names and ends by keys', async () => {
    const press = async (name: string): Promise<void> => {
      window.dispatchEvent(
        new KeyboardEvent('keydown', { ...key(name), altKey: true, cancelable: true } as KeyboardEventInit),
      )
      await flushPromises()
    }
    await show(RoomFace)
    await press('p')
    const field = made.find<HTMLInputElement>('[aria-label="Sentence of the pause"]')
    expect(document.activeElement).toBe(field.element)
    expect(sentTo('PATCH /api/sets/7/room')).toEqual([])
    await field.setValue('Eyes up.')
    await press('p')
    await press('p')
    await press('n')
    expect(made.text()).toContain('Ada')
    says['PATCH /api/sets/7/room'] = view({ ended: true })
    await press('x')
    await press('x')
    expect(sentTo('PATCH /api/sets/7/room').map((each) => ({ ...(each as object), new_code: undefined }))).toEqual([
      { paused: 'Eyes up.' },
      { paused: '' },
      { ended: true },
    ])
  })
  it('gives a code from home and closes it', async () => {
    await show(RoomFace)
    await press('a code from home')
    expect(made.find('[aria-label="Code from home"]').text()).toBe('HOME42')
    await press('close it')
    expect(made.find('[aria-label="Code from home"]').exists()).toBe(false)
  })
  it('looks at the room while something is asked for, and drops neither', async () => {
    vi.useFakeTimers()
    await show(RoomFace)
    let answer: (found: object) => void = () => undefined
    says['POST /api/classes/3/door'] = () => new Promise<object>((done) => (answer = done))
    await made
      .findAll('button')
      .find((each) => each.text().startsWith('a code from home'))
      ?.trigger('click')
    await vi.advanceTimersByTimeAsync(1100)
    answer({ code: 'HOME42' })
    await vi.advanceTimersByTimeAsync(1)
    expect(made.find('[aria-label="Code from home"]').text()).toBe('HOME42')
    vi.useRealTimers()
  })
  it('says when a look fails, and takes that back when the next one is answered', async () => {
    vi.useFakeTimers()
    await show(RoomFace)
    says['GET /api/sets/7/room'] = () => Promise.reject(new TypeError('fetch'))
    await vi.advanceTimersByTimeAsync(1100)
    expect(made.find('[role="alert"]').text()).toContain('from a moment ago')
    says['GET /api/sets/7/room'] = view()
    await vi.advanceTimersByTimeAsync(1100)
    expect(made.find('[role="alert"]').exists()).toBe(false)
    vi.useRealTimers()
  })
  it('offers to open one only when it is known that there is none, and looks again where the first look fails', async () => {
    vi.useFakeTimers()
    says['GET /api/sets/7/room'] = () => Promise.reject(new TypeError('fetch'))
    await show(RoomFace)
    expect(made.find('[aria-label="Open the room"]').exists()).toBe(false)
    says['GET /api/sets/7/room'] = Response.json(
      { code: 'not-found', detail: 'There is nothing here.' },
      { status: 404 },
    )
    await vi.advanceTimersByTimeAsync(1100)
    expect(made.find('[aria-label="Open the room"]').exists()).toBe(true)
    const looks = sentTo('GET /api/sets/7/room').length
    await vi.advanceTimersByTimeAsync(3300)
    expect(sentTo('GET /api/sets/7/room')).toHaveLength(looks)
    vi.useRealTimers()
  })
  it('opens a closed room for one who was away', async () => {
    says['GET /api/sets/7/room'] = view({ ended: true })
    await show(RoomFace)
    await made.find('[aria-label="… for student 2"]').trigger('click')
    await press('open it for 30 minutes')
    expect(sentTo('POST /api/sets/7/room/students/2')).toEqual([{ forget_secret: false, open_minutes: 30 }])
  })
  it('asks what a room of a marked set is opened on, and goes to the second attempt', async () => {
    says['GET /api/sets/7/room'] = Response.json({ detail: 'Not Found' }, { status: 404 })
    says['POST /api/sets/7/room'] = view({ given_set: 8 })
    useMarking().set = { id: 7, school_class: 3, cells: [{ mark: 2 }, { mark: null }], again_of: 0 } as never
    await show(RoomFace)
    expect(made.find('.open').text()).toContain('1 working of this set is marked')
    await made.find('input[value=reading]').setValue(true)
    expect(made.find('.open').text()).not.toContain('While writing')
    await made.find('input[value=again]').setValue(true)
    await made.find('.open').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/sets/7/room')).toMatchObject([{ opens: 'again', tells: 'line' }])
    expect(router.currentRoute.value.path).toBe('/sets/8/room')
  })
  it('opens a room with what it tells', async () => {
    says['GET /api/sets/7/room'] = Response.json(
      { code: 'not-found', detail: 'There is nothing here.' },
      { status: 404 },
    )
    await show(RoomFace)
    await made.find('input[value="place"]').setValue(true)
    await made.find('[aria-label="Open the room"]').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/sets/7/room')).toEqual([
      { opens: 'rest', tells: 'place', right_line: false, hints: 0, minutes: null, show_time: false },
    ])
    expect(made.find('.code').text()).toBe('ABC234')
  })
})

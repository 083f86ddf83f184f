import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter, RouterView, type Router } from 'vue-router'
import { defineComponent, h } from 'vue'
import DeskScreen from './DeskScreen.vue'
import LogInScreen from './LogInScreen.vue'
import ProofsScreen from './ProofsScreen.vue'
import SheetsScreen from './SheetsScreen.vue'
import { useSession } from '@/features/session/store'
import { keep, kept } from '@/lib/keep'
import {
  asked,
  beginAnew,
  echo,
  key,
  line,
  method,
  person,
  problem,
  row,
  says,
  sentTo,
  sheet,
  sheetList,
  step,
  VERSIONS,
} from '@/testing/server'

const teacher = person('demo', 'Maren')
let router: Router
let mounted: VueWrapper | null = null
beforeEach(async () => {
  mounted?.unmount() // what an old screen still writes goes to its own stores
  mounted = null
  await flushPromises()
  beginAnew()
  vi.useRealTimers()
  router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', component: SheetsScreen },
      { path: '/log-in', component: LogInScreen },
      { path: '/keys', component: ProofsScreen },
      { path: '/account', component: LogInScreen },
      {
        path: '/sheets/:sheet/:place?/:face?',
        component: DeskScreen,
        props: ({ params }) => ({
          sheetId: Number(params.sheet),
          place: Number(params.place || 1),
          face: String(params.face || 'work'),
        }),
      },
    ],
  })
})
async function visit(path: string): Promise<VueWrapper> {
  await router.push(path)
  mounted = mount(
    defineComponent(() => () => h(RouterView)),
    {
      attachTo: document.body,
      global: { plugins: [router], stubs: { teleport: true, transition: true } },
    },
  )
  await flushPromises()
  return mounted
}
const path = () => router.currentRoute.value.fullPath

describe('logging in', () => {
  async function door(needsSetup: boolean) {
    useSession().take({ teacher: null, needs_setup: needsSetup, ...VERSIONS })
    return visit('/log-in?next=/keys')
  }
  it('goes on to where one wanted to be', async () => {
    says['POST /api/account/log-in'] = { teacher, needs_setup: false, ...VERSIONS }
    const made = await door(false)
    await made.find('[autocomplete=username]').setValue('demo')
    await made.find('[type=password]').setValue('secret')
    await made.find('form').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/account/log-in')).toEqual([{ username: 'demo', password: 'secret', digits: '' }])
    expect(path()).toBe('/keys')
  })
  it('makes the first account where there is none', async () => {
    says['POST /api/account/set-up'] = { teacher, needs_setup: false, ...VERSIONS }
    const made = await door(true)
    expect(made.text()).toContain('Nobody works here yet')
    await made.find('[autocomplete=name]').setValue('Maren')
    await made.findAll('label').at(-1)!.find('input').setValue('ab12cd')
    await made.find('form').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/account/set-up')).toEqual([{ username: '', password: '', name: 'Maren', word: 'ab12cd' }])
  })
  it('asks for the digits of a second factor once it is said that there is one', async () => {
    says['POST /api/account/log-in'] = Response.json({ code: 'second-factor', detail: 'Six digits.' }, { status: 400 })
    const made = await door(false)
    expect(made.find('[autocomplete=one-time-code]').exists()).toBe(false)
    await made.find('form').trigger('submit')
    await flushPromises()
    expect(made.find('[role=alert]').text()).toBe('Six digits.')
    says['POST /api/account/log-in'] = { teacher, needs_setup: false, ...VERSIONS }
    await made.find('[autocomplete=one-time-code]').setValue('123456')
    await made.find('form').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/account/log-in').at(-1)).toEqual({ username: '', password: '', digits: '123456' })
    expect(path()).toBe('/keys')
  })
  it.each([
    [() => Response.json({ detail: 'Wrong name or password.' }, { status: 400 }), false, 'Wrong name or password.'],
    [{}, true, 'The server does not answer. Is it running?'],
  ])('says what stands in the way %#', async (answer, down, words) => {
    says['POST /api/account/log-in'] = answer
    const made = await door(false)
    line.down = down
    await made.find('form').trigger('submit')
    await flushPromises()
    expect(made.find('[role=alert]').text()).toBe(words)
    expect(path()).toContain('/log-in')
  })
})

describe('the sheets', () => {
  const rowOf = (id: number, problems: number, sound: number, faulty: number) => ({
    id,
    title: `Sheet ${id}`,
    received_from: '',
    changed: '',
    problems,
    sound,
    faulty,
  })
  const open = (rows: object[]) => {
    says['GET /api/sheets'] = sheetList(rows)
    return visit('/')
  }
  it.each([
    [rowOf(1, 0, 0, 0), 'no problems yet'],
    [rowOf(1, 1, 1, 0), '1 problem · 1 sound'],
    [rowOf(1, 6, 3, 1), '6 problems · 3 sound · 1 with a fault · 2 open'],
  ])('sum up %j', async (found, words) => {
    expect((await open([found])).find('.sum').text()).toBe(words)
  })
  it('invite to the first one', async () => {
    expect((await open([])).find('.empty').text()).toContain('No sheets yet')
  })
  it('are made and opened', async () => {
    const made = await open([])
    Object.assign(says, { 'POST /api/sheets': { id: 9 }, 'GET /api/sheets/9': { ...sheet(), id: 9 } })
    await made.find('.new').trigger('submit')
    expect(sentTo('POST /api/sheets')).toEqual([])
    await made.find('.new input').setValue('Roots')
    await made.find('.new').trigger('submit')
    await flushPromises()
    expect(path()).toBe('/sheets/9')
    expect(made.text()).toContain('This sheet is empty.')
  })
  it('are renamed in place, or left with Escape', async () => {
    const made = await open([rowOf(1, 0, 0, 0)])
    says['PATCH /api/sheets/1'] = sheet()
    await made.find('[aria-label="Rename Sheet 1"]').trigger('click')
    await made.find('.rename input').trigger('keydown', key('Escape', { key: 'Escape', keyCode: 27 }))
    expect(made.find('.rename').exists()).toBe(false)
    await made.find('[aria-label="Rename Sheet 1"]').trigger('click')
    await made.find('.rename input').setValue('Powers')
    await made.find('.rename').trigger('submit')
    await flushPromises()
    expect(sentTo('PATCH /api/sheets/1')).toEqual([{ title: 'Powers' }])
  })
  it('are deleted only when that is confirmed', async () => {
    const made = await open([rowOf(1, 4, 0, 0), rowOf(2, 0, 0, 0)])
    says['DELETE /api/sheets/1'] = () => new Response(null, { status: 204 })
    await made.find('[aria-label="Delete Sheet 1"]').trigger('click')
    await flushPromises()
    expect(made.text()).toContain('“Sheet 1” and its 4 problems')
    const button = (words: string) => made.findAll('button').find((each) => each.text() === words)!
    await button('Keep it').trigger('click')
    expect(asked.some((each) => each.what.startsWith('DELETE'))).toBe(false)
    await made.find('[aria-label="Delete Sheet 1"]').trigger('click')
    await flushPromises()
    await button('Delete it').trigger('click')
    await flushPromises()
    expect(made.findAll('.title').map((each) => each.text())).toEqual(['Sheet 2'])
  })
  it('say when the server does not answer; logging out forgets what was kept', async () => {
    line.down = true
    const made = await visit('/')
    expect(made.find('[role=alert]').text()).toContain('The server does not answer.')
    line.down = false
    says['POST /api/account/log-out'] = { teacher: null, needs_setup: false, ...VERSIONS }
    keep('key', 'x')
    await made
      .findAll('button')
      .find((each) => each.text() === 'Log out')!
      .trigger('click')
    await flushPromises()
    expect([kept('key'), path()]).toEqual([null, '/log-in'])
  })
})

describe('proof-reading', () => {
  const found = {
    problems: [
      {
        label: '2)',
        at: 3,
        places: [3],
        task: 'solve',
        given: 'x',
        given_latex: 'x',
        lines: [],
        beads: [],
        verdict: 'none',
        finished: false,
        findings: [{ kind: 'breaks', line: 1, place: 4, text: 'It breaks.', instead: '' }],
      },
    ],
    skipped: [{ line: 1, text: 'Name' }],
    faulty: 1,
  }
  it('reads on Ctrl+Enter, leads to the line, and makes a sheet', async () => {
    Object.assign(says, {
      'POST /api/keys/proofread': found,
      'POST /api/keys/sheet': { id: 9 },
      'GET /api/sheets/9': { ...sheet(), id: 9 },
    })
    const made = await visit('/keys')
    const area = made.find('textarea')
    expect(document.activeElement).toBe(area.element)
    await area.setValue('Name\n\n2) x = 3\n   x = 9')
    await area.trigger('keydown', key('Enter', { ctrlKey: true }))
    await flushPromises()
    expect(made.find('.sum').text()).toBe('1 problem: 0 hold, 1 to look at.')
    await made.find('.place').trigger('click')
    await flushPromises()
    const text = area.element as HTMLTextAreaElement
    expect(text.value.slice(text.selectionStart, text.selectionEnd)).toBe('   x = 9')
    await area.setValue('other')
    expect(made.find('.sum').text()).toContain('The text was changed since.')
    await made.find('.make input').setValue('Key')
    await made.find('.make').trigger('submit')
    await flushPromises()
    expect(path()).toBe('/sheets/9')
  })
  it('recalls what was pasted, and says when it can’t be read', async () => {
    keep('key', 'x = 3')
    const made = await visit('/keys')
    expect((made.find('textarea').element as HTMLTextAreaElement).value).toBe('x = 3')
    line.down = true
    await made.find('.actions button').trigger('click')
    await flushPromises()
    expect(made.find('[role=alert]').text()).toMatch(/^The server does not answer\. Your text is kept\./)
  })
})

describe('the desk by keyboard', () => {
  let lines: string[]
  beforeEach(() => {
    lines = ['x = 5 + 2']
    Object.assign(says, {
      'GET /api/sheets/1': () => sheet(3, 4),
      'GET /api/problems/3': () => problem(lines),
      'GET /api/problems/4': problem([], { id: 4, given: 'x = 4' }),
      'PUT /api/problems/3/lines': (body: unknown) => problem((lines = (body as { lines: string[] }).lines)),
      'POST /api/check/echo': (body: unknown) => echo((body as { text: string }).text),
      'GET /api/problems/3/methods': { methods: [method('undo', 'a', 'b')], why_none: '' },
      'GET /api/problems/3/anticipate': {
        answer: ['7'],
        answer_latex: '7',
        wrong: [],
        unfinished: [],
        options: [],
        why_none: '',
      },
      'GET /api/catalogue': { entries: [] },
      'GET /api/account/words': { words: {} },
    })
    useSession().take({ teacher, needs_setup: false, ...VERSIONS })
  })
  async function press(name: string, more: object = {}): Promise<void> {
    ;(document.activeElement ?? document.body).dispatchEvent(new KeyboardEvent('keydown', key(name, more)))
    await flushPromises()
    await flushPromises()
  }
  const alt = (letter: string) => press(letter, { altKey: true })

  it('goes from problem to problem, not beyond the sheet', async () => {
    await visit('/sheets/1')
    await press('PageUp')
    expect(path()).toBe('/sheets/1')
    await press('PageDown')
    expect(path()).toBe('/sheets/1/2')
    await press('PageDown')
    expect(path()).toBe('/sheets/1/2')
  })
  it.each([
    ['m', '/sheets/1/1/methods'],
    ['a', '/sheets/1/1/anticipate'],
    ['b', '/sheets/1/1/board'],
    ['g', '/sheets/1/1'],
  ])('turns to a face with Alt+%s and back with Alt+W', async (letter, goal) => {
    await visit('/sheets/1/1')
    await alt(letter)
    expect(path()).toBe(goal)
    await alt('w')
    expect(path()).toBe('/sheets/1/1')
  })
  it.each([
    ['n', 'New problem'],
    ['e', 'Change the problem'],
    ['c', 'Conventions of this sheet'],
    ['k', 'What the class knows'],
  ])('opens with Alt+%s: %s', async (letter, title) => {
    const made = await visit('/sheets/1/1')
    await alt(letter)
    expect(
      made
        .findAll('[role=dialog]')
        .filter((each) => each.isVisible())
        .map((each) => each.attributes('aria-label') ?? each.text())
        .join(' '),
    ).toContain(title)
    await press('PageDown')
    expect(path()).toBe('/sheets/1/1')
  })
  it('tells the next step in stages with Alt+H, and writes it', async () => {
    const made = await visit('/sheets/1/1')
    says['POST /api/problems/3/next-step'] = { look: 'Add.', step: step('x = 7'), method: '', shorter: '', done: false }
    for (let k = 0; k < 4; k++) await alt('h')
    expect(lines).toEqual(['x = 5 + 2', 'x = 7'])
    expect(made.find('.next').exists()).toBe(false)
  })
  it('copies the problem with Alt+D and goes to the copy', async () => {
    await visit('/sheets/1/1')
    says['POST /api/problems/3/copy'] = problem([], { id: 4 })
    await alt('d')
    expect([sentTo('POST /api/problems/3/copy').length, path()]).toEqual([1, '/sheets/1/2'])
  })
  it('asks before it replaces lines by a worked solution', async () => {
    const made = await visit('/sheets/1/1/methods')
    await made.find('.methods').trigger('keydown', key('Enter'))
    await flushPromises()
    expect(lines).toEqual(['x = 5 + 2'])
    await made
      .findAll('button')
      .find((each) => each.text() === 'Replace them')!
      .trigger('click')
    await flushPromises()
    await vi.waitFor(() => expect(lines).toEqual(['a', 'b']))
    expect(path()).toBe('/sheets/1/1')
  })
  it('says when the sheet can’t be opened, and when another window was quicker', async () => {
    says['GET /api/sheets/1'] = () => Response.json({ detail: 'There is no such sheet.' }, { status: 404 })
    expect((await visit('/sheets/1/1')).find('[role=alert]').text()).toBe('There is no such sheet.')
  })
  it('offers both versions in a conflict', async () => {
    const made = await visit('/sheets/1/1')
    says['PUT /api/problems/3/lines'] = () =>
      Response.json({ code: 'conflict', detail: 'changed', revision: 8, lines: ['x = 8', 'x = 7'] }, { status: 409 })
    const field = made.find('.middle input')
    await field.setValue('x = 7')
    await field.trigger('keydown', key('Enter'))
    await vi.waitFor(() => expect(made.find('[role=alert]').text()).toContain('Yours has 2 lines, the other 2.'))
    await made
      .findAll('button')
      .find((each) => each.text() === 'Take the other')!
      .trigger('click')
    await flushPromises()
    expect(made.find('[role=alert]').exists()).toBe(false)
  })
  it('shows the panel of keys with F1, and turns through its regions with F6', async () => {
    const made = await visit('/sheets/1/1')
    await press('F6')
    expect((document.activeElement as HTMLElement).className).toContain('right')
    await press('F1')
    expect(made.text()).toContain('Keys and notation')
  })
  it('counts the conventions that are set and what is not taught', async () => {
    says['GET /api/sheets/1'] = {
      ...sheet(3),
      conventions: { decimal: 'comma', moves: 'margin' },
      untaught: ['factoring'],
      problems: [row(3)],
    }
    const made = await visit('/sheets/1/1')
    expect(made.find('.bar').text()).toContain('2 conventions set')
    expect(made.find('.bar').text()).toContain('1 not taught yet')
  })
})

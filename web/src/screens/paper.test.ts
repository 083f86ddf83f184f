import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter, RouterView } from 'vue-router'
import { defineComponent, h } from 'vue'
import BuildScreen from './BuildScreen.vue'
import PrintScreen from './PrintScreen.vue'
import { useSession } from '@/features/session/store'
import { asked, beginAnew, key, line, person, says, sentTo, sheet, VERSIONS } from '@/testing/server'

const router = createRouter({
  history: createMemoryHistory(),
  routes: [
    { path: '/build', component: BuildScreen },
    { path: '/sheets/:id/print', component: PrintScreen, props: ({ params }) => ({ sheetId: Number(params.id) }) },
    ...['/', '/keys', '/people', '/account', '/sheets/:id', '/sheets/:id/:place'].map((path) => ({
      path,
      component: { template: '<p />' },
    })),
  ],
})
let made: VueWrapper
async function visit(path: string): Promise<void> {
  await router.push(path)
  made = mount(
    defineComponent(() => () => h(RouterView)),
    { attachTo: document.body, global: { plugins: [router], stubs: { teleport: true, transition: true } } },
  )
  await flushPromises()
}
const rung = (given: string, difficulty: number, more: object = {}) => ({
  task: 'solve',
  given,
  variable: '',
  numbers: 'real',
  method: '',
  given_latex: given,
  answer_latex: '2',
  difficulty,
  family: 'linear-equations',
  level: 1,
  adds: `adds ${given}`,
  ...more,
})
const three = [rung('x = 1', 2), rung('x = 2', 3), rung('x = 3', 4)]
const pinned = (body: unknown) => (body as { kept: { given: string }[] }).kept.map((each) => rung(each.given, 1))
/** A ladder of four parts, of which so many are drawn. */
const drawn = (done: number, rungs: object[], more: object = {}) => ({
  id: 6,
  kind: 'ladder',
  title: 'A ladder',
  total: 4,
  done,
  ended: done === 4,
  trouble: [],
  without: [],
  rungs,
  ...more,
})
beforeEach(() => {
  made?.unmount()
  document.body.innerHTML = ''
  beginAnew()
  useSession().take({ teacher: person('demo', 'Tavi'), needs_setup: false, ...VERSIONS })
  Object.assign(says, {
    'GET /api/families': {
      families: ['linear', 'factor'].map((id) => ({
        id: `${id}-x`,
        name: `About ${id}`,
        task: 'solve',
        description: '',
        example: '',
        levels: [
          { number: 1, name: 'a' },
          { number: 2, name: 'b' },
        ],
      })),
      events: ['no-solution'],
      slips: [{ id: 'sign', name: 'Sign lost' }],
    },
    'POST /api/ladders': (body: unknown) => ({
      rungs: [...pinned(body), ...three],
    }),
    'POST /api/ladders/runs': (body: unknown) => drawn(4, [...pinned(body), ...three]),
    'POST /api/another': (body: unknown) => ({ rung: rung(`${(body as { what: string }).what} x`, 5) }),
    'POST /api/built': { ...sheet(), id: 8 },
  })
})
const given = () => made.findAll('ol li').map((each) => each.find('.given annotation').text())
async function press(name: string, more: object = {}): Promise<void> {
  ;(document.activeElement ?? document.body).dispatchEvent(new KeyboardEvent('keydown', key(name, more)))
  await flushPromises()
}

describe('building by keyboard', () => {
  async function proposed(): Promise<void> {
    await visit('/build')
    await made.find('[type=search]').setValue('linear')
    await made.find('[type=search]').trigger('keydown', key('Enter'))
    await made.find('[type=search]').trigger('keydown', key('Enter'))
    await flushPromises()
  }
  it('takes a kind of problem by Enter, proposes by the next, and stands on the first problem', async () => {
    await proposed()
    expect(sentTo('POST /api/ladders/runs')).toEqual([
      { families: ['linear-x'], low: 1, high: 2, count: 12, events: [], slip: '', largest: 400, seed: 1, kept: [] },
    ])
    expect(given()).toEqual(['x = 1', 'x = 2', 'x = 3'])
    expect(document.activeElement!.getAttribute('aria-label')).toContain('x = 1')
    expect(made.find('.sum').text()).toContain('3 problems, about')
  })
  it('proposes problems in which an error would show, without a kind being chosen', async () => {
    await visit('/build')
    const propose = made.find('.wishes button[type=submit]')
    expect(propose.attributes('disabled')).toBeDefined()
    await made.find('.wishes select').setValue('sign')
    await made.find('.wishes').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/ladders/runs')).toMatchObject([{ families: [], slip: 'sign' }])
  })
  it('exchanges, leaves out, moves, and undoes each', async () => {
    await proposed()
    await press('ArrowDown')
    await press('h')
    expect(sentTo('POST /api/another').at(-1)).toMatchObject({
      what: 'harder',
      problem: { given: 'x = 2' },
      known: [{ given: 'x = 1' }, { given: 'x = 2' }, { given: 'x = 3' }],
    })
    expect(given()).toEqual(['x = 1', 'harder x', 'x = 3'])
    await press('ArrowDown', { altKey: true })
    expect(given()).toEqual(['x = 1', 'x = 3', 'harder x'])
    await press('Delete')
    expect(given()).toEqual(['x = 1', 'x = 3'])
    await press('z', { ctrlKey: true })
    await press('z', { ctrlKey: true })
    await press('z', { ctrlKey: true })
    expect(given()).toEqual(['x = 1', 'x = 2', 'x = 3'])
    await press('y', { ctrlKey: true })
    expect(given()).toEqual(['x = 1', 'harder x', 'x = 3'])
  })
  it('keeps what is kept when the rest is proposed anew', async () => {
    await proposed()
    await press('End')
    await press('k')
    expect(made.findAll('ol li')[2]!.text()).toContain('kept')
    await made.find('.wishes').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/ladders/runs').at(-1)).toMatchObject({ kept: [{ given: 'x = 3' }] })
    expect(given()[0]).toBe('x = 3')
    expect(made.findAll('ol li b').length).toBeGreaterThan(0)
  })
  it('changes the form by a key, and puts words over a problem and those behind it', async () => {
    await proposed()
    await press('ArrowDown')
    await press('f')
    await press('f')
    expect(made.findAll('ol li')[1]!.text()).toContain('to mend')
    await press('i')
    const field = made.find('.words')
    expect(document.activeElement).toBe(field.element)
    await field.setValue('Find the slip.')
    await field.trigger('keydown', key('Enter'))
    await flushPromises()
    expect(made.findAll('.heading').map((each) => each.text())).toEqual(['Find the slip.'])
    await press('Home')
    await press('i')
    await made.find('.words').setValue('Not this')
    await made.find('.words').trigger('keydown', key('Escape'))
    await flushPromises()
    expect(made.findAll('.heading')).toHaveLength(1)
    await press('ArrowDown')
    await press('r')
    await made.find('.make input').setValue('Thursday')
    await made.find('.make').trigger('submit')
    await flushPromises()
    expect((sentTo('POST /api/built')[0] as { problems: object[] }).problems).toMatchObject([
      { given: 'x = 1' },
      { given: 'like x', form: 'mend', instruction: 'Find the slip.' },
      { given: 'x = 3', instruction: 'Find the slip.' },
    ])
  })
  it('changes a problem by hand, and leaves it where it can not be worked', async () => {
    await proposed()
    await press('Enter')
    await made.find('.words').setValue('5x = 35')
    await made.find('.words').trigger('keydown', key('Enter'))
    await flushPromises()
    expect(sentTo('POST /api/ladders').at(-1)).toMatchObject({ count: 1, kept: [{ given: '5x = 35' }] })
    expect(given()).toEqual(['5x = 35', 'x = 2', 'x = 3'])
    says['POST /api/ladders'] = Response.json({ code: 'ladder', detail: 'A bracket is not closed.' }, { status: 400 })
    await press('Enter')
    await made.find('.words').setValue('5(x = 35')
    await made.find('.words').trigger('keydown', key('Enter'))
    await flushPromises()
    expect(made.find('.ladder [role=alert]').text()).toContain('A bracket is not closed.')
    expect(made.find<HTMLInputElement>('.words').element.value).toBe('5(x = 35')
    expect(document.activeElement).toBe(made.find('.words').element)
    expect(given()).toEqual(['5x = 35', 'x = 2', 'x = 3'])
  })
  it('says when none is found, and loses nothing', async () => {
    await proposed()
    says['POST /api/another'] = { rung: null }
    await press('e')
    expect(made.find('[role=alert]').text()).toContain('There is none easier in its family.')
    line.down = true
    await press('r')
    expect(made.find('[role=alert]').text()).toContain('What stands here is kept')
    expect(given()).toEqual(['x = 1', 'x = 2', 'x = 3'])
  })
  it('comes back as it was left, and makes the sheet', async () => {
    await proposed()
    made.unmount()
    const { createPinia, setActivePinia } = await import('pinia')
    setActivePinia(createPinia())
    useSession().take({ teacher: person('demo', 'Tavi'), needs_setup: false, ...VERSIONS })
    await router.push('/')
    await visit('/build')
    expect(given()).toEqual(['x = 1', 'x = 2', 'x = 3'])
    await made.find('.make').trigger('submit')
    expect(sentTo('POST /api/built')).toEqual([])
    await made.find('.make input').setValue('Thursday')
    await made.find('.make').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/built')).toMatchObject([
      { title: 'Thursday', problems: [{ given: 'x = 1' }, { given: 'x = 2' }, { given: 'x = 3' }] },
    ])
    expect(router.currentRoute.value.path).toBe('/sheets/8/print')
    await router.push('/build')
    await flushPromises()
    expect(given()).toEqual([])
  })
})

describe('work that takes longer', () => {
  beforeEach(() => vi.useFakeTimers())
  afterEach(() => vi.useRealTimers())
  const parts = () => made.find('.run [role=status]').text()
  const cancel = () => made.find('.run button').trigger('click')
  async function propose(...looks: unknown[]): Promise<void> {
    says['POST /api/ladders/runs'] = looks.shift()
    says['GET /api/ladders/runs/6'] = () => looks.shift()
    says['DELETE /api/runs/6'] = new Response(null, { status: 204 })
    await visit('/build')
    await made.find('.families input').setValue(true)
    await made.find('.wishes').trigger('submit')
    await flushPromises()
  }
  it('shows a ladder as it is drawn, and what it has not', async () => {
    await propose(drawn(0, []), drawn(2, three.slice(0, 2)), drawn(4, three, { without: ['hole'] }))
    expect(parts()).toBe('0 of 4 parts drawn')
    await vi.advanceTimersByTimeAsync(200)
    expect([parts(), made.findAll('.coming li').length]).toEqual(['2 of 4 parts drawn', 2])
    await vi.advanceTimersByTimeAsync(300)
    expect(given()).toEqual(['x = 1', 'x = 2', 'x = 3'])
    expect(made.find('.run').exists()).toBe(false)
    expect(made.find('.ladder [role=status]').text()).toBe('No problem was found with a hole.')
  })
  it('keeps what was drawn when it is cancelled', async () => {
    await propose(drawn(0, []), drawn(2, three.slice(0, 2)))
    await vi.advanceTimersByTimeAsync(200)
    await cancel()
    await vi.advanceTimersByTimeAsync(300)
    expect(given()).toEqual(['x = 1', 'x = 2'])
    expect(asked.at(-1)?.what).toBe('DELETE /api/runs/6')
  })
  it('leaves what stands when it is cancelled before anything was drawn', async () => {
    await propose(drawn(4, three))
    says['POST /api/ladders/runs'] = drawn(0, [])
    await made.find('.wishes').trigger('submit')
    await flushPromises()
    await cancel()
    await vi.advanceTimersByTimeAsync(300)
    expect(given()).toEqual(['x = 1', 'x = 2', 'x = 3'])
  })
  it('says that nobody works on it, and that the server is away', async () => {
    says['GET /api/ladders/runs/6'] = drawn(1, [])
    await propose(drawn(1, []), ...Array.from({ length: 40 }, () => drawn(1, [])))
    await vi.advanceTimersByTimeAsync(9_000)
    expect(parts()).toBe('1 of 4 parts drawn')
    await vi.advanceTimersByTimeAsync(3_000)
    expect(parts()).toContain('nobody works on it just now')
    line.down = true
    await vi.advanceTimersByTimeAsync(1_000)
    expect(parts()).toContain('the server does not answer just now')
    expect(made.find('[role=alert]').exists()).toBe(false)
  })
  it.each([
    [true, {}],
    [false, { so_far: 'true' }],
  ])('makes the items of a sheet before its pages, to the end or as far as it came: %s', async (whole, more) => {
    const item = (done: number) => ({ ...drawn(done, []), kind: 'items' })
    const looked: Record<string, string>[] = []
    Object.assign(says, {
      'GET /api/sheets/8': { ...sheet(3), id: 8, title: 'Thursday' },
      'GET /api/sheets/8/advice': { advice: [], minutes: 3 },
      'GET /api/sheets/8/paper': (_: unknown, { url }: Request) => {
        const query = Object.fromEntries(new URL(url).searchParams)
        looked.push(query)
        return query.quick
          ? Response.json({ code: 'to-make', detail: '9 of 9 items are still to be worked out.' }, { status: 400 })
          : { pages: ['<svg id="1"/>'], doubts: [] }
      },
      'POST /api/sheets/8/items': item(0),
      'GET /api/runs/6': item(whole ? 4 : 2),
      'DELETE /api/runs/6': new Response(null, { status: 204 }),
    })
    await visit('/sheets/8/print')
    expect(sentTo('POST /api/sheets/8/items')).toEqual([{ kind: 'sheet' }])
    expect(parts()).toBe('0 of 4 items made')
    await vi.advanceTimersByTimeAsync(200)
    if (!whole) await cancel()
    await vi.advanceTimersByTimeAsync(500)
    expect(looked.at(-1)).toMatchObject({ kind: 'sheet', ...more })
    expect('so_far' in looked.at(-1)!).toBe(!whole)
    expect(made.find('.paper').exists()).toBe(true)
    expect(made.find('[role=alert]').exists()).toBe(false)
  })
})

describe('printing', () => {
  beforeEach(() =>
    Object.assign(says, {
      'GET /api/sheets/8': { ...sheet(3), id: 8, title: 'Thursday' },
      'GET /api/sheets/8/paper': {
        pages: ['<svg id="1"/>', '<svg id="2"/>'],
        doubts: [{ item: 2, text: 'No method.' }],
      },
      'GET /api/sheets/8/advice': {
        advice: [{ code: 'same-item', items: [1, 3], text: 'Numbers 1 and 3 are the same item.', mend: 'replace' }],
        minutes: 31.6,
      },
    }),
  )
  const shows = () => decodeURIComponent(made.find('.paper').attributes('src')!)
  it('shows the pages, what is doubtful, and what a colleague would say', async () => {
    await visit('/sheets/8/print')
    expect(made.find('h1').text()).toBe('Thursday')
    expect(shows()).toContain('id="1"')
    await made.find('[aria-label="Next page"]').trigger('click')
    expect(shows()).toContain('id="2"')
    expect(made.find('.doubts').text()).toContain('Number 2: No method.')
    expect(made.find('.turn').text()).toContain('about 32 minutes')
    expect(made.find('.advice').text()).toContain('A colleague would say one thing')
    expect(made.find('.advice a').attributes('href')).toBe('/sheets/8/3')
  })
  it('asks again when something else is wished, and opens the PDF of what is shown', async () => {
    await visit('/sheets/8/print')
    await made.find('[value=key]').setValue()
    await made.findAll('[name=columns]')[1]!.setValue()
    await flushPromises()
    expect(asked.filter((each) => each.what === 'GET /api/sheets/8/paper')).toHaveLength(3)
    const address = new URL(made.find('.open').attributes('href')!, 'http://x')
    expect([address.pathname, address.searchParams.get('kind'), address.searchParams.get('columns')]).toEqual([
      '/api/sheets/8/paper.pdf',
      'key',
      '2',
    ])
    expect(made.find('[name=space]').exists()).toBe(false)
  })
  it('gives an item a form and words of its own, and shows the pages anew', async () => {
    const rows = sheet(3).problems.map((each: object) => ({ ...each, form: 'work', instruction: '' }))
    Object.assign(says, { 'GET /api/sheets/8': { ...sheet(3), id: 8, problems: rows }, 'PATCH /api/problems/3': {} })
    await visit('/sheets/8/print')
    await made.find('[aria-label="Form of number 1"]').setValue('mend')
    await flushPromises()
    await made.find('[aria-label="Instruction over number 1"]').setValue('Where is the slip?')
    await made.find('[aria-label="Instruction over number 1"]').trigger('change')
    await flushPromises()
    expect(sentTo('PATCH /api/problems/3')).toContainEqual({ form: 'mend' })
    expect(sentTo('PATCH /api/problems/3')).toContainEqual({ instruction: 'Where is the slip?' })
    expect(asked.filter((each) => each.what === 'GET /api/sheets/8/paper').length).toBeGreaterThan(2)
  })
  it('mends what is said by one key, and puts it back', async () => {
    const before = { problem: { task: 'solve', given: 'x = 5' }, lines: ['x = 5'] }
    Object.assign(says, { 'POST /api/sheets/8/mended': { problem: 5, before }, 'PUT /api/problems/5': {} })
    await visit('/sheets/8/print')
    made.find<HTMLElement>('.advice li').element.focus()
    says['GET /api/sheets/8/advice'] = {
      advice: [{ code: 'key-broken', items: [2], text: 'Its key breaks.', mend: 'key' }],
      minutes: 30,
    }
    await press('m')
    expect(sentTo('POST /api/sheets/8/mended')).toEqual([{ item: 3, mend: 'replace', seed: 1 }])
    expect(made.find('.advice').text()).toContain('Number 3: put another like it.')
    expect(document.activeElement!.textContent).toContain('Its key breaks.')
    await made.find('.lesson').setValue(20)
    await made.find('.lesson').trigger('change')
    await flushPromises()
    expect(localStorage.getItem(Object.keys(localStorage).find((each) => each.includes('paper.lesson'))!)).toBe('20')
    made.find<HTMLElement>('.advice li').element.focus()
    await press('z', { ctrlKey: true })
    expect(sentTo('PUT /api/problems/5')).toEqual([before])
    expect(made.find('.advice [role=status]').exists()).toBe(false)
    line.down = true
    await press('m')
    expect(made.find('.advice [role=alert]').text()).toContain('Nothing was changed')
  })
  it('makes another version and says what stayed', async () => {
    Object.assign(says, {
      'POST /api/sheets/8/versions': { sheet: 9, stayed: [2] },
      'GET /api/sheets/9': { ...sheet(3), id: 9 },
      'GET /api/sheets/9/paper': { pages: ['<svg/>'], doubts: [] },
      'GET /api/sheets/9/advice': { advice: [], minutes: 5 },
    })
    await visit('/sheets/8/print')
    await made.find('.another button').trigger('click')
    await flushPromises()
    expect(sentTo('POST /api/sheets/8/versions')).toEqual([{ name: 'B', seed: 1 }])
    expect(router.currentRoute.value.path).toBe('/sheets/9/print')
    expect(made.text()).toContain('Of number 2 no other like it was found')
    expect(made.text()).toContain('Nothing to say against it.')
  })
  it('keeps the last pages when the server does not answer', async () => {
    await visit('/sheets/8/print')
    line.down = true
    await made.find('[value=answers]').setValue()
    await flushPromises()
    expect(made.find('.pages [role=alert]').text()).toContain('Nothing of the sheet is lost')
    expect(shows()).toContain('id="1"')
  })
})

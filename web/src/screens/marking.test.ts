import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter, RouterView } from 'vue-router'
import { defineComponent, h } from 'vue'
import ClassesScreen from './ClassesScreen.vue'
import MarkScreen from './MarkScreen.vue'
import DayInput from '@/components/DayInput.vue'
import { studentsIn } from '@/features/marking/classes'
import { useMarking } from '@/features/marking/store'
import { useOutbox } from '@/lib/outbox'
import { useSession } from '@/features/session/store'
import { asked, beginAnew, echo, key, line, link, person, says, sentTo, VERSIONS } from '@/testing/server'

const router = createRouter({
  history: createMemoryHistory(),
  routes: [
    { path: '/classes', component: ClassesScreen },
    {
      path: '/sets/:set(\\d+)/:face(patterns|pages|room|slips)?',
      component: MarkScreen,
      props: ({ params }) => ({ setId: Number(params.set), face: String(params.face || 'table') }),
    },
    ...['/', '/classes/:id/patterns', '/bank', '/build', '/keys', '/people', '/account'].map((path) => ({
      path,
      component: { template: '<p />' },
    })),
  ],
})
let made: VueWrapper
async function visit(path: string): Promise<void> {
  await router.push('/')
  await router.push(path)
  made = mount(
    defineComponent(() => () => h(RouterView)),
    { attachTo: document.body, global: { plugins: [router], stubs: { teleport: true, transition: true } } },
  )
  await flushPromises()
}
async function press(name: string, more: object = {}): Promise<void> {
  ;(document.activeElement ?? document.body).dispatchEvent(new KeyboardEvent('keydown', key(name, more)))
  await flushPromises()
}
const scheme = {
  kind: 'points',
  total: 3,
  points: ['method', 'method', 'accuracy'],
  lucky: 'loses',
  answer_alone: 'accuracy',
  broken_right: 'loses',
  rounding: 'half',
}
const cell = (working: number, student: number, item: number, more: object = {}) => ({
  working,
  student,
  item,
  beads: [{ kind: 'equation', relation: 'holds' }],
  waits: false,
  outdated: false,
  proposed: 2,
  mark: null as number | null,
  eye: [] as string[],
  alike: `a${working}`,
  slip: '',
  ...more,
})
const total = (student: number, more: object = {}) => ({
  student,
  state: 'open',
  late: false,
  total: null as number | null,
  first: null,
  counts: null as number | null,
  of: 6,
  grade: '',
  ...more,
})
function table(more: object = {}) {
  return {
    id: 7,
    school_class: 1,
    class_name: 'Evening A',
    title: 'Thursday',
    day: '2026-03-05',
    total: 4,
    done: 4,
    items: [1, 2].map((number) => ({
      id: 10 + number,
      number,
      task: 'solve',
      given: `x = ${number}`,
      given_latex: `x = ${number}`,
      variable: '',
      key: [echo('x', { right: `= ${number}` })],
      scheme,
    })),
    students: ['Ada', 'Bo', 'Cleo'].map((name, k) => ({ id: k + 1, name, number: '' })),
    cells: [cell(1, 1, 11), cell(2, 2, 11, { eye: ['owed'] }), cell(3, 3, 11), cell(4, 1, 12)],
    totals: [total(1), total(2, { state: 'absent' }), total(3)],
    late_percent: 0,
    boundaries: [] as object[],
    again_of: 0,
    in_force: person('demo', '').in_force,
    ...more,
  }
}
const opened = (id: number) => ({
  id,
  versions: [] as object[],
  student: 1,
  item: 11,
  source: 'text',
  lines: ['2x = 4', 'x = 3'],
  echoes: [echo('2x', { right: '= 4' }), echo('x', { right: '= 3' })],
  report: {
    links: [link(1, 'holds'), link(2, 'breaks')],
    owed: [],
    excluded: [],
    error: null,
    answer: { verdict: 'wrong', text: '' },
    finish: { finished: false, remaining: [] },
  },
  tints: [],
  proposal: {
    mark: 2,
    total: 3,
    points: [
      { kind: 'method', worth: 1, got: 1, why: 'line 1 holds', line: 1 },
      { kind: 'accuracy', worth: 1, got: 0, why: 'lost at line 2', line: 2 },
    ],
    eye: ['owed'],
    alike: 'a',
    slip: '',
    line: 2,
    format: 1,
  },
  mark: null,
  confirmed_by: '',
  decisions: [],
  same: 1,
})
beforeEach(() => {
  made?.unmount()
  document.body.innerHTML = ''
  beginAnew()
  useSession().take({ teacher: person('demo', 'Tavi'), needs_setup: false, ...VERSIONS })
  Object.assign(says, {
    'GET /api/sets/7': table(),
    'POST /api/sets/7/decisions': (body: unknown) => ({
      marks: Object.fromEntries(
        (body as { workings: number[] }).workings.map((id) => [id, (body as { mark: number | null }).mark ?? 2]),
      ),
      totals: [total(1, { state: 'complete', total: 5, counts: 5 })],
    }),
    'DELETE /api/sets/7/decisions': { marks: { 1: null }, totals: [] },
  })
  for (const id of [1, 2, 3, 4]) says[`GET /api/workings/${id}`] = opened(id)
})
const decisions = () =>
  (sentTo('POST /api/sets/7/decisions') as object[]).map((each) => {
    const told: Record<string, unknown> = { ...each }
    delete told.key // drawn anew each time
    return told
  })
const here = () => document.activeElement!.getAttribute('aria-label')
async function marking(): Promise<void> {
  await visit('/sets/7')
  made.find<HTMLElement>('td[tabindex="0"]').element.focus()
}

describe('the marking table', () => {
  it('shows proposals as such, and says what needs an eye', async () => {
    await marking()
    expect(made.findAll('td .proposed')).toHaveLength(4)
    expect(made.findAll('td .proposed.eye')).toHaveLength(1)
    expect(made.findAll('td .mark')).toHaveLength(0)
    expect(made.findAll('td').map((each) => each.attributes('aria-label'))).toContain(
      'Bo, number 1: 2 proposed, look: A check is owed.',
    )
    expect(made.find('[role=status]').text()).toContain('0 of 4 confirmed')
  })
  it('writes marks as the class does', async () => {
    says['GET /api/sets/7'] = table({
      cells: [cell(1, 1, 11, { proposed: 2.5 })],
      in_force: { ...person('demo', '').in_force, decimal: 'comma' },
    })
    await marking()
    expect(made.find('td .proposed').text()).toBe('2,5')
    expect(made.find('td').attributes('aria-label')).toContain('2,5 proposed')
  })
  it('confirms by the space bar and goes on, one key a working', async () => {
    await marking()
    for (let k = 0; k < 4; k++) await press(' ')
    expect(decisions()).toEqual([1, 2, 3, 4].map((working) => ({ workings: [working], mark: null, alike: false })))
    expect(made.findAll('td .mark').map((each) => each.text())).toEqual(['2', '2', '2', '2'])
    expect(made.find('[role=status]').text()).toContain('4 of 4 confirmed')
    expect(made.find('tbody .sum').text()).toBe('5')
  })
  it('gives another mark by a number, adds a half by a dot, and takes it back', async () => {
    await marking()
    await press('1')
    await press('.')
    expect(decisions()).toEqual([
      { workings: [1], mark: 1, alike: false },
      { workings: [1], mark: 1.5, alike: false },
    ])
    await press('z', { ctrlKey: true })
    expect(asked.filter((each) => each.what === 'DELETE /api/sets/7/decisions')).toHaveLength(1)
    expect(made.findAll('td .mark')).toHaveLength(0)
    expect(made.find('[role=status]').text()).toContain('Ada, 1 taken back: no mark.')
  })
  it('names the place that was taken back, goes there, and decides it again', async () => {
    says['POST /api/sets/7/decisions/again'] = { marks: { 4: 2 }, totals: table().totals }
    await marking()
    says['DELETE /api/sets/7/decisions'] = { marks: { 2: null, 3: null }, totals: table().totals }
    await press('z', { ctrlKey: true })
    expect(made.find('[role=status]').text()).toContain('Bo, 1 taken back: no mark, and 1 more.')
    expect(made.find('td[tabindex="0"]').attributes('aria-label')).toContain('Bo, number 1')
    await press('y', { ctrlKey: true })
    expect(made.find('[role=status]').text()).toContain('Ada, 2 decided again: mark 2.')
    expect(made.find('td[tabindex="0"]').attributes('aria-label')).toContain('Ada, number 2: mark 2, confirmed')
    await press('h')
    await press('z', { ctrlKey: true })
    expect(made.find('[role=status]').text()).toContain('student 2, 1 taken back') // names stay hidden
  })
  it('tells marks of an older scheme, and proposes them anew one by one or all', async () => {
    const cells = [cell(1, 1, 11, { mark: 3, outdated: true }), cell(2, 2, 11, { mark: 1, outdated: true })]
    says['GET /api/sets/7'] = table({ cells: [...cells, cell(4, 1, 12, { mark: 2 })] })
    says['POST /api/sets/7/decisions/anew'] = (body: unknown) => ({
      marks: Object.fromEntries((body as { workings: number[] }).workings.map((each) => [each, null])),
      totals: table().totals,
    })
    await visit('/sets/7')
    expect(made.find('.older').text()).toContain('2 marks were confirmed by an older scheme')
    expect(made.find('td').attributes('aria-label')).toContain('mark 3, confirmed by an older scheme; 2 proposed now')
    const offer = (words: string) => made.findAll('.older button').find((each) => each.text().startsWith(words))!
    await offer('only Ada, 1').trigger('click')
    await flushPromises()
    expect(made.find('.older').text()).toContain('1 mark was confirmed')
    await offer('propose all').trigger('click')
    await flushPromises()
    expect(sentTo('POST /api/sets/7/decisions/anew')).toEqual([{ workings: [1] }, { workings: [2] }])
    expect(made.find('.older').exists()).toBe(false)
    expect(made.findAll('td .mark')).toHaveLength(1)
  })
  it('shows what was marked before other lines came, and puts it back', async () => {
    const before = { source: 'room', mark: 3, confirmed_by: 'maren', who: 'demo', until: '2026-03-05T10:00:00Z' }
    says['GET /api/workings/1'] = { ...opened(1), versions: [{ ...before, lines: ['2x = 4', 'x = 2'] }] }
    says['PUT /api/sets/7/workings'] = opened(1)
    await marking()
    await press('Enter')
    expect(made.find('.version').text()).toContain('when demo wrote other lines; mark 3, by maren')
    expect(made.findAll('.version code').map((each) => each.text())).toEqual(['2x = 4', 'x = 2'])
    await made.find('.version button').trigger('click')
    await flushPromises()
    expect(sentTo('PUT /api/sets/7/workings')).toEqual([{ student: 1, item: 11, lines: ['2x = 4', 'x = 2'] }])
  })
  it('loses nothing of who is faster than the server, and takes back what is refused', async () => {
    await marking()
    for (let k = 0; k < 3; k++)
      (document.activeElement ?? document.body).dispatchEvent(new KeyboardEvent('keydown', key(' ')))
    await flushPromises()
    for (let k = 0; k < 3; k++) await press(' ')
    expect(made.findAll('td .mark')).toHaveLength(4)
    await press('z', { ctrlKey: true })
    says['POST /api/sets/7/decisions'] = Response.json({ detail: 'This item is worth 2.' }, { status: 400 })
    made.find<HTMLElement>('td').element.focus()
    await press('3')
    expect(made.find('[role=alert]').text()).toContain('This item is worth 2.')
    expect(made.findAll('td .mark')).toHaveLength(3)
  })
  it('is marked by finger too: chosen, confirmed, another mark, taken back', async () => {
    await marking()
    const tool = (words: string) => made.findAll('.tools button').find((each) => each.text() === words)!
    await made.findAll('td')[2]!.trigger('click') // Bo, number 1
    await flushPromises()
    expect(made.find('.tools').text()).toContain('Bo, 1')
    await tool('confirm 2').trigger('click')
    await flushPromises()
    await made.find('.tools [aria-label="3 as its mark"]').trigger('click')
    await flushPromises()
    expect(decisions()).toEqual([
      { workings: [2], mark: null, alike: false },
      { workings: [3], mark: 3, alike: false },
    ])
    await tool('take back').trigger('click')
    await flushPromises()
    expect(asked.some((each) => each.what === 'DELETE /api/sets/7/decisions')).toBe(true)
    await tool('open').trigger('click')
    await flushPromises()
    expect(made.find('.opened').exists()).toBe(true)
  })
  it('shuffles the papers and puts them back, standing on the same paper', async () => {
    await marking()
    await press('ArrowDown')
    useMarking().mix(7)
    await flushPromises()
    const order = made.findAll('tbody th:first-child').map((each) => each.text())
    expect([...order].sort()).toEqual(['Ada', 'Bo', 'Cleo'])
    expect(order).not.toEqual(['Ada', 'Bo', 'Cleo'])
    expect(made.find('td[tabindex="0"]').attributes('aria-label')).toContain('Bo, number 1')
    made.find<HTMLElement>('td[tabindex="0"]').element.focus()
    await press('s')
    expect(made.findAll('tbody th:first-child').map((each) => each.text())).toEqual(['Ada', 'Bo', 'Cleo'])
  })
  it('decides all that are alike in one go', async () => {
    says['POST /api/sets/7/decisions'] = { marks: { 1: 2, 3: 2 }, totals: [] }
    await marking()
    await press('a')
    expect(decisions()).toEqual([{ workings: [1], mark: null, alike: true }])
    expect(made.findAll('td .mark')).toHaveLength(2)
    expect(made.find('[role=status]').text()).toContain('2 workings decided alike.')
    expect(here()).toContain('Bo, number 1')
  })
  it('is walked by the arrows, and finds what needs an eye', async () => {
    await marking()
    await press('ArrowRight')
    expect(here()).toBe('Ada, number 2: 2 proposed')
    await press('ArrowDown')
    expect(here()).toBe('Bo, number 2: nothing written')
    await press('e')
    expect(here()).toContain('Bo, number 1')
    await press('h')
    expect(here()).toContain('student 2, number 1')
    expect(made.text()).not.toContain('Cleo')
  })
  it('opens a working beside the key at the first line that does not hold', async () => {
    const found = opened(1)
    const slip = {
      id: 's',
      name: 'Sign lost',
      kind: 'care',
      done: 'A sign was lost.',
      why: 'It counts.',
      cue: 'Mind the sign.',
      instead: 'x = 2',
      instead_latex: 'x = 2',
      at: [],
      before_at: [],
      after_at: [],
    }
    says['GET /api/workings/1'] = {
      ...found,
      report: { ...found.report, links: [found.report.links[0], link(2, 'breaks', { slip })] },
    }
    await marking()
    await press('Enter')
    expect(made.find('.opened li.on').text()).toContain('breaks')
    expect(made.find('.opened .key').text()).toContain('1')
    expect(made.find('.points').text()).toContain('0 of 1 accuracy: lost at line 2')
    expect(made.find('.points').text()).toContain('1 more alike')
    expect(made.find('.opened').text()).toContain('Sign lost')
    expect(made.find('.opened').text()).not.toContain('use it') // the lines are the student's
    await press('ArrowDown')
    expect(asked.map((each) => each.what)).toContain('GET /api/workings/2')
    await press('Escape')
    expect(made.find('.opened').exists()).toBe(false)
  })
  it('takes typed lines, student after student, and loses none when the server does not answer', async () => {
    says['PUT /api/sets/7/workings'] = opened(1)
    await marking()
    await press('t')
    const field = made.find<HTMLTextAreaElement>('.typing textarea')
    expect(document.activeElement).toBe(field.element)
    await field.setValue('3x = 15\n\n x = 5 ')
    line.down = true
    await field.trigger('keydown', key('Tab'))
    await flushPromises()
    expect(made.find('.typing').text()).toContain('Bo, number 1') // one types on
    expect(useOutbox().entries).toHaveLength(1)
    line.down = false
    await useOutbox().send()
    await flushPromises()
    expect(sentTo('PUT /api/sets/7/workings').at(-1)).toEqual({ student: 1, item: 11, lines: ['3x = 15', 'x = 5'] })
    expect(made.find('.typing').text()).toContain('Bo, number 1')
  })
  it('goes from the last student to the first of the next item, and ends at the very last', async () => {
    says['PUT /api/sets/7/workings'] = opened(1)
    await marking()
    useMarking().row = 2
    await flushPromises()
    made.find<HTMLElement>('td[tabindex="0"]').element.focus()
    await press('t')
    await made.find('.typing textarea').trigger('keydown', key('Tab'))
    // the answer to what was kept may need more than one turn
    await vi.waitFor(() => expect(made.find('.typing').text()).toContain('Ada, number 2'))
    useMarking().row = 2
    await flushPromises()
    await made.find('.typing textarea').trigger('keydown', key('Tab'))
    await vi.waitFor(() => expect(made.find('.typing').exists()).toBe(false))
  })
  it('keeps what could not be sent while one types on', async () => {
    says['PUT /api/sets/7/workings'] = opened(1)
    await marking()
    await press('t')
    await made.find('.typing textarea').setValue('x = 5')
    says['PUT /api/sets/7/workings'] = () => Response.json({ detail: 'A line is too long.' }, { status: 422 })
    void made.find('.typing textarea').trigger('keydown', key('Tab'))
    await made.find('.typing textarea').setValue('x = 7') // before the server has refused it
    await flushPromises()
    expect(made.find<HTMLTextAreaElement>('.typing textarea').element.value).toBe('x = 7')
    expect(
      made
        .findAll('[role=alert]')
        .map((each) => each.text())
        .join(' '),
    ).toContain('Ada, 1 was not kept.')
    await made
      .findAll('button')
      .find((each) => each.text() === 'Go back to it')!
      .trigger('click')
    expect(made.find<HTMLTextAreaElement>('.typing textarea').element.value).toBe('x = 5')
    expect(made.find('.typing').text()).toContain('Ada, number 1')
  })
  it('offers what others wrote for the item as soon as it begins alike, and takes it by one key', async () => {
    says['GET /api/items/11/written'] = [
      { lines: ['3x = 29', 'x = 29/3'], count: 4 },
      { lines: ['3x = 15', 'x = 5'], count: 3 },
    ]
    await marking()
    await press('t')
    const field = made.find<HTMLTextAreaElement>('.typing textarea')
    expect(made.findAll('.typing li')).toHaveLength(0)
    await field.setValue('3x=2')
    expect(made.findAll('.typing li').map((each) => each.text())).toEqual(['Alt 1 3x = 29  →  x = 29/3 4 ×'])
    await field.trigger('keydown', key('1', { altKey: true }))
    expect(field.element.value).toBe('3x = 29\nx = 29/3')
    expect(made.findAll('.typing li')).toHaveLength(0)
  })
  it('takes in a pile, names what was left, and follows until it is verified', async () => {
    Object.assign(says, {
      'POST /api/sets/7/taken': {
        new: 2,
        changed: 0,
        same: 1,
        left: [{ place: 4, text: 'Dag', why: 'No student of the class has this name.' }],
      },
    })
    await marking()
    await made
      .findAll('.faces button')
      .find((each) => each.text() === 'Take in')!
      .trigger('click')
    await made.find('.take textarea').setValue('Ada\n1. x = 5')
    await made.find('.take textarea').trigger('keydown', key('Enter', { ctrlKey: true }))
    await flushPromises()
    expect(sentTo('POST /api/sets/7/taken')).toEqual([{ form: 'text', text: 'Ada\n1. x = 5' }])
    expect(made.find('.left').text()).toContain('row 4 Dag No student')
    expect(made.find('.faces [role=status]').text()).toContain('2 new, 0 changed, 1 that stood there already')
  })
  it('changes the scheme of an item', async () => {
    says['PUT /api/items/11/scheme'] = table()
    await marking()
    await made.find('[aria-label="of 3: scheme of number 1"]').trigger('click')
    await vi.waitFor(() => expect(made.findAll('.scheme [type=number]').length).toBeGreaterThan(2))
    const fields = made.findAll('.scheme [type=number]')
    await fields[2]!.setValue(1)
    await fields[2]!.trigger('change')
    await made.find('.scheme').trigger('submit')
    await flushPromises()
    expect(sentTo('PUT /api/items/11/scheme')).toEqual([
      { ...scheme, total: 4, points: ['method', 'method', 'accuracy', 'check'] },
    ])
    expect(made.find('.scheme').exists()).toBe(false)
  })
  it('waits for what is not verified yet, and says how far it is', async () => {
    says['GET /api/sets/7'] = table({
      done: 1,
      cells: [cell(1, 1, 11), cell(2, 2, 11, { waits: true, proposed: null, beads: [] })],
    })
    says['POST /api/sets/7/verified'] = new Response(null, { status: 202 })
    await marking()
    expect(made.find('[role=status]').text()).toContain('verifying, 25 %')
    expect(made.findAll('td').map((each) => each.attributes('aria-label'))).toContain('Bo, number 1: not verified yet')
    says['GET /api/sets/7'] = table()
    await new Promise((done) => setTimeout(done, 1200))
    await flushPromises()
    expect(made.find('progress').exists()).toBe(false)
  })
})

describe('patterns', () => {
  it('lead from every number to its workings', async () => {
    says['GET /api/sets/7/patterns'] = {
      workings: 4,
      slips: [{ id: 's', name: 'Sign lost', kind: 'care', count: 2, students: [1, 3], items: [11], workings: [1, 3] }],
      items: [
        {
          item: 11,
          number: 1,
          workings: 3,
          right: 1,
          tells_apart: 0.4,
          wrong: [{ text: '3x = 29', slip: 'Sign lost', count: 2, workings: [3, 1] }],
        },
        { item: 12, number: 2, workings: 1, right: 1, tells_apart: null, wrong: [] },
      ],
    }
    await visit('/sets/7/patterns')
    expect(made.find('.patterns').text()).toContain('Ada, Cleo')
    expect(made.find('.patterns').text()).toContain('1 of 3')
    expect(made.find('.patterns').text()).toContain('too few')
    says['POST /api/sets/7/tomorrow'] = Response.json(
      { code: 'nothing', detail: 'No error was seen in this set.' },
      { status: 400 },
    )
    await made
      .findAll('button')
      .find((each) => each.text().startsWith('For tomorrow'))!
      .trigger('click')
    await flushPromises()
    expect(made.find('.patterns [role=alert]').text()).toContain('No error was seen')
    await made.find('[aria-label="Sign lost, working 2"]').trigger('click')
    await flushPromises()
    expect(router.currentRoute.value.path).toBe('/sets/7')
    expect(asked.map((each) => each.what)).toContain('GET /api/workings/3')
    expect(made.find('.opened').exists()).toBe(true)
  })
})

describe('classes', () => {
  const room = (more: object = {}) => ({
    id: 1,
    name: 'Evening A',
    archived: false,
    regional: person('demo', '').regional,
    in_force: person('demo', '').in_force,
    students: [{ id: 5, name: 'Ada', number: '7' }],
    sets: [],
    ...more,
  })
  beforeEach(() =>
    Object.assign(says, {
      'GET /api/classes': [
        { id: 1, name: 'Evening A', archived: false, students: 1, sets: [] },
        { id: 2, name: 'Old', archived: true, students: 0, sets: [] },
      ],
      'GET /api/sheets': {
        sheets: [
          {
            id: 3,
            title: 'Thursday',
            received_from: '',
            changed: '2026-03-05T08:00:00Z',
            problems: 2,
            sound: 0,
            faulty: 0,
          },
        ],
        more: false,
        all: 1,
      },
      'GET /api/colleagues': [{ username: 'runa', name: 'Runa' }],
      'GET /api/classes/1': room(),
      'POST /api/classes': room({ id: 9, name: 'New' }),
      'PATCH /api/classes/1': room(),
      'DELETE /api/classes/1': new Response(null, { status: 204 }),
      'DELETE /api/students/5': new Response(null, { status: 204 }),
      'POST /api/classes/1/sets': { ...table(), id: 7 },
    }),
  )
  it('reads names as a register has them', () => {
    expect(studentsIn('Ada Quill; 7\n\n  Bo Tarn\nCleo\t12 ')).toEqual([
      { name: 'Ada Quill', number: '7' },
      { name: 'Bo Tarn', number: '' },
      { name: 'Cleo', number: '12' },
    ])
  })
  it('makes a class, adds students, and gives a sheet', async () => {
    await visit('/classes')
    expect(made.find('section h2').text()).toBe('Evening A')
    await made.find('[aria-label="More names"]').setValue('Bo')
    await made.find('[aria-label="More students"]').trigger('submit')
    await flushPromises()
    expect(sentTo('PATCH /api/classes/1')).toEqual([{ students: [{ name: 'Bo', number: '' }] }])
    await made.find('[aria-label="Sheet"]').setValue(3)
    const day = made.find<HTMLInputElement>('[aria-label="Day"]')
    await day.setValue('5 Mar 2026')
    await day.trigger('change')
    await made.find('[aria-label="Scheme"]').setValue('levels')
    await made.find('[aria-label="Give a sheet"]').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/classes/1/sets')).toEqual([{ sheet: 3, day: '2026-03-05', scheme: 'levels', title: '' }])
    expect(router.currentRoute.value.path).toBe('/sets/7')
  })
  it('says how a class writes, and asks for a day that is there', async () => {
    await visit('/classes')
    await made.find('[aria-label="Decimals"]').setValue('comma')
    await flushPromises()
    expect(sentTo('PATCH /api/classes/1')).toEqual([{ students: [], regional: { decimal: 'comma' } }])
    await made.find('[aria-label="Sheet"]').setValue(3)
    const give = () => made.find('[aria-label="Give a sheet"] button[type="submit"]').attributes('disabled')
    expect(give()).toBeUndefined()
    made.findComponent(DayInput).findComponent({ name: 'ElDatePicker' }).vm.$emit('update:modelValue', null)
    await flushPromises()
    expect(give()).toBeDefined()
  })
  it('hands a class over to a colleague', async () => {
    says['POST /api/classes/1/handed-over'] = new Response(null, { status: 204 })
    await visit('/classes')
    await made.find('[aria-label="Colleague"]').setValue('runa')
    await made
      .findAll('button')
      .find((each) => each.text().startsWith('hand it over'))!
      .trigger('click')
    await flushPromises()
    expect(sentTo('POST /api/classes/1/handed-over')).toEqual([{ username: 'runa' }])
    expect(made.find('section h2').exists()).toBe(false)
  })
  it('erases a student and ends a class only when that is said twice', async () => {
    await visit('/classes')
    const erase = made.findAll('.students button').find((each) => each.text() === 'erase')!
    await erase.trigger('click')
    expect(asked.some((each) => each.what.startsWith('DELETE'))).toBe(false)
    await erase.trigger('click')
    await flushPromises()
    expect(asked.some((each) => each.what === 'DELETE /api/students/5')).toBe(true)
    const end = made.findAll('button').find((each) => each.text() === 'end it for good')!
    expect(end.attributes('disabled')).toBeDefined()
    await made.find('[aria-label="Name of the class, to end it"]').setValue('Evening A')
    await end.trigger('click')
    await flushPromises()
    expect(asked.some((each) => each.what === 'DELETE /api/classes/1')).toBe(true)
  })
  it('renames a class, and a student, who may go to another class', async () => {
    Object.assign(says, {
      'PATCH /api/classes/1': says['GET /api/classes/1'],
      'PATCH /api/students/5': says['GET /api/classes/1'],
      'GET /api/classes': [
        { id: 1, name: 'Evening A', archived: false, students: 1, sets: [] },
        { id: 2, name: 'Evening B', archived: false, students: 0, sets: [] },
      ],
    })
    await visit('/classes')
    await made.find('[aria-label="Its new name"]').setValue(' Evening C ')
    await made.find('[aria-label="Another name of the class"]').trigger('submit')
    await flushPromises()
    expect(sentTo('PATCH /api/classes/1')).toEqual([{ students: [], name: 'Evening C' }])
    await made.find('.students button').trigger('click')
    const [name, number] = made.findAll('.change input')
    await name!.setValue('Ada Marsh')
    await number!.setValue('12')
    await made.find('.change select').setValue(2)
    await made.find('.change').trigger('submit')
    await flushPromises()
    expect(sentTo('PATCH /api/students/5')).toEqual([{ name: 'Ada Marsh', number: '12', into: 2 }])
    expect(made.find('.change').exists()).toBe(false)
  })
  it('says why a class could not be made, and keeps what was typed', async () => {
    says['POST /api/classes'] = Response.json(
      { code: 'name', detail: 'You have a class “New” already.' },
      { status: 400 },
    )
    await visit('/classes')
    await made.find('[aria-label="Name of the class"]').setValue('New')
    await made.find('[aria-label="Names of the students"]').setValue('Ada')
    await made.find('[aria-label="A new class"]').trigger('submit')
    await flushPromises()
    expect(made.find('[role=alert]').text()).toContain('You have a class “New” already.')
    expect(made.find<HTMLTextAreaElement>('[aria-label="Names of the students"]').element.value).toBe('Ada')
  })
})

import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import type { Component } from 'vue'
import CountsForm from '@/features/marking/CountsForm.vue'
import LogOf from '@/features/marking/LogOf.vue'
import RecordsForm from '@/features/marking/RecordsForm.vue'
import RosterForm from '@/features/marking/RosterForm.vue'
import SlipsFace from '@/features/marking/SlipsFace.vue'
import SchemeForm from '@/features/marking/SchemeForm.vue'
import { useClasses } from '@/features/marking/classes'
import { useMarking } from '@/features/marking/store'
import { useSession } from '@/features/session/store'
import { textOf } from '@/lib/files'
import MarkScreen from './MarkScreen.vue'
import { asked, beginAnew, echo, person, says, sentTo, VERSIONS } from '@/testing/server'

const router = createRouter({
  history: createMemoryHistory(),
  routes: [{ path: '/:rest(.*)*', component: { template: '<p />' } }],
})
let made: VueWrapper
const scheme = {
  kind: 'points',
  total: 2,
  points: ['method', 'accuracy'],
  lucky: 'loses',
  answer_alone: 'accuracy',
  broken_right: 'loses',
  rounding: 'half',
}
const total = (student: number, more: object = {}) => ({
  student,
  state: 'complete',
  late: false,
  total: 3 as number | null,
  first: null as number | null,
  counts: 3 as number | null,
  of: 4,
  grade: '',
  ...more,
})
const set = (more: object = {}) => ({
  id: 7,
  school_class: 1,
  class_name: 'Evening A',
  title: 'Thursday',
  day: '2026-03-12',
  total: 0,
  done: 0,
  late_percent: 10,
  boundaries: [{ grade: 'pass', percent: 50 }],
  again_of: 0,
  items: [
    { id: 11, number: 1, task: 'solve', given: 'x', given_latex: 'x', variable: '', key: [], scheme },
    { id: 12, number: 2, task: 'solve', given: 'y', given_latex: 'y', variable: '', key: [], scheme },
  ],
  students: [
    { id: 1, name: 'Ada', number: '' },
    { id: 2, name: 'Bo', number: '' },
    { id: 3, name: 'Cleo', number: '' },
  ],
  cells: [],
  totals: [
    total(1),
    total(2, { state: 'open', total: null, counts: null }),
    total(3, { state: 'absent', total: null, counts: null }),
  ],
  ...more,
})
async function show(component: Component, props: object = {}): Promise<void> {
  made = mount(component, { attachTo: document.body, props, global: { plugins: [router] } })
  await flushPromises()
}
/** A file of these bytes, as a browser hands it over. */
const fileOf = (bytes: number[]): File =>
  ({ name: 'x.csv', arrayBuffer: () => Promise.resolve(new Uint8Array(bytes).buffer) }) as unknown as File
const press = async (words: string): Promise<void> => {
  await made
    .findAll('button')
    .find((each) => each.text().startsWith(words))!
    .trigger('click')
  await flushPromises()
}
beforeEach(() => {
  made?.unmount()
  document.body.innerHTML = ''
  beginAnew()
  useSession().take({ teacher: person('demo', 'Tavi'), needs_setup: false, ...VERSIONS })
  useMarking().set = set() as never
  Object.assign(says, {
    'GET /api/sets/7': set(),
    'PATCH /api/sets/7': set({ late_percent: 20 }),
    'POST /api/sets/7/blanks': set({ cells: [{ working: 1 }, { working: 2 }] }),
    'PATCH /api/sets/7/papers/1': set({ totals: [total(1, { late: true }), total(2), total(3)] }),
    'GET /api/classes/1': {
      id: 1,
      name: 'Evening A',
      archived: false,
      students: [],
      sets: [
        { id: 5, title: 'Before', day: '2026-03-05' },
        { id: 7, title: 'Thursday', day: '2026-03-12' },
        { id: 9, title: 'Later', day: '2026-03-19' },
      ],
    },
    'GET /api/classes': [],
  })
})

describe('what a set counts by', () => {
  it('is late papers, grades and an earlier set as the first attempt', async () => {
    await show(CountsForm)
    expect(made.findAll('[aria-label="First attempt"] option').map((each) => each.text())).toEqual([
      'nothing',
      'Before, 5 Mar 2026',
    ])
    await made.find('[aria-label="Percent that a late paper loses"]').setValue(20)
    await made.find('[aria-label="Grades"]').setValue('75% good\n 50,5 pass \n')
    await made.find('[aria-label="First attempt"]').setValue(5)
    await made.find('form').trigger('submit')
    await flushPromises()
    expect(sentTo('PATCH /api/sets/7')).toEqual([
      {
        late_percent: 20,
        again_of: 5,
        boundaries: [
          { grade: 'good', percent: 75 },
          { grade: 'pass', percent: 50.5 },
        ],
      },
    ])
  })
  it('says which line is no grade, and sends nothing', async () => {
    await show(CountsForm)
    await made.find('[aria-label="Grades"]').setValue('good 75')
    await made.find('form').trigger('submit')
    expect(made.find('[role=alert]').text()).toContain('“good 75”')
    expect(sentTo('PATCH /api/sets/7')).toEqual([])
  })
  it('fills what is blank and says how much', async () => {
    await show(CountsForm)
    await press('what is missing')
    expect(useMarking().told).toBe('2 blank items, proposed for like the others.')
  })
})

describe('the sums of the marking table', () => {
  it.each([
    [total(1, { grade: 'pass' }), '3, pass'],
    [total(1, { late: true }), '3, late'],
    [total(1, { first: 4, counts: 4 }), '4, first attempt'],
    [total(1, { state: 'open', total: null, counts: null }), '–'],
    [total(1, { state: 'absent', total: null, counts: null }), 'absent'],
  ])('%#: say what counts and why', async (row, words) => {
    says['GET /api/sets/7'] = set({ totals: [row, total(2), total(3)] })
    await show(MarkScreen, { setId: 7, face: 'table' })
    expect(made.find('tbody .sum').text()).toBe(words)
  })
  it('take a late paper by one press', async () => {
    await show(MarkScreen, { setId: 7, face: 'table' })
    await press('late')
    expect(sentTo('PATCH /api/sets/7/papers/1')).toEqual([{ late: true }])
    expect(made.find('tbody .sum').text()).toBe('3, late')
  })
})

describe('kept schemes', () => {
  it('are kept, used again, for all items, and forgotten', async () => {
    const kept = { id: 4, name: 'Mine', scheme: { ...scheme, total: 3, points: ['method', 'method', 'accuracy'] } }
    Object.assign(says, {
      'GET /api/schemes': [kept],
      'PUT /api/schemes': [kept],
      'DELETE /api/schemes/4': new Response(null, { status: 204 }),
      'PUT /api/items/11/scheme': set(),
      'PUT /api/items/12/scheme': set(),
    })
    await show(SchemeForm, { item: 11 })
    await made.find('[aria-label="A scheme of yours"]').setValue(4)
    await press('for all items')
    expect(sentTo('PUT /api/items/12/scheme')).toMatchObject([{ total: 3, points: ['method', 'method', 'accuracy'] }])
    await made.find('[aria-label="Name of the scheme"]').setValue('Mine')
    await press('keep it')
    expect(sentTo('PUT /api/schemes')).toMatchObject([{ name: 'Mine' }])
    await press('forget')
    expect(asked.map((each) => each.what)).toContain('DELETE /api/schemes/4')
    expect(made.find('[aria-label="A scheme of yours"]').exists()).toBe(false)
  })
})

describe('marks for the records', () => {
  const row = (student: number, change: string, more: object = {}) => ({
    student,
    change,
    score: 3 as number | null,
    sent: null as number | null,
    state: 'unsent',
    reason: '',
    when: null as string | null,
    ...more,
  })
  it('are shown before they are sent, and only what is chosen is sent', async () => {
    const rows = [
      row(1, 'changed', { sent: 2, when: '2026-03-13T10:00:00Z', state: 'sent' }),
      row(2, 'open', { score: null }),
      row(3, 'new', { score: null }),
    ]
    says['GET /api/sets/7/records'] = { there: true, linked: true, of: 4, rows }
    says['POST /api/sets/7/records'] = {
      there: true,
      linked: true,
      of: 4,
      rows: [{ ...rows[0], state: 'refused', reason: 'It is locked.' }, rows[1], rows[2]],
    }
    await show(RecordsForm)
    expect(made.findAll('tbody tr').map((each) => each.find('td:last-child').text())).toEqual([
      'changed',
      'not all marks are confirmed',
      'new',
    ])
    expect(made.findAll('tbody input')).toHaveLength(2)
    expect(made.findAll('tbody tr')[2]!.text()).toContain('absent')
    await made.find('[aria-label="send for Cleo"]').setValue(false)
    await press('Send 1')
    expect(sentTo('POST /api/sets/7/records')).toEqual([{ students: [1] }])
    expect(made.find('.refused').text()).toBe('It is locked.')
  })
  it('need to know which class of the records it is', async () => {
    says['GET /api/sets/7/records'] = { there: true, linked: false, of: 4, rows: [] }
    says['GET /api/records/classes'] = { there: true, classes: [{ id: 'c1', title: 'Evening A', linked: null }] }
    says['PUT /api/classes/1/records'] = {}
    await show(RecordsForm)
    await made.find('[aria-label="Class of the records"]').setValue('c1')
    await made.find('[aria-label="Which class"]').trigger('submit')
    await flushPromises()
    expect(sentTo('PUT /api/classes/1/records')).toEqual([{ id: 'c1' }])
  })
  it('are left again where the class was the wrong one', async () => {
    says['GET /api/sets/7/records'] = { there: true, linked: true, of: 4, rows: [] }
    says['GET /api/records/classes'] = { there: true, classes: [] }
    says['DELETE /api/classes/1/records'] = {}
    await show(RecordsForm)
    says['GET /api/sets/7/records'] = { there: true, linked: false, of: 4, rows: [] }
    await press('this is the wrong class of the records: undo the link')
    expect(asked.some((each) => each.what === 'DELETE /api/classes/1/records')).toBe(true)
    expect(made.find('[aria-label="Which class"]').exists()).toBe(true)
  })
})

describe('rosters', () => {
  const preview = {
    classes: [
      {
        title: '4B',
        into: null,
        students: [
          { name: 'Ada', number: '7', state: 'new' },
          { name: 'Bo', number: '8', state: 'differs' },
        ],
      },
      { title: '4C', into: 3, students: [] },
    ],
    left: [{ place: 4, text: ',9', why: 'No name stands here.' }],
    columns: [] as object[],
    titles: false,
    sure: true,
  }
  beforeEach(() =>
    Object.assign(says, {
      'GET /api/records/classes': { there: true, classes: [{ id: 'c1', title: 'Evening A', linked: 5 }] },
      'POST /api/rosters/preview': preview,
      'POST /api/rosters': { classes: [9], students: 1 },
    }),
  )
  it('are shown before they are taken, with the rows that are not', async () => {
    await show(RosterForm)
    await made.find('[aria-label="Class of the table"]').setValue('4B')
    const field = made.find<HTMLInputElement>('[aria-label="Roster file"]')
    Object.defineProperty(field.element, 'files', { value: [fileOf([0xc5, 0x64, 0x61])] }) // Åda, as Windows writes it
    await field.trigger('change')
    await flushPromises()
    expect(sentTo('POST /api/rosters/preview')).toEqual([
      { source: 'table', text: 'Åda', ids: [], into: null, title: '4B' },
    ])
    expect(made.text()).toContain('row 4 ,9 No name stands here.')
    expect(made.find('.differs').text()).toContain('number stands with another name')
    await made.findAll('.class input')[1]!.setValue(false)
    await press('Take it')
    expect(sentTo('POST /api/rosters')).toMatchObject([{ chosen: [0], title: '4B' }])
    expect(made.find('[role=status]').text()).toBe('1 new student in 1 class.')
  })
  it('ask what columns mean that are not understood, and take nothing before', async () => {
    const column = (title: string, means: string, example: string) => ({ title, means, examples: [example] })
    const columns = [column('', 'name', 'Quill'), column('', '', 'Ada'), column('', '', '4B')]
    says['POST /api/rosters/preview'] = { ...preview, columns, sure: false }
    await show(RosterForm)
    const field = made.find<HTMLInputElement>('[aria-label="Roster file"]')
    Object.defineProperty(field.element, 'files', { value: [fileOf([0x41])] })
    await field.trigger('change')
    await flushPromises()
    expect(made.find('.columns [role=alert]').text()).toContain('What do these columns mean?')
    const takes = () => made.findAll('button').find((each) => each.text() === 'Take it')!
    expect(takes().attributes('disabled')).toBeDefined()
    says['POST /api/rosters/preview'] = { ...preview, columns, sure: true }
    for (const [k, means] of ['last', 'first', 'class'].entries())
      await made.find(`[aria-label="Column ${k + 1} means"]`).setValue(means)
    await made.find('.columns [type=checkbox]').setValue(true)
    await made.find('.columns').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/rosters/preview').at(-1)).toMatchObject({
      source: 'table',
      columns: ['last', 'first', 'class'],
      titles: true,
    })
    expect(takes().attributes('disabled')).toBeUndefined()
  })
  it('come from the school’s records', async () => {
    useClasses().open = { id: 1, name: 'Evening A', archived: false, students: [], sets: [] } as never
    await show(RosterForm)
    await made.find('[aria-label="From the school’s records"] input').setValue(true)
    await made.find('[aria-label="From the school’s records"]').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/rosters/preview')).toMatchObject([{ source: 'records', ids: ['c1'] }])
  })
  it.each([
    [[0xff, 0xfe, 0x41, 0x00], 'A'],
    [[0xfe, 0xff, 0x00, 0x41], 'A'],
    [[0xef, 0xbb, 0xbf, 0x41], 'A'],
    [[0xc3, 0xa9], 'é'],
    [[0xe9], 'é'],
  ])('are read in any encoding: %j', async (bytes, text) => {
    expect(await textOf(fileOf(bytes))).toBe(text)
  })
})

describe('feedback slips', () => {
  const slip = {
    student: 'Ada',
    well: [1, 3],
    open_ends: [4],
    mark: '5 of 8',
    tries: [echo('2x', { right: '= 6' })],
    places: [
      {
        number: 2,
        before: echo('3x + 7', { right: '= 22' }),
        line: echo('3x', { right: '= 29' }),
        written: '3x = 29',
        cue: 'Mind the sign.',
        right: null as object | null,
      },
    ],
  }
  it('show what went well, the first place that does not hold, the cue, and problems to try', async () => {
    says['GET /api/sets/7/feedback'] = [
      slip,
      { ...slip, student: 'Bo', well: [1], open_ends: [], places: [], tries: [], mark: '' },
    ]
    await show(SlipsFace)
    const [ada, bo] = made.findAll('article').map((each) => each.text())
    for (const words of [
      'Ada',
      '5 of 8',
      'Right: 1, 3.',
      'this does not follow',
      'Mind the sign.',
      'Not finished yet: 4.',
    ])
      expect(ada).toContain(words)
    expect(ada).not.toContain('right would be')
    expect(bo).toContain('Everything is right.')
    says['GET /api/sets/7/feedback'] = [
      { ...slip, places: [{ ...slip.places[0], right: echo('3x', { right: '= 15' }) }] },
    ]
    await made.find('input[type=checkbox]').setValue(true)
    await flushPromises()
    expect(made.find('article').text()).toContain('right would be')
    expect(made.find('a').attributes('href')).toBe('/api/sets/7/feedback.pdf?right=true')
  })
})

describe('who looked', () => {
  it('and who changed which mark is listed', async () => {
    says['GET /api/sets/7/log'] = [
      {
        day: '2026-03-13',
        who: 'demo',
        what: 'looked at the marks',
        student: null,
        item: null,
        before: null,
        after: null,
      },
      { day: '2026-03-13', who: 'demo', what: 'taken back', student: 1, item: 2, before: 1, after: null },
    ]
    await show(LogOf)
    expect(made.findAll('p').map((each) => each.text())).toEqual([
      '13 Mar 2026 demo: looked at the marks',
      '13 Mar 2026 demo: Ada, 2: 1 → no mark, taken back',
    ])
  })
})

import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import PagesFace from '@/features/marking/PagesFace.vue'
import { bySymbols, nextReading } from '@/features/marking/pages'
import { useMarking } from '@/features/marking/store'
import { useSession } from '@/features/session/store'
import { asked, beginAnew, echo, key, person, says, sentTo, VERSIONS } from '@/testing/server'

const router = createRouter({
  history: createMemoryHistory(),
  routes: [{ path: '/:rest(.*)*', component: { template: '<p />' } }],
})
let made: VueWrapper
const symbol = (text: string, asks = false, others: string[] = []) => ({
  text,
  box: asks ? [0.3, 0.2, 0.02, 0.02] : null,
  asks,
  others,
})
const row = (at: number, text: string, more: object = {}) => ({
  at,
  item: 11,
  box: [0.2, 0.2 + at / 50, 0.3, 0.02],
  symbols: [...text].map((each) => symbol(each)),
  texts: text ? [text] : [],
  echoes: text ? [echo(text)] : [],
  doubtful: false,
  settled: false,
  crossed: false,
  mends: [],
  ...more,
})
const doubtful = row(2, 'x = 11', {
  doubtful: true,
  symbols: [...[...'x = '].map((each) => symbol(each)), symbol('1', true, ['7']), symbol('1', true, ['7', '|'])],
  mends: [{ symbol: 4, text: '7' }],
})
const unread = row(3, '', { doubtful: true, item: null, symbols: [] })
const page = (id: number, more: object = {}) => ({
  id,
  student: 1 as number | null,
  name: 'Ada',
  state: 'read',
  trouble: '',
  again_of: null as number | null,
  width: 1000,
  height: 1400,
  lines: [row(1, '3x = 15'), doubtful, unread, row(4, 'no', { crossed: true, texts: [], echoes: [] })],
  ...more,
})
const listed = (id: number, more: object = {}) => ({
  id,
  student: 1 as number | null,
  name: 'Ada',
  state: 'read',
  trouble: '',
  again_of: null as number | null,
  open: 2,
  ...more,
})

async function visit(): Promise<void> {
  made = mount(PagesFace, { attachTo: document.body, global: { plugins: [router] } })
  await flushPromises()
}
async function press(name: string, more: object = {}): Promise<void> {
  ;(document.activeElement ?? document.body).dispatchEvent(new KeyboardEvent('keydown', key(name, more)))
  await flushPromises()
}
beforeEach(() => {
  made?.unmount()
  document.body.innerHTML = ''
  beginAnew()
  useSession().take({ teacher: person('demo', 'Tavi'), needs_setup: false, ...VERSIONS })
  useMarking().set = {
    id: 7,
    school_class: 1,
    class_name: 'Evening A',
    title: 'Thursday',
    day: '2026-03-05',
    total: 0,
    done: 0,
    items: [{ id: 11, number: 3 }],
    students: [
      { id: 1, name: 'Ada', number: '' },
      { id: 2, name: 'Bo', number: '' },
    ],
    cells: [],
  } as never
  Object.assign(says, {
    'GET /api/sets/7/pages': { reader: true, pages: [listed(5), listed(6, { student: null, name: '', open: 1 })] },
    'GET /api/pages/5': page(5),
    'GET /api/pages/6': page(6, { student: null, name: '' }),
    'POST /api/pages/5/settled': page(5, { lines: [row(1, '3x = 15'), row(2, 'x = 71', { settled: true }), unread] }),
    'POST /api/pages/6/student': page(6),
    'POST /api/pages/5/again': page(5, { state: 'waiting', lines: [] }),
  })
})
const settled = () => sentTo('POST /api/pages/5/settled')

describe('the settling of a page', () => {
  it('shows each row above its reading and stands on the first symbol in doubt', async () => {
    await visit()
    expect(made.findAll('.entry svg')).toHaveLength(4)
    expect(made.findAll('.entry .box')).toHaveLength(2)
    expect(document.activeElement!.getAttribute('aria-label')).toBe('1 or 7: is it that?')
    expect(made.text()).toContain('It does not follow as it was read; it does with 7 for 1')
    expect(made.text()).toContain('struck out, not taken')
    expect(made.findAll('.entry .number').map((each) => each.text())).toEqual(['3', '3', '?', '3'])
  })
  it.each([
    [[' ', ' '], 'x = 11'],
    [['ArrowDown', ' '], 'x = 71'],
    [['7', 'l'], 'x = 7l'],
    [['Delete', ' '], 'x = 1'],
  ])('is done by one key each: %s', async (keys, text) => {
    await visit()
    for (const each of keys) await press(each)
    expect(settled()).toEqual([{ at: 2, texts: [text] }])
    expect(document.activeElement!.tagName).toBe('TEXTAREA') // the next that is asked about
  })
  it('types a whole line by Enter, two lines by Shift Enter, and leaves one out that is empty', async () => {
    await visit()
    await press('Enter')
    const field = made.find<HTMLTextAreaElement>('textarea')
    expect(field.element.value).toBe('x = 11')
    await field.setValue('2x = 4\n x = 2 ')
    await field.trigger('keydown', { key: 'Enter' })
    await flushPromises()
    await made.find<HTMLTextAreaElement>('textarea').trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(settled()).toEqual([
      { at: 2, texts: ['2x = 4', 'x = 2'] },
      { at: 3, texts: [] },
    ])
  })
  it('opens a settled row again', async () => {
    says['GET /api/pages/5'] = page(5, { lines: [row(2, 'x = 71', { settled: true })] })
    await visit()
    await made.find('[aria-label="as read: row 3"]').trigger('click')
    await flushPromises()
    expect(settled()).toEqual([{ at: 2, texts: null }])
  })
  it('gives a page without a name to a student, as the page before', async () => {
    await visit()
    await press('PageDown')
    await made
      .findAll('button')
      .find((each) => each.text().startsWith('Ada’s'))!
      .trigger('click')
    await flushPromises()
    expect(sentTo('POST /api/pages/6/student')).toEqual([{ student: 1 }])
    await made.find('select').setValue('')
    await flushPromises()
    expect(sentTo('POST /api/pages/6/student')[1]).toEqual({ student: null })
  })
  it('takes files in one after the other, each with its fate, past a refused one and those picked meanwhile', async () => {
    await visit()
    const answers = [
      () => Response.json({ new: 1, same: 0 }, { status: 201 }),
      () => Response.json({ code: 'page', detail: 'This can’t be opened as a page.' }, { status: 400 }),
      () => Response.json({ new: 2, same: 1 }, { status: 201 }),
      () => Response.json({ new: 0, same: 1 }, { status: 201 }),
    ]
    let go: (() => void)[] = []
    says['POST /api/sets/7/pages'] = () => new Promise<Response>((answer) => go.push(() => answer(answers.shift()!())))
    const field = made.find<HTMLInputElement>('[type=file]')
    const pick = async (...names: string[]) => {
      Object.defineProperty(field.element, 'files', {
        value: names.map((name) => new File(['x'], name)),
        configurable: true,
      })
      await field.trigger('change')
      await flushPromises()
    }
    const fates = () => made.findAll('.uploads li').map((each) => each.text())
    await pick('a.png', 'notes.txt', 'b.pdf')
    expect(fates()).toEqual(['a.png on its way', 'notes.txt waits', 'b.pdf waits'])
    expect(made.find('progress').attributes('max')).toBe('3')
    await pick('c.png') // while the others are on their way
    for (let k = 0; k < 4; k++) {
      go.shift()!()
      await flushPromises()
    }
    expect(fates()).toEqual([
      'a.png 1 page taken in',
      'notes.txt This can’t be opened as a page.',
      'b.pdf 2 pages taken in, 1 there already',
      'c.png 1 there already',
    ])
    expect(made.find('[role=status]').text()).toBe('3 of 4 files taken in; 1 refused.')
    expect(made.find('progress').exists()).toBe(false)
    go = []
  })
  it('asks about a page that looks like one that is there', async () => {
    says['GET /api/sets/7/pages'] = { reader: true, pages: [listed(5), listed(6, { again_of: 5 })] }
    says['GET /api/pages/6'] = page(6, { again_of: 5 })
    says['POST /api/pages/6/other'] = page(6)
    says['DELETE /api/pages/6'] = new Response(null, { status: 204 })
    await visit()
    const entry = made.findAll('.strip button')[1]!
    expect(entry.text()).toContain('there already?')
    await entry.trigger('click')
    await flushPromises()
    expect(made.find('.again').text()).toContain('Nothing of it is taken in until you say.')
    expect(made.findAll('.again img').map((each) => each.attributes('src'))).toEqual([
      '/api/pages/5/picture',
      '/api/pages/6/picture',
    ])
    await made.findAll('.again button')[1]!.trigger('click')
    await flushPromises()
    expect(made.find('.again').exists()).toBe(false)
    says['GET /api/pages/6'] = page(6, { again_of: 5 })
    await made.findAll('.strip button')[1]!.trigger('click')
    await flushPromises()
    await made.findAll('.again button')[0]!.trigger('click')
    await flushPromises()
    expect(asked.some((each) => each.what === 'DELETE /api/pages/6')).toBe(true)
    expect(made.findAll('.strip button')).toHaveLength(1)
  })
  it('says what the reader failed at, and has it read again', async () => {
    says['GET /api/pages/5'] = page(5, { state: 'failed', trouble: 'The page reader does not answer.', lines: [] })
    await visit()
    expect(made.find('.trouble').text()).toBe('The page reader does not answer.')
    await made
      .findAll('button')
      .find((each) => each.text() === 'read it again')!
      .trigger('click')
    await flushPromises()
    expect(asked.map((each) => each.what)).toContain('POST /api/pages/5/again')
    expect(made.text()).toContain('It is being read.')
  })
})

describe('what is asked about', () => {
  it.each([
    [doubtful, true],
    [{ ...doubtful, symbols: doubtful.symbols.slice(3) }, false], // two of three: it is typed
    [{ ...doubtful, symbols: [...'x = 1'].map((each, k) => symbol(each, k === 4)) }, true],
    [unread, false],
    [row(1, 'x = 1'), false],
  ])('%#: symbol by symbol only where few are in doubt', (line, wanted) => {
    expect(bySymbols(line as never)).toBe(wanted)
  })
  it('walks the other readings and comes back to the first', () => {
    const one = symbol('1', true, ['7', '|']) as never
    expect(['1', '7', '|'].map((now) => nextReading(one, now))).toEqual(['7', '|', '1'])
  })
})

import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import ChainPaper from './ChainPaper.vue'
import { useChain } from './store'
import { useSheets } from '@/features/sheets/store'
import { keep, kept } from '@/lib/keep'
import { beginAnew, echo, key, link, problem, says, sheet } from '@/testing/server'

/** A server that keeps the lines and finds that a line with a 9 breaks. */
let stored: string[] = []
const judged = (lines: string[], more: object = {}) =>
  problem(lines, { links: lines.map((text, k) => link(k + 1, text.includes('9') ? 'breaks' : 'holds')), ...more })

beforeEach(() => {
  beginAnew()
  stored = ['x = 5 + 2', 'x = 7']
  Object.assign(says, {
    'GET /api/problems/3': () => judged(stored),
    'PUT /api/problems/3/lines': (body: unknown) => judged((stored = (body as { lines: string[] }).lines)),
    'POST /api/check/echo': (body: unknown) => echo((body as { text: string }).text),
    'GET /api/sheets/1': sheet(3),
  })
})

async function paper(): Promise<VueWrapper> {
  await useSheets().open(1)
  await useChain().open(3)
  const made = mount(ChainPaper, { attachTo: document.body })
  await settle()
  return made
}
async function settle(): Promise<void> {
  await flushPromises()
  await useChain().flush()
  await nextTick()
  await flushPromises()
}
const field = (made: VueWrapper) => made.find('input')
async function type(made: VueWrapper, text: string): Promise<void> {
  await field(made).setValue(text)
  await field(made).trigger('keydown', key('Enter'))
  await settle()
}
async function press(made: VueWrapper, name: string, more: object = {}): Promise<void> {
  const here = document.activeElement as HTMLElement
  here.dispatchEvent(new KeyboardEvent('keydown', key(name, more)))
  await settle()
  expect(made.exists()).toBe(true)
}
const rows = (made: VueWrapper) =>
  made.findAll('[role=listitem][aria-label]').map((each) => each.attributes('aria-label')!.match(/: (.*?)\. /)![1])
const chosen = (made: VueWrapper) =>
  made.findAll('[role=listitem][aria-label]').findIndex((each) => each.attributes('aria-current') === 'true')

describe('the paper by keyboard', () => {
  it('starts at the next line, and a committed line is judged, said and saved', async () => {
    const made = await paper()
    expect(field(made).attributes('aria-label')).toBe('Next line')
    expect(document.activeElement).toBe(field(made).element)
    await type(made, 'x = 9')
    expect(stored).toEqual(['x = 5 + 2', 'x = 7', 'x = 9'])
    expect(rows(made)).toEqual(['x = 5 + 2', 'x = 7', 'x = 9'])
    expect(made.find('p[role=status]').text()).toBe('Line 3 breaks.')
    expect((field(made).element as HTMLInputElement).value).toBe('')
  })
  it('goes along the lines with ↑ ↓ Home, and back to writing with ↓ at the end, End and Escape', async () => {
    const made = await paper()
    await press(made, 'ArrowUp')
    expect(chosen(made)).toBe(1)
    await press(made, 'ArrowUp')
    await press(made, 'ArrowUp')
    expect(chosen(made)).toBe(0)
    await press(made, 'ArrowDown')
    await press(made, 'ArrowDown')
    expect([chosen(made), document.activeElement === field(made).element]).toEqual([-1, true])
    await press(made, 'ArrowUp')
    await press(made, 'Home')
    expect(chosen(made)).toBe(0)
    for (const back of ['End', 'Escape']) {
      await press(made, back)
      expect(document.activeElement).toBe(field(made).element)
      await press(made, 'ArrowUp')
    }
    expect(made.emitted('at')!.flat()).toContain(0)
  })
  it('edits a line in its place', async () => {
    const made = await paper()
    await press(made, 'ArrowUp')
    await press(made, 'Enter')
    expect(field(made).attributes('aria-label')).toBe('Edit line 2')
    expect((field(made).element as HTMLInputElement).value).toBe('x = 7')
    await type(made, 'x = 8')
    expect(stored).toEqual(['x = 5 + 2', 'x = 8'])
    expect(field(made).attributes('aria-label')).toBe('Next line')
  })
  it.each([
    ['Line before', ['x = 5 + 2', 'x = 1', 'x = 7']],
    ['Line after', ['x = 5 + 2', 'x = 7', 'x = 1']],
    ['Edit', ['x = 5 + 2', 'x = 1']],
  ])('offers to fingers what the keys do: %s', async (words, lines) => {
    const made = await paper()
    await made.findAll('[role=listitem][aria-label]')[1]!.trigger('click')
    await made
      .findAll('.tools button')
      .find((each) => each.text() === words)!
      .trigger('click')
    await settle()
    await type(made, 'x = 1')
    expect(stored).toEqual(lines)
  })
  it.each([
    ['Up', ['x = 7', 'x = 5 + 2']],
    ['Remove', ['x = 5 + 2']],
  ])('moves and removes a line by finger: %s', async (words, lines) => {
    const made = await paper()
    await made.findAll('[role=listitem][aria-label]')[1]!.trigger('click')
    await made
      .findAll('.tools button')
      .find((each) => each.text() === words)!
      .trigger('click')
    await settle()
    expect(stored).toEqual(lines)
  })
  it('leaves an edit with Escape as it was', async () => {
    const made = await paper()
    await press(made, 'ArrowUp')
    await press(made, 'Enter')
    await field(made).setValue('x = 1')
    await press(made, 'Escape')
    expect(stored).toEqual(['x = 5 + 2', 'x = 7'])
    expect(rows(made)).toEqual(['x = 5 + 2', 'x = 7'])
  })
  it('opens lines before and after one, and goes on writing there', async () => {
    const made = await paper()
    await press(made, 'ArrowUp')
    await press(made, 'Insert')
    expect(field(made).attributes('aria-label')).toBe('New line before line 2')
    await type(made, 'x = 6 + 1')
    await type(made, 'x = 4 + 3')
    expect(stored).toEqual(['x = 5 + 2', 'x = 6 + 1', 'x = 4 + 3', 'x = 7'])
    await press(made, 'Escape')
    await press(made, 'ArrowUp')
    await press(made, 'o')
    await type(made, '7 = x')
    expect(stored.at(-1)).toBe('7 = x')
  })
  it('removes and moves lines, and undoes and redoes both', async () => {
    const made = await paper()
    await press(made, 'ArrowUp')
    await press(made, 'ArrowUp', { altKey: true })
    expect([stored, chosen(made)]).toEqual([['x = 7', 'x = 5 + 2'], 0])
    await press(made, 'Delete')
    expect(stored).toEqual(['x = 5 + 2'])
    await press(made, 'z', { ctrlKey: true })
    await press(made, 'z', { ctrlKey: true })
    expect(stored).toEqual(['x = 5 + 2', 'x = 7'])
    await press(made, 'z', { ctrlKey: true, shiftKey: true })
    await press(made, 'y', { ctrlKey: true })
    expect(stored).toEqual(['x = 5 + 2'])
  })
  it('leaves Alt+O on a line to the explanations', async () => {
    const made = await paper()
    await press(made, 'ArrowUp')
    await press(made, 'o', { altKey: true })
    expect(field(made).attributes('aria-label')).toBe('Next line')
  })
  it('asks for the keys with ?', async () => {
    const made = await paper()
    await press(made, '?')
    await press(made, 'ArrowUp')
    await press(made, '?')
    expect(made.emitted('help')).toHaveLength(2)
  })
  it('keeps what is half written across a reload', async () => {
    const made = await paper()
    await field(made).setValue('x =')
    made.unmount()
    expect(kept('draft.3')).toMatchObject({ mode: 'append', text: 'x =' })
    const again = await paper()
    expect((field(again).element as HTMLInputElement).value).toBe('x =')
  })
  it('keeps the words of a draft whose place is gone', async () => {
    keep('draft.3', { mode: 'edit', at: 9, text: 'x = 1' })
    const made = await paper()
    expect((field(made).element as HTMLInputElement).value).toBe('x = 1')
    expect(field(made).attributes('aria-label')).toBe('Next line')
  })
})

describe('what the paper shows', () => {
  it.each([
    [
      { verdict: 'correct', text: 'The answer is right.' },
      { finished: true, remaining: [] },
      'done',
      'The answer is right and finished.',
    ],
    [
      { verdict: 'correct', text: 'The answer is right.' },
      { finished: false, remaining: [{ text: '2 + 5 is to be added.' }] },
      'nearly',
      'It is not finished:',
    ],
    [
      { verdict: 'none', text: 'There is no answer yet.' },
      { finished: false, remaining: [] },
      'open',
      'There is no answer yet.',
    ],
    [
      { verdict: 'wrong', text: 'The answer is wrong.' },
      { finished: false, remaining: [{ text: 'hidden' }] },
      'off',
      'The answer is wrong.',
    ],
  ])('an answer that is %j, %j', async (answer, finish, state, words) => {
    says['GET /api/problems/3'] = judged(stored, { report: { answer, finish } })
    const made = await paper()
    expect(made.find('footer').classes()).toContain(state)
    expect(made.find('footer').text()).toContain(words)
    expect(made.findAll('footer li').map((each) => each.text())).toEqual(
      state === 'nearly' ? ['2 + 5 is to be added.'] : [],
    )
  })
  it.each([
    [['2'], 'x ≠ 2'],
    [['r ≠ 0', 's ≠ 0'], 'r ≠ 0,  s ≠ 0'],
  ])('the ledger %j', async (excluded, text) => {
    says['GET /api/problems/3'] = judged(stored, { report: { excluded } })
    expect((await paper()).find('.ledger').text().replaceAll(/\s+/g, ' ')).toBe(
      `excluded ${text.replaceAll(/\s+/g, ' ')}`,
    )
  })
  it('a given that can’t be used, with what to do', async () => {
    says['GET /api/problems/3'] = judged([], {
      report: { error: { line: 0, column: 1, message: 'The given must be an equation.', code: 'task' } },
    })
    const made = await paper()
    expect(made.find('[role=alert]').text()).toBe('The given must be an equation. Change the problem to go on.')
    await made.find('header button').trigger('click')
    expect(made.emitted('editGiven')).toHaveLength(1)
  })
  it('the place of a slip is tinted in both lines while one is on it', async () => {
    const tints = [
      { line: 2, before_line: 1, before: echo('\\htmlClass{mark-slip}{5}'), after: echo('\\htmlClass{mark-slip}{7}') },
    ]
    says['GET /api/problems/3'] = judged(stored, { tints })
    const made = await paper()
    expect(made.findAll('.mark-slip')).toHaveLength(0)
    await press(made, 'ArrowUp')
    expect(made.findAll('.mark-slip')).toHaveLength(2)
  })
  it('a move stands below both sides, or in the margin by convention', async () => {
    const moved = {
      ...judged(stored),
      lines: [
        { text: stored[0], echo: echo('x', { move: '+ 2' }) },
        { text: stored[1], echo: echo('x') },
      ],
    }
    says['GET /api/problems/3'] = moved
    const made = await paper()
    expect(made.findAll('.both .math')).toHaveLength(2)
    made.unmount()
    says['GET /api/sheets/1'] = { ...sheet(3), conventions: { moves: 'margin' } }
    const margin = await paper()
    expect(margin.findAll('.both')).toHaveLength(0)
    expect(margin.findAll('.row .move .math')).toHaveLength(1)
  })
})

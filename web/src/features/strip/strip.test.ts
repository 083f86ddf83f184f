import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import ProblemDialog from './ProblemDialog.vue'
import ProblemStrip from './ProblemStrip.vue'
import SlipFilter from './SlipFilter.vue'
import { beginAnew, echo, key, row, says, unread } from '@/testing/server'

beforeEach(beginAnew)
const flip = { id: 'flip', name: 'Sign lost' }
const drop = { id: 'drop', name: 'Root lost' }
const problems = [row(5, { slips: [flip] }), row(6, { difficulty: null }), row(7, { slips: [flip, drop] })] as never[]

describe('ProblemStrip', () => {
  const strip = (more: object = {}) =>
    mount(ProblemStrip, { props: { problems, current: 6, ...more }, attachTo: document.body })
  const items = (made: ReturnType<typeof strip>) => made.findAll('.item')

  it('numbers the problems, marks the one that is open, and shows a difficulty where it is known', () => {
    const made = strip()
    expect(items(made).map((each) => each.find('.visually-hidden').text())).toEqual([
      'Problem 1: solve x = 5',
      'Problem 2: solve x = 6',
      'Problem 3: solve x = 7',
    ])
    expect(made.find('.current').attributes('aria-current')).toBe('true')
    expect(made.findAll('.rating').map((each) => each.text())).toEqual(['2.5', '2.5'])
  })
  it('opens by its place', async () => {
    const made = strip()
    await items(made)[2]!.trigger('click')
    expect(made.emitted('open')).toEqual([[3]])
  })
  it('is walked by arrows and reordered by Alt and arrows, not beyond its ends', async () => {
    const made = strip()
    const [first, second, third] = items(made)
    ;(first!.element as HTMLElement).focus()
    await first!.trigger('keydown', key('ArrowDown'))
    expect(document.activeElement).toBe(second!.element)
    await second!.trigger('keydown', key('ArrowUp'))
    expect(document.activeElement).toBe(first!.element)
    await first!.trigger('keydown', key('ArrowUp', { altKey: true }))
    await third!.trigger('keydown', key('ArrowDown', { altKey: true }))
    expect(made.emitted('order')).toBeUndefined()
    await first!.trigger('keydown', key('ArrowDown', { altKey: true }))
    expect(made.emitted('order')).toEqual([[[6, 5, 7]]])
  })
  it('is reordered by dragging', async () => {
    const made = strip()
    const [first, , third] = made.findAll('li')
    await third!.trigger('dragstart')
    await first!.trigger('drop')
    expect(made.emitted('order')).toEqual([[[7, 5, 6]]])
  })
  it('shows the problems with one slip, each with its own number', async () => {
    const made = strip()
    await made.find('select').setValue('flip')
    expect(items(made).map((each) => each.find('.number').text())).toEqual(['1', '3'])
    await items(made)[1]!.trigger('click')
    expect(made.emitted('open')).toEqual([[3]])
    await made.setProps({ problems: [row(5), row(6)] as never[] })
    expect(items(made)).toHaveLength(2)
  })
  it('copies and deletes nothing while no problem is open', () => {
    const disabled = (made: ReturnType<typeof strip>) =>
      made.findAll('.tools button').map((each) => each.attributes('disabled') !== undefined)
    expect(disabled(strip())).toEqual([false, false, false])
    expect(disabled(strip({ current: null }))).toEqual([false, true, true])
  })
})

describe('SlipFilter', () => {
  it('names the slips of the sheet, the most frequent first, with how many problems hold them', () => {
    const filter = mount(SlipFilter, { props: { problems, chosen: '' } })
    expect(filter.findAll('option').map((each) => each.text())).toEqual([
      'slips: every problem',
      'Sign lost · 2',
      'Root lost · 1',
    ])
  })
  it('is not there where no slip was named', () => {
    expect(
      mount(SlipFilter, { props: { problems: [row(5)] as never[], chosen: '' } })
        .find('select')
        .exists(),
    ).toBe(false)
  })
})

describe('ProblemDialog', () => {
  const blank = { task: 'solve', given: '', variable: '', numbers: 'real', method: '' }
  const save = vi.fn()
  beforeEach(() => {
    save.mockReset()
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    says['POST /api/check/echo'] = (body: unknown) => {
      const { text } = body as { text: string }
      return text.includes('(')
        ? unread('Not closed.', 5)
        : echo(text, { kind: text.includes('=') ? 'equation' : 'expression' })
    }
  })
  async function dialog(start: object = {}) {
    const made = mount(ProblemDialog, {
      props: { open: false, title: 'New problem', decimal: 'point', start: { ...blank, ...start }, save } as never,
      attachTo: document.body,
      global: { stubs: { teleport: true, transition: true } },
    })
    await made.setProps({ open: true } as never)
    await told()
    return made
  }
  async function told(): Promise<void> {
    await flushPromises()
    await vi.advanceTimersByTimeAsync(60)
    await flushPromises()
  }
  type Made = Awaited<ReturnType<typeof dialog>>
  async function put(made: Made, given: string): Promise<string> {
    await made.find('input.field').setValue(given)
    await told()
    await made.find('form').trigger('submit')
    await told()
    return made.find('.error').text()
  }
  const choose = (made: Made, name: string, value: string) =>
    made.find(`input[name=${name}][value=${value}]`).setValue(true)

  it('puts an equation on the sheet', async () => {
    const made = await dialog()
    expect(await put(made, ' x = 3 ')).toBe('')
    expect(save.mock.calls).toEqual([['solve', 'x = 3', '', 'real', '']])
    expect(made.emitted('close')).toHaveLength(1)
  })
  it.each([
    ['', 'Type the given first.'],
    ['x = (3', 'Column 5: Not closed.'],
    ['x + 3', 'To solve, the given must be an equation.'],
    ['a x = 3', 'Choose the letter to solve for.'],
  ])('refuses “%s” at its place', async (given, words) => {
    const made = await dialog()
    expect(await put(made, given)).toBe(words)
    expect(save).not.toHaveBeenCalled()
    expect(made.emitted('close')).toBeUndefined()
  })
  it('asks for the letter where there are several', async () => {
    const made = await dialog()
    await made.find('input.field').setValue('a x = 3')
    await choose(made, 'letter', 'x')
    expect(await put(made, 'a x = 3')).toBe('')
    expect(save.mock.calls[0]!.slice(0, 3)).toEqual(['solve', 'a x = 3', 'x'])
  })
  it('wants an expression for the other tasks, and sends no method with them', async () => {
    const made = await dialog({ method: 'factoring' })
    await choose(made, 'task', 'simplify')
    expect(await put(made, 'x = 3')).toContain('the given must be an expression.')
    expect(await put(made, 'x + 3')).toBe('')
    expect(save.mock.calls).toEqual([['simplify', 'x + 3', '', 'real', '']])
  })
  it('takes i for a number where numbers are complex', async () => {
    const made = await dialog({ numbers: 'complex', method: 'quadratic-formula' })
    expect(await put(made, 'x^2 = 2i')).toBe('')
    expect(save.mock.calls).toEqual([['solve', 'x^2 = 2i', '', 'complex', 'quadratic-formula']])
  })
  it('stays open with the words of the server where it refuses', async () => {
    save.mockRejectedValue(new Error('This sheet has 200 problems already.'))
    const made = await dialog()
    expect(await put(made, 'x = 3')).toBe('This sheet has 200 problems already.')
    expect(made.emitted('close')).toBeUndefined()
    expect((made.find('input.field').element as HTMLInputElement).value).toBe('x = 3')
  })
  it('starts with the problem that is to be changed', async () => {
    const made = await dialog({ given: 'y = 2', numbers: 'complex' })
    expect((made.find('input.field').element as HTMLInputElement).value).toBe('y = 2')
    expect((made.find('input[name=numbers][value=complex]').element as HTMLInputElement).checked).toBe(true)
  })
})

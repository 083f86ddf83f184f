import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import LineEditor from './LineEditor.vue'
import { toLine } from './thumb'
import { asked, beginAnew, echo, key, line, says, unread } from '@/testing/server'

vi.mock('./ThumbField.vue', () => ({
  __esModule: true,
  default: { name: 'ThumbField', props: ['latex', 'text', 'label'], emits: ['input', 'commit'], render: () => null },
}))

const ECHO = 'POST /api/check/echo'
beforeEach(() => {
  beginAnew()
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  says[ECHO] = (body: unknown) => {
    const { text } = body as { text: string }
    return text.includes('(')
      ? unread('The bracket is not closed.', text.indexOf('(') + 1)
      : echo(text, { right: '= 5', prefix: 'check' })
  }
})

async function editor(text: string) {
  const made = mount(LineEditor, {
    props: {
      text,
      decimal: 'point' as const,
      label: 'Next line',
      hint: 'the next line',
      'onUpdate:text': (now: string) => made.setProps({ text: now }),
    },
    attachTo: document.body,
  })
  await vi.advanceTimersByTimeAsync(50)
  await flushPromises()
  return made
}
const field = (made: Awaited<ReturnType<typeof editor>>) => made.find('input')

describe('LineEditor', () => {
  it('takes the focus, says its hint while it is empty, and asks for no echo of nothing', async () => {
    const made = await editor('')
    expect(document.activeElement).toBe(field(made).element)
    expect(made.find('.echo').text()).toBe('the next line')
    expect(asked).toEqual([])
  })
  it('shows what was understood above what is typed', async () => {
    const made = await editor('x - 2')
    expect(made.find('.prefix').text()).toBe('check')
    expect(made.findAll('.echo .math')).toHaveLength(2)
    expect(made.find('.error').text()).toBe('')
  })
  it('asks once for what is typed in one go', async () => {
    const made = await editor('')
    for (const text of ['x', 'x ', 'x =']) await field(made).setValue(text)
    await vi.advanceTimersByTimeAsync(50)
    expect(asked.map((each) => (each.body as { text: string }).text)).toEqual(['x ='])
  })
  it('commits on Enter what is typed, trimmed, and nothing when it is empty', async () => {
    const made = await editor('  x = 7 ')
    await field(made).trigger('keydown', key('Enter'))
    expect(made.emitted('commit')).toEqual([['x = 7']])
    await made.setProps({ text: '   ' })
    await field(made).trigger('keydown', key('Enter'))
    expect(made.emitted('commit')).toHaveLength(1)
  })
  it('keeps a line with an error back once, with the caret at the place, and lets it go at the second Enter', async () => {
    const made = await editor('x = (7')
    expect(made.find('.error').text()).toContain('The bracket is not closed.')
    expect(field(made).attributes('aria-invalid')).toBe('true')
    await field(made).trigger('keydown', key('Enter'))
    expect(made.emitted('commit')).toBeUndefined()
    expect(made.find('.error').text()).toContain('Enter again keeps the line as it is.')
    expect((field(made).element as HTMLInputElement).selectionStart).toBe(4)
    await field(made).trigger('keydown', key('Enter'))
    expect(made.emitted('commit')).toEqual([['x = (7']])
  })
  it('warns anew after the line was changed', async () => {
    const made = await editor('x = (7')
    await field(made).trigger('keydown', key('Enter'))
    await field(made).setValue('x = (8')
    await vi.advanceTimersByTimeAsync(50)
    await flushPromises()
    await field(made).trigger('keydown', key('Enter'))
    expect(made.emitted('commit')).toBeUndefined()
  })
  it('goes on without a connection: no echo, and Enter commits', async () => {
    line.down = true
    const made = await editor('x = 7')
    expect(made.findAll('.echo .math')).toHaveLength(0)
    await field(made).trigger('keydown', key('Enter'))
    expect(made.emitted('commit')).toEqual([['x = 7']])
  })
  it.each([
    ['Escape', {}, '', 'cancel', []],
    ['ArrowUp', {}, '', 'leave', ['up']],
    ['ArrowDown', {}, 'x', 'leave', ['down']],
    ['z', { ctrlKey: true }, '', 'undo', []],
    ['Z', { metaKey: true, shiftKey: true }, '', 'redo', []],
    ['y', { ctrlKey: true }, '', 'redo', []],
    ['?', {}, '', 'help', []],
  ])('hears %s %j in “%s”', async (name, more, text, event, args) => {
    const made = await editor(text)
    await field(made).trigger('keydown', key(name, more))
    expect(made.emitted(event)).toEqual([args])
  })
  it.each([
    ['z', { ctrlKey: true }, 'x'],
    ['?', {}, 'x'],
    ['ArrowUp', { altKey: true }, ''],
    ['a', {}, ''],
  ])('leaves %s %j in “%s” to the field', async (name, more, text) => {
    const made = await editor(text)
    await field(made).trigger('keydown', key(name, more))
    expect(Object.keys(made.emitted()).filter((each) => !each.startsWith('update') && each !== 'keydown')).toEqual([])
  })
  it('puts a piece in at the caret', async () => {
    const made = await editor('x = 7')
    ;(field(made).element as HTMLInputElement).setSelectionRange(4, 5)
    made.vm.insertAtCaret('√()', 1)
    await flushPromises()
    expect(made.props('text')).toBe('x = √()')
  })
})

describe('a line written by thumb', () => {
  const thumb = (made: Awaited<ReturnType<typeof editor>>) => made.findComponent({ name: 'ThumbField' })
  async function byThumb(text: string) {
    const made = await editor(text)
    await made.find('.change').trigger('click')
    await vi.dynamicImportSettled()
    await vi.waitFor(() => expect(thumb(made).exists()).toBe(true))
    await vi.advanceTimersByTimeAsync(50)
    await flushPromises()
    return made
  }
  it('begins with what stands there as it is understood, and is remembered', async () => {
    const made = await byThumb('x - 2')
    expect(thumb(made).props()).toMatchObject({ latex: 'x - 2 = 5', label: 'Next line' })
    expect(made.find('input').exists()).toBe(false)
    expect((await editor('')).findComponent({ name: 'ThumbField' }).exists()).toBe(true)
    await made.find('.change').trigger('click')
    expect(made.find('input').exists()).toBe(true)
  })
  it('is committed in the plain notation', async () => {
    says[ECHO] = (body: unknown) => echo((body as { text: string }).text, { plain: '1/2' })
    const made = await byThumb('')
    thumb(made).vm.$emit('input', '\\frac12')
    await vi.advanceTimersByTimeAsync(50)
    await flushPromises()
    thumb(made).vm.$emit('commit')
    expect(made.emitted('commit')).toEqual([['1/2']])
  })
  it('is committed as it stands where the server has not said yet how it reads', async () => {
    const made = await byThumb('')
    line.down = true
    thumb(made).vm.$emit('input', 'x^{2}')
    await vi.advanceTimersByTimeAsync(50)
    await flushPromises()
    thumb(made).vm.$emit('commit')
    expect(made.emitted('commit')).toEqual([['x^{2}']])
  })
  it.each([
    ['\\frac{\\placeholder{}}{2}', '\\frac{}{2}'],
    ['x=1\\lor x=2', 'x=1\\text{ or } x=2'],
    ['2x=8\\mid\\div2', '2x=8|\\div2'],
    ['3\\imaginaryI', '3i'],
  ])('takes %s as %s', (latex, written) => {
    expect(toLine(latex)).toBe(written)
  })
})

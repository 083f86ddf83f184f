import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import DifficultyBar from './DifficultyBar.vue'
import MethodsFace from './MethodsFace.vue'
import StepNotes from './StepNotes.vue'
import WorkedLine from './WorkedLine.vue'
import { useMethods } from './store'
import { asked, beginAnew, difficulty, echo, key, line, method, says, step } from '@/testing/server'

const PATH = 'GET /api/problems/3/methods'
beforeEach(() => {
  beginAnew()
  says[PATH] = {
    methods: [method('factoring', 'a', 'b', 'c'), { ...method('formula', 'd', 'e'), not_yet: ['Formula'] }],
    why_none: '',
  }
})

async function face(hasLines = false) {
  const made = mount(MethodsFace, { props: { problem: 3, hasLines }, attachTo: document.body })
  await flushPromises()
  return made
}
const here = () => [useMethods().chosen, useMethods().at]

describe('MethodsFace', () => {
  it('sets the methods side by side with what each costs', async () => {
    const made = await face()
    expect(made.find('header').text()).toContain('2 methods lead to 7')
    expect(made.findAll('article').map((each) => each.find('.cost b').text())).toEqual(['3 lines', '2 lines'])
    expect(made.findAll('article').map((each) => each.text().includes('the fewest'))).toEqual([false, true])
    expect(made.find('.not-yet').text()).toBe('Not yet: Formula')
  })
  it('is walked by the arrows: methods across, lines along', async () => {
    const made = await face()
    const press = (name: string, more = {}) => made.trigger('keydown', key(name, more))
    await press('ArrowDown')
    await press('ArrowDown')
    expect(here()).toEqual([0, 2])
    await press('ArrowRight')
    expect(here()).toEqual([1, 0])
    await press('ArrowUp')
    await press('ArrowRight')
    expect(here()).toEqual([1, 0])
    await press('ArrowLeft', { altKey: true })
    expect(here()).toEqual([1, 0])
    await press('ArrowLeft')
    expect(here()).toEqual([0, 0])
    expect(made.findAll('.worked.here')).toHaveLength(1)
  })
  it('puts the chosen one on the paper with Enter or its button, and shows it on the board', async () => {
    const made = await face(true)
    await made.trigger('keydown', key('ArrowRight'))
    await made.trigger('keydown', key('Enter'))
    expect((made.emitted('use')![0]![0] as { method: string }).method).toBe('formula')
    const [use, board] = made.findAll('article')[0]!.findAll('footer button')
    expect(use!.text()).toBe('Put on the paper in place of its lines')
    await use!.trigger('click')
    await board!.trigger('click')
    expect((made.emitted('use')![1]![0] as { method: string }).method).toBe('factoring')
    expect(made.emitted('board')).toEqual([['factoring']])
  })
  it('chooses the line that is clicked', async () => {
    const made = await face()
    await made.findAll('article')[1]!.findAll('.worked')[1]!.trigger('click')
    expect(here()).toEqual([1, 1])
  })
  it('asks again in another grain', async () => {
    const made = await face()
    await made.find('input[value=every]').setValue(true)
    await flushPromises()
    expect(asked.filter((each) => each.what === PATH)).toHaveLength(2)
  })
  it.each([
    [
      { methods: [], why_none: 'No method known here leads to the answer.' },
      '.none',
      'No method known here leads to the answer.',
    ],
    [() => Response.json({ detail: 'Too large.' }, { status: 400 }), '[role=alert]', 'Too large.'],
  ])('says why there is none %#', async (answer, place, words) => {
    says[PATH] = answer
    expect((await face()).find(place).text()).toBe(words)
  })
  it('says when the server does not answer', async () => {
    line.down = true
    const made = await face()
    expect(made.find('[role=alert]').text()).toMatch(/^The server does not answer\./)
    line.down = false
    await made.find('[role=alert] button').trigger('click')
    await flushPromises()
    expect(made.find('[role=alert]').exists()).toBe(false)
    expect(made.find('header').text()).toContain('methods')
  })
  it('counts one method as one', async () => {
    says[PATH] = { methods: [{ ...method('undo', 'a'), answer: [] }], why_none: '' }
    const made = await face()
    expect(made.find('header').text()).toContain('One method leads to no solution')
    expect(made.find('.cost b').text()).toBe('1 line')
    expect(made.text()).not.toContain('the fewest')
  })
})

describe('DifficultyBar', () => {
  it('shares its width among its parts, by their weight', () => {
    const bar = mount(DifficultyBar, { props: { difficulty: difficulty(4) as never } })
    expect(bar.findAll('.part').map((each) => each.attributes('style'))).toEqual([
      'width: 20%;',
      'width: 10%;',
      'width: 10%;',
    ])
    expect(bar.find('[role=img]').attributes('aria-label')).toBe(
      'difficulty 4.0 of 10: steps 2.0, numbers 1.0, length 1.0',
    )
    expect(bar.text()).toContain('to notice: a minus')
  })
})

describe('a worked line', () => {
  it('stands beside the chain where it is a check or an aside', () => {
    const aside = (kind: string) =>
      mount(WorkedLine, { props: { step: step('x = 7', { kind }) as never, here: false } })
        .classes()
        .includes('aside')
    expect(['line', 'zero', 'statement', 'check', 'aside'].map(aside)).toEqual([false, false, false, true, true])
  })
  it('shows its prefix and its move', () => {
    const made = mount(WorkedLine, {
      props: { step: step('x', { after_echo: echo('x', { prefix: 'check', move: '+ 2' }) }) as never, here: true },
    })
    expect([made.find('.prefix').text(), made.findAll('.math').length, made.attributes('aria-current')]).toEqual([
      'check',
      2,
      'true',
    ])
  })
  it('says everything of its step, and nothing that is not there', () => {
    const full = step('x', {
      excluded: ['2'],
      lurking: ['Sign lost', 'Root lost'],
      noticed: ['common factor first'],
      side_work: [{ kind: 'formula', a: '1', b: '2', c: '3' }],
    })
    const notes = mount(StepNotes, { props: { step: full as never, number: 4 } })
    for (const piece of [
      'Step 4',
      'Add to both sides',
      'undo the minus',
      'excluded: 2',
      'Sign lost · Root lost',
      'common factor first',
      'Read off',
    ])
      expect(notes.text()).toContain(piece)
    expect(notes.findAll('.pair .math')).toHaveLength(2)
    const bare = mount(StepNotes, { props: { step: step('x', { kind: 'check' }) as never, number: 1 } })
    for (const piece of ['excluded', 'What goes wrong', 'to be noticed']) expect(bare.text()).not.toContain(piece)
    expect(bare.find('.pair').exists()).toBe(false)
    expect(mount(StepNotes, { props: { step: null, number: 1 } }).text()).toBe('')
  })
})

import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import BoardFace from './BoardFace.vue'
import { FORESEEN, useBoard } from './store'
import { kept } from '@/lib/keep'
import { beginAnew, echo, key, line, link, method, problem, says, step } from '@/testing/server'

beforeEach(() => {
  beginAnew()
  Object.assign(says, {
    'GET /api/problems/3': problem([]),
    'GET /api/problems/3/methods': {
      methods: [
        { ...method('undo'), steps: [step('a', { after_echo: echo('a', { move: '+ 2' }) }), step('b'), step('c')] },
        method('formula', 'd'),
      ],
    },
    'POST /api/check': (body: unknown) => ({
      links: (body as { lines: string[] }).lines.map((_, k) =>
        link(k + 1, 'breaks', { evidence: { text: 'Try x = 2.', values: {} } }),
      ),
    }),
    'POST /api/check/echo': (body: unknown) => echo((body as { text: string }).text),
  })
})

async function board(start = ''): Promise<VueWrapper> {
  const made = mount(BoardFace, {
    props: { problem: 3, given: 'x - 2 = 5', instruction: 'Solve', start },
    attachTo: document.body,
  })
  await flushPromises()
  return made
}
async function press(...names: string[]): Promise<void> {
  for (const name of names) {
    window.dispatchEvent(new KeyboardEvent('keydown', key(name)))
    await flushPromises()
  }
}
const count = (made: VueWrapper) => made.find('.bar span').text()
const shown = (made: VueWrapper) => made.findAll('.line:not(.start, .detour)').length

describe('the board by keyboard', () => {
  it('starts with the given alone, and goes line by line, forth and back', async () => {
    const made = await board()
    expect([count(made), shown(made), made.find('.task').text()]).toEqual(['0 / 3', 0, 'Solve'])
    await press('ArrowRight', ' ', 'Enter', 'n')
    expect(count(made)).toBe('3 / 3')
    await press('ArrowLeft', 'Backspace')
    expect([count(made), shown(made)]).toEqual(['1 / 3', 1])
    await press('End')
    expect(count(made)).toBe('3 / 3')
    await press('Home', 'ArrowUp')
    expect(count(made)).toBe('0 / 3')
  })
  it('gives the reason of the line that stands, unless it is put away', async () => {
    const made = await board()
    await press('ArrowRight')
    expect(made.find('.because').text()).toContain('undo the minus')
    await press('r')
    expect([made.find('.because').exists(), kept('board.reasons')]).toEqual([false, false])
  })
  it('pauses before a line for the class to try, with the rule as a hint', async () => {
    const made = await board()
    await press('p', 'ArrowRight')
    expect([made.find('.try').text(), count(made)]).toEqual(['Pause and tryAdd to both sides?', '0 / 3'])
    await press('ArrowRight')
    expect([made.find('.try').exists(), count(made)]).toEqual([false, '1 / 3'])
    await press('ArrowRight', 'ArrowLeft')
    expect([made.find('.try').exists(), count(made), kept('board.pause')]).toEqual([false, '1 / 3', true])
  })
  it('sets the move of a line below both sides of the one before', async () => {
    const made = await board()
    expect(made.findAll('.done')).toHaveLength(0)
    await press('ArrowRight')
    expect(made.findAll('.start .done')).toHaveLength(2)
    useBoard().conventions = { moves: 'margin' }
    await flushPromises()
    expect([made.findAll('.done').length, made.findAll('.margin').length]).toEqual([0, 1])
  })
  it('goes a wrong path that is judged, and comes back', async () => {
    const made = await board()
    await press('ArrowRight', 'w')
    const field = made.find('.detour-field input')
    expect(document.activeElement).toBe(field.element)
    await field.setValue('x = 3')
    await field.trigger('keydown', key('Enter'))
    await flushPromises()
    expect(made.find('.detour .verdict').text()).toBe('breaks Try x = 2.')
    expect(made.find('.detour .verdict').classes()).toContain('breaks')
    await field.trigger('keydown', key('Escape'))
    expect([made.findAll('.detour').length, made.find('.detour-field').exists(), count(made)]).toEqual([
      0,
      false,
      '1 / 3',
    ])
  })
  it('goes on without a connection once it is open; only a wrong path is not judged', async () => {
    const made = await board()
    line.down = true
    await press('ArrowRight', 'ArrowRight', 'w')
    await made.find('.detour-field input').setValue('x = 3')
    await made.find('.detour-field').trigger('submit')
    await flushPromises()
    expect(made.find('.verdict').text()).toContain('not judged:')
    expect(count(made)).toBe('2 / 3')
  })
  it('starts a foreseen wrong way where it parts from the right one', async () => {
    useBoard().foreseen = { lines: ['a', 'wrong', 'worse'], at: 2 }
    const made = await board(FORESEEN)
    expect([count(made), made.findAll('.detour').length]).toEqual(['1 / 3', 1])
    await press('ArrowRight')
    expect(made.findAll('.detour')).toHaveLength(2)
    await press('ArrowRight')
    expect([made.findAll('.detour').length, count(made)]).toEqual([0, '1 / 3'])
  })
  it('changes its method, and begins again', async () => {
    const made = await board()
    await press('ArrowRight')
    await made.find('select').setValue('formula')
    await flushPromises()
    expect(count(made)).toBe('0 / 1')
  })
  it('is dark or light, blank, and left with Escape', async () => {
    const made = await board()
    const dark = made.classes().includes('dark-board')
    await press('d', 'b')
    expect([made.classes().includes('dark-board'), kept('board.dark'), made.classes().includes('blank')]).toEqual([
      !dark,
      !dark,
      true,
    ])
    await press('Escape')
    expect(made.emitted('close')).toHaveLength(1)
    made.unmount()
    await press('ArrowRight')
  })
  it('is walked by taps: the left third back, the rest on', async () => {
    const made = await board()
    await made.trigger('click', { clientX: window.innerWidth - 5 })
    expect(count(made)).toBe('1 / 3')
    await made.trigger('click', { clientX: 5 })
    expect(count(made)).toBe('0 / 3')
    await made.find('[aria-label=Forward]').trigger('click')
    expect(count(made)).toBe('1 / 3')
  })
  it('says when there is nothing to show', async () => {
    says['GET /api/problems/3/methods'] = { methods: [] }
    expect((await board()).find('[role=alert]').text()).toContain('There are no lines yet')
  })
})

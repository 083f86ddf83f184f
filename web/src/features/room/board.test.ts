import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import AskCard from './AskCard.vue'
import RoomBoard from './RoomBoard.vue'
import { useRoom } from './store'
import BoardFace from '@/features/board/BoardFace.vue'
import { ECHO_OF } from '@/composables/useEcho'
import { asked, beginAnew, echo, key, link, method, problem, says, sentTo, step } from '@/testing/server'

let made: VueWrapper
const ask = (more: object = {}) => ({
  id: 8,
  kind: 'vote',
  given_latex: '3x + 7 = 22',
  lines: ['3x = 29', 'x = 29/3'],
  right: 1,
  answered: 3,
  here: 5,
  answers: [
    { text: '1', latex: '1', count: 2, relation: 'holds' },
    { text: '0', latex: '0', count: 1, relation: 'breaks' },
  ],
  ...more,
})
const tries = ask({
  kind: 'try',
  lines: [],
  right: null,
  answers: [
    { text: '3x = 15', latex: '3x = 15', count: 2, relation: 'holds' },
    { text: '3x = 29', latex: '3x = 29', count: 1, relation: 'breaks' },
  ],
})
async function press(...names: string[]): Promise<void> {
  for (const name of names) {
    window.dispatchEvent(new KeyboardEvent('keydown', key(name)))
    await flushPromises()
  }
}
beforeEach(() => {
  document.body.innerHTML = ''
  beginAnew()
  Object.assign(says, {
    'DELETE /api/sets/7/room/ask': new Response(null, { status: 204 }),
    'GET /api/sets/7/room/ask': { ask: ask() },
  })
})
afterEach(() => made?.unmount())

describe('a working of the room on the board', () => {
  const slip = {
    id: 's',
    name: 'Sign',
    kind: 'care',
    done: 'The 7 was added.',
    why: '',
    cue: '',
    before: [],
    after: [],
    instead: '',
    also: null,
  }
  async function show(): Promise<void> {
    says['GET /api/workings/5'] = {
      id: 5,
      lines: ['3x = 29', 'x = 29/3'],
      echoes: [echo('3x = 29'), echo('x = 29/3')],
      report: { links: [link(1, 'breaks', { slip }), link(2, 'holds')] },
    }
    made = mount(RoomBoard, { attachTo: document.body, props: { working: 5, set: 7, given: '3x + 7 = 22' } })
    await flushPromises()
  }
  const lines = () => made.findAll('.lines li').length
  it('is shown line by line; the verdicts come when they are wished', async () => {
    await show()
    expect([lines(), made.text().includes('The 7 was added.')]).toEqual([1, false])
    await press('ArrowRight', 'v')
    expect([lines(), made.text().includes('The 7 was added.')]).toEqual([2, true])
    await press('v', 'ArrowLeft')
    expect([lines(), made.text().includes('The 7 was added.')]).toEqual([1, false])
    await press('Escape')
    expect(made.emitted('close')).toHaveLength(1)
  })
  it('asks which line breaks, counts while answers come in, and tells only when it is wished', async () => {
    says['POST /api/sets/7/room/ask'] = { ask: ask({ answered: 0, answers: [] }) }
    vi.useFakeTimers()
    await show()
    await press('q')
    expect(sentTo('POST /api/sets/7/room/ask')).toEqual([{ lines: [], kind: 'vote', working: 5 }])
    await vi.advanceTimersByTimeAsync(1100)
    expect(made.find('.tally').text()).toContain('3 of 5 have answered')
    expect(made.findAll('.votes li').map((each) => each.findAll('b').at(-1)!.text())).toEqual(['2', '0', '1'])
    expect(made.text()).not.toContain('this one breaks')
    await press('v')
    expect(made.find('.votes li.right').text()).toContain('this one breaks')
    await press('s')
    expect(asked.map((each) => each.what)).toContain('DELETE /api/sets/7/room/ask')
    expect(made.find('.tally').exists()).toBe(false)
    vi.useRealTimers()
  })
  it('asks how it goes on before the error', async () => {
    says['POST /api/sets/7/room/ask'] = { ask: tries }
    await show()
    await press('t')
    expect(lines()).toBe(0)
    expect(made.findAll('.tries li b').map((each) => each.text())).toEqual(['2×', '1×'])
    expect(made.find('.tries .said').exists()).toBe(false)
    await press('v')
    expect(made.findAll('.tries .said')).toHaveLength(2)
  })
})

describe('the room beside a problem on the board', () => {
  async function board(room: object): Promise<void> {
    Object.assign(says, {
      'GET /api/problems/3': problem([]),
      'GET /api/problems/3/methods': { methods: [{ ...method('undo'), steps: [step('3x = 15 | -7'), step('x = 5')] }] },
      'GET /api/problems/3/room': room,
      'POST /api/sets/7/room/ask': { ask: tries },
      'POST /api/check': (body: unknown) => ({
        links: (body as { lines: string[] }).lines.map((_, k) => link(k + 1, 'breaks')),
      }),
      'POST /api/check/echo': (body: unknown) => echo((body as { text: string }).text),
    })
    made = mount(BoardFace, {
      props: { problem: 3, given: '3x + 7 = 22', instruction: 'Solve', start: '' },
      attachTo: document.body,
    })
    await flushPromises()
  }
  const inRoom = { given_set: 7, item: 11, written: [{ lines: ['3x = 29', 'x = 29/3'], count: 4, broken: 1 }] }
  it('goes the way of what the room has written, line by line', async () => {
    await board(inRoom)
    await press('c')
    expect(made.find('.written').text()).toContain('4× 3x = 29 breaks at line 1')
    await made.find('.written button').trigger('click')
    await flushPromises()
    expect([made.findAll('.detour').length, made.find('.written').exists()]).toEqual([1, false])
    await press('ArrowRight')
    expect(made.findAll('.detour')).toHaveLength(2)
    await press('ArrowRight')
    expect(made.findAll('.detour')).toHaveLength(0)
  })
  it('lets the room try the next line', async () => {
    await board(inRoom)
    await press('ArrowRight', 'a')
    expect(sentTo('POST /api/sets/7/room/ask')).toEqual([{ lines: ['3x = 15'], kind: 'try', item: 11 }])
    expect(made.find('.try .tally').exists()).toBe(true)
    await press('v')
    expect(made.findAll('.said')).toHaveLength(2)
    await press('ArrowRight')
    expect(made.find('.try').exists()).toBe(false)
    expect(asked.map((each) => each.what)).toContain('DELETE /api/sets/7/room/ask')
  })
  it('has no such keys where no room works it', async () => {
    await board({ given_set: 0, item: 0, written: [] })
    await press('c', 'a')
    expect(made.text()).not.toContain('from the room')
    expect(sentTo('POST /api/sets/7/room/ask')).toEqual([])
  })
})

describe('what a student is asked', () => {
  function card(more: object): void {
    useRoom().room = {
      ask: { id: 8, kind: 'vote', given_latex: '3x', lines: ['3x = 29', 'x = 29/3'], answer: '', ...more },
    } as never
    says['POST /api/room/ask'] = (body: unknown) => ({
      tells: 'line',
      hints: 0,
      paused: '',
      nudge: '',
      closes: null,
      over: false,
      ask: {
        id: 8,
        kind: 'vote',
        given_latex: '3x',
        lines: ['3x = 29', 'x = 29/3'],
        answer: (body as { text: string }).text,
      },
    })
    made = mount(AskCard, {
      attachTo: document.body,
      props: { decimal: 'point' },
      global: { provide: { [ECHO_OF as symbol]: (text: string) => Promise.resolve(echo(text)) } },
    })
  }
  it('a line is voted for, and another after all', async () => {
    card({})
    await made.findAll('button')[1]!.trigger('click')
    await flushPromises()
    expect(made.findAll('button')[1]!.attributes('aria-pressed')).toBe('true')
    await made.findAll('button')[2]!.trigger('click')
    await flushPromises()
    expect(sentTo('POST /api/room/ask')).toEqual([
      { ask: 8, text: '2' },
      { ask: 8, text: '0' },
    ])
    expect(made.find('[role=status]').text()).toContain('You can change it')
  })
  it('a next line is written', async () => {
    card({ kind: 'try', lines: [] })
    await made.find('[aria-label="Your next line"]').setValue('3x = 15')
    await made.find('[aria-label="Your next line"]').trigger('keydown', key('Enter'))
    await flushPromises()
    expect(sentTo('POST /api/room/ask')).toEqual([{ ask: 8, text: '3x = 15' }])
  })
})

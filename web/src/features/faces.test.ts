import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import AnticipateFace from './anticipate/AnticipateFace.vue'
import NotesPanel from './evidence/NotesPanel.vue'
import GraphFace from './graph/GraphFace.vue'
import KeyPanel from './keys/KeyPanel.vue'
import NextStepCard from './next/NextStepCard.vue'
import { useNextStep } from './next/store'
import ProofList from './proofs/ProofList.vue'
import ConventionsDrawer from './sheets/ConventionsDrawer.vue'
import TaughtDrawer from './sheets/TaughtDrawer.vue'
import { CONVENTIONS } from '@/lib/conventions'
import { asked, beginAnew, echo, key, line, link, says, sentTo, step } from '@/testing/server'

beforeEach(beginAnew)
const inPlace = { attachTo: document.body, global: { stubs: { teleport: true, transition: true } } }

describe('the next step', () => {
  const hint = {
    look: 'Look at the minus.',
    step: step('x = 7', { side_work: [{ kind: 'formula', a: '1', b: '2', c: '3' }] }),
    method: 'undo',
    shorter: 'There is a shorter way.',
    done: false,
  }
  async function card(stage: number) {
    says['POST /api/problems/3/next-step'] = hint
    const next = useNextStep()
    for (let k = 0; k < stage; k++) await next.more(3, [])
    return mount(NextStepCard)
  }
  it.each([
    [1, ['Look at the minus.'], ['Add to both sides', 'on the way of'], 'Which rule?'],
    [2, ['Add to both sides', 'on the way of: undo', 'Read off'], [], 'Which line?'],
    [3, ['Add to both sides'], [], 'Write it'],
  ])('tells a little more at stage %i', async (stage, told, kept, button) => {
    const made = await card(stage)
    for (const piece of told) expect(made.text()).toContain(piece)
    for (const piece of kept) expect(made.text()).not.toContain(piece)
    expect(made.find('.line').exists()).toBe(stage === 3)
    expect(made.findAll('button').at(-1)!.text()).toContain(button)
    await made.findAll('button').at(-1)!.trigger('click')
    expect(made.emitted('more')).toHaveLength(1)
  })
  it('is put away', async () => {
    const made = await card(2)
    await made.find('[aria-label="Put the hint away"]').trigger('click')
    expect(made.find('section').exists()).toBe(false)
  })
  it('says what stands in its way', async () => {
    line.down = true
    await useNextStep().more(3, [])
    expect(mount(NextStepCard).text()).toContain('The server does not answer.')
  })
})

describe('the wrong answers to expect', () => {
  const way = (answer: string, more: object = {}) => ({
    answer,
    answer_latex: answer,
    slips: ['flip'],
    names: ['Sign lost'],
    roads: 1,
    done: `How ${answer} came.`,
    why: 'Why.',
    cue: 'Cue.',
    lines: ['a', 'b', 'c'],
    at_line: 2,
    echoes: [echo('a'), echo('b'), echo('c')],
    refutation: { text: 'Try x = 2.', values: {}, before: null, after: null },
    ...more,
  })
  const found = {
    answer: ['7'],
    answer_latex: '7',
    why_none: '',
    wrong: [way('5'), way('9', { roads: 3, refutation: null })],
    unfinished: [{ answer: '14/2', answer_latex: '14/2', missing: 'not-lowest-terms' }],
    options: [
      { answer: '7', answer_latex: '7', right: true, reason: '' },
      { answer: '5', answer_latex: '5', right: false, reason: 'Sign lost' },
    ],
  }
  const PATH = 'GET /api/problems/3/anticipate'
  async function face() {
    const made = mount(AnticipateFace, { props: { problem: 3, given: 'x = 7' }, ...inPlace })
    await flushPromises()
    return made
  }
  it('are walked by arrows within their ends, each with its road', async () => {
    says[PATH] = found
    const made = await face()
    const road = () => made.find('.road .done').text()
    expect(road()).toBe('How 5 came.')
    expect(made.findAll('.lines li').map((each) => each.classes().join())).toEqual(['', 'wrong', 'after'])
    expect(made.find('.refuted').text()).toBe('Try x = 2.')
    await made.find('section').trigger('keydown', key('ArrowDown'))
    await made.find('section').trigger('keydown', key('ArrowDown'))
    expect(road()).toBe('How 9 came.')
    expect(made.find('.refuted').exists()).toBe(false)
    expect(made.findAll('.way')[1]!.text()).toContain('3 roads')
    await made.find('section').trigger('keydown', key('ArrowUp'))
    await made.find('section').trigger('keydown', key('ArrowUp'))
    expect(road()).toBe('How 5 came.')
  })
  it('go to the board from where they part, and to the paper', async () => {
    says[PATH] = found
    const made = await face()
    const [board, use] = made.findAll('.road button')
    await board!.trigger('click')
    await use!.trigger('click')
    expect([made.emitted('board'), made.emitted('use')]).toEqual([[[['a', 'b', 'c'], 2]], [[['a', 'b', 'c']]]])
  })
  it('give options in an order of one’s choice, mixed again by a new seed', async () => {
    const queries: string[] = []
    says[PATH] = (_: unknown, request: Request) => {
      queries.push(new URL(request.url).search)
      return found
    }
    const made = await face()
    expect(
      made.findAll('.options li').map((each) => [each.find('b').text(), each.classes().includes('right')]),
    ).toEqual([
      ['A', true],
      ['B', false],
    ])
    expect(made.find('.more li').text()).toContain('not lowest terms')
    await made.find('input[value=trap-first]').setValue(true)
    await made.find('.orders button').trigger('click')
    await flushPromises()
    expect(queries).toEqual(['?order=shuffled&seed=1', '?order=trap-first&seed=1', '?order=trap-first&seed=2'])
  })
  it.each([
    [{ ...found, why_none: 'No method known here.' }, 'No method known here.'],
    [{ ...found, wrong: [] }, 'No wrong answer is foreseen.'],
    [() => Response.json({ detail: 'Gone.' }, { status: 404 }), 'Gone.'],
  ])('say why there are none %#', async (answer, words) => {
    says[PATH] = answer
    expect((await face()).text()).toContain(words)
  })
})

describe('the graph', () => {
  const features = {
    excluded: ['2', '-1'],
    holes: [['2', '4/3']],
    vertical_asymptotes: ['-1'],
    horizontal_asymptote: '1',
    oblique_asymptote: null,
    x_intercepts: [],
    y_intercept: '2',
    end_behaviour: { '-': '-inf', '+': 'inf' },
    range: 'all',
    grid_points: [['0', '2']],
    error: null,
    graph: {
      window: [-5, 5, -5, 5],
      pieces: [],
      vertical: [],
      horizontal: null,
      oblique: null,
      intercepts: [],
      holes: [],
      check_points: [],
    },
  }
  async function face(answer: unknown) {
    says['GET /api/problems/3/analysis'] = answer
    const made = mount(GraphFace, { props: { problem: 3, given: 'x', letter: 't' } })
    await flushPromises()
    return made
  }
  const table = (made: Awaited<ReturnType<typeof face>>) =>
    Object.fromEntries(made.findAll('tr').map((each) => [each.find('th').text(), each.find('td').text()]))
  it('stands beside the table of features in the letter of the given', async () => {
    expect(table(await face(features))).toMatchObject({
      domain: 't ≠ 2, −1',
      hole: '(2, 4/3)',
      'vertical asymptotes': 't = −1',
      'horizontal asymptote': 'y = 1',
      'x-intercepts': 'none',
      'y-intercept': '2',
      range: 'all real numbers',
    })
  })
  it('names the oblique asymptote in place of the horizontal, and several holes as such', async () => {
    const found = table(
      await face({
        ...features,
        oblique_asymptote: 'x + 1',
        horizontal_asymptote: null,
        holes: [
          ['1', '2'],
          ['3', '4'],
        ],
        excluded: [],
        range: null,
      }),
    )
    expect(found).toMatchObject({
      'oblique asymptote': 'y = x + 1',
      holes: '(1, 2), (3, 4)',
      domain: 'all real numbers',
      range: 'not worked out',
    })
    expect(found['horizontal asymptote']).toBeUndefined()
  })
  it('says what can’t be analysed', async () => {
    const made = await face({
      ...features,
      graph: null,
      error: { message: 'A rational function of one letter is asked for.' },
    })
    expect(made.find('[role=alert]').text()).toBe('A rational function of one letter is asked for.')
  })
})

describe('what is to be said of a line', () => {
  const slip = (id: string, more: object = {}) => ({
    id,
    name: `Slip ${id}`,
    done: `Done ${id}.`,
    why: 'Why.',
    cue: 'Cue.',
    instead: '',
    ...more,
  })
  const notes = (found: object | null, more: object = {}) =>
    mount(NotesPanel, {
      props: { number: 2, text: 'x', link: found, report: null, unknown: 'x', task: 'solve', ...more } as never,
      ...inPlace,
    })
  it('is nothing but its relation where it holds', () => {
    const made = notes(link(2, 'holds'))
    expect(made.text()).toBe('Line 2holds')
    expect(notes(null).text()).toBe('')
  })
  it('names the slip, and the next explanation on Alt+O', async () => {
    const made = notes(link(2, 'breaks', { slip: slip('a', { instead: 'x = 7' }), other_slips: [slip('b')] }))
    expect(made.find('.slip h3').text()).toBe('Slip a')
    window.dispatchEvent(new KeyboardEvent('keydown', key('u', { altKey: true })))
    window.dispatchEvent(new KeyboardEvent('keydown', key('o', { altKey: true })))
    await flushPromises()
    expect(made.find('.slip h3').text()).toBe('Slip b')
    window.dispatchEvent(new KeyboardEvent('keydown', key('u', { altKey: true })))
    expect(made.emitted('use')).toEqual([['x = 7']])
    await made.find('.other').trigger('click')
    expect(made.find('.other').text()).toBe('1 of 2 explanations')
    await made.setProps({ text: 'y' } as never)
    expect(made.find('.slip h3').text()).toBe('Slip a')
    made.unmount()
  })
  it('tries both lines with plain numbers', () => {
    const made = notes(
      link(2, 'breaks', {
        kind: 'expression',
        evidence: { text: 't', values: { x: '2', y: '3' }, before: '5', after: null, plain: 'The same with 3.' },
      }),
    )
    expect(made.find('caption').text().replaceAll(/\s+/g, ' ')).toBe('Try x = 2, y = 3')
    expect(made.findAll('td').map((each) => each.text())).toEqual(['5', 'undefined'])
    expect(made.find('.alike').text()).toBe('The same with 3.')
  })
  it.each([
    [
      link(2, 'narrows', { lost: ['0', '4'], evidence: { text: 'x = 0 solves.', solution: '0', solves: 'before' } }),
      ['Lost as well', 'x = 4'],
    ],
    [link(2, 'settles', { lost: ['-2'] }), ['Dropped, rightly', 'x = −2']],
    [
      link(2, 'widens', { gained: ['3'], reasons: { 3: 'it makes a denominator zero' } }),
      ['Candidates gained', 'x = 3: it makes a denominator zero'],
    ],
    [link(2, 'holds', { kind: 'check', reasons: { 8: 'x = 8 in the given: 1 = 1.' } }), ['x = 8 in the given: 1 = 1.']],
    [
      link(2, 'holds', { move: { name: 'add', text: '+3', stated: '-3', as_stated: false } }),
      ['The margin says -3', 'it was +3'],
    ],
    [link(2, 'holds', { conditions: ['a ≠ 0', 'v ≥ 0'] }), ['Needs', 'a ≠ 0, v ≥ 0']],
    [link(2, 'holds', { notes: ['longer-road', 'of its own'] }), ['a longer road', 'of its own']],
    [link(2, null, { error: { message: 'Not closed.' } }), ['not read', 'Not closed.']],
  ])('says all of %j', (found, pieces) => {
    const text = notes(found).text().replaceAll(/\s+/g, ' ')
    for (const piece of pieces) expect(text).toContain(piece)
  })
  it('lists the checks that are owed, with how to write them', () => {
    const made = notes(link(2, 'holds'), {
      report: { owed: [{ value: '3', because: 'both sides were squared in line 1' }] },
    })
    expect(made.find('.owed').text()).toContain('x = 3: both sides were squared in line 1.')
    expect(made.find('.owed code').text()).toBe('check x = 3')
  })
})

describe('what was found in a key', () => {
  const finding = (kind: string, more: object = {}) => ({
    kind,
    line: 1,
    place: 4,
    text: 'It breaks.',
    instead: '',
    ...more,
  })
  const one = (findings: object[]) => ({
    label: '1)',
    at: 2,
    places: [3, 4],
    task: 'solve',
    given: 'x',
    given_latex: '',
    lines: [],
    beads: [],
    verdict: 'none',
    finished: false,
    findings,
  })
  it('leads to its lines in the text', async () => {
    const proofs = {
      problems: [one([finding('breaks', { instead: 'x = 7' }), finding('unfinished', { line: 0, place: 0 })]), one([])],
      skipped: [],
      faulty: 1,
    }
    const made = mount(ProofList, { props: { proofs: proofs as never } })
    expect(made.findAll('ol > li').map((each) => each.classes().includes('faulty'))).toEqual([true, false])
    expect(made.findAll('.all-holds')).toHaveLength(1)
    expect(made.findAll('svg.glyph')).toHaveLength(1)
    expect(made.find('.instead .plain').text()).toBe('x = 7')
    expect(made.findAll('.place')).toHaveLength(1)
    await made.find('.place').trigger('click')
    await made.find('.label').trigger('click')
    expect(made.emitted('show')).toEqual([[4], [2]])
  })
})

describe('the drawers of a sheet', () => {
  it('show every convention at its position, and save a new one at once', async () => {
    const save = vi.fn(async () => {})
    const made = mount(ConventionsDrawer, { props: { open: true, chosen: { decimal: 'comma' }, save }, ...inPlace })
    await flushPromises()
    expect(made.findAll('fieldset')).toHaveLength(CONVENTIONS.length)
    const radio = (name: string, value: string) => made.find(`input[name=${name}][value=${value}]`)
    expect((radio('decimal', 'comma').element as HTMLInputElement).checked).toBe(true)
    await radio('solutions', 'plus-minus').setValue(true)
    await radio('decimal', 'point').setValue(true)
    expect(save.mock.calls.at(-1)).toEqual([{ solutions: 'plus-minus' }])
  })
  it('say what the server refuses', async () => {
    const save = vi.fn(async () => Promise.reject(new Error('Unknown convention.')))
    const made = mount(ConventionsDrawer, { props: { open: true, chosen: {}, save }, ...inPlace })
    await flushPromises()
    await made.find('input[name=moves][value=margin]').setValue(true)
    await flushPromises()
    expect(made.find('[role=alert]').text()).toBe('Unknown convention.')
  })
  const entries = [
    { id: 'factoring', kind: 'method', name: 'Factoring', text: 'By factors.', topic: '' },
    { id: 'swap', kind: 'rule', name: 'Swap', text: 'Sides exchanged.', topic: '' },
    { id: 'flip', kind: 'slip', name: 'Sign lost', text: 'A sign.', topic: '' },
  ]
  async function taught(untaught: string[], save = vi.fn(async () => {})) {
    Object.assign(says, {
      'GET /api/catalogue': { entries },
      'GET /api/account/words': { words: { swap: { name: 'Turn round', text: '' } } },
      'PUT /api/account/words': (body: unknown) => body,
    })
    const made = mount(TaughtDrawer, { props: { open: false, untaught, save }, ...inPlace })
    await made.setProps({ open: true })
    await flushPromises()
    return { made, save }
  }
  it('tick what is taught; a slip can’t be taught', async () => {
    const { made, save } = await taught(['factoring'])
    const boxes = made.findAll('input[type=checkbox]')
    expect(boxes.map((each) => (each.element as HTMLInputElement).checked)).toEqual([false, true])
    await boxes[0]!.trigger('change')
    await boxes[1]!.trigger('change')
    expect(save.mock.calls).toEqual([[[]], [['factoring', 'swap']]])
  })
  it('find by own words, and keep new ones', async () => {
    const { made } = await taught([])
    await made.find('.filter').setValue('turn')
    expect(made.findAll('.entry').map((each) => each.find('label').text())).toEqual(['Turn round'])
    await made.find('.entry button').trigger('click')
    await made.find('.entry textarea').setValue('Left and right change places.')
    await made.find('.entry form').trigger('submit')
    await flushPromises()
    expect(sentTo('PUT /api/account/words')).toEqual([
      { words: { swap: { name: 'Turn round', text: 'Left and right change places.' } } },
    ])
  })
  it('say when nothing could be changed', async () => {
    const { made } = await taught(
      [],
      vi.fn(async () => Promise.reject(new TypeError('no connection'))),
    )
    await made.find('input[type=checkbox]').trigger('change')
    await flushPromises()
    expect(made.find('[role=alert]').text()).toMatch(/^The server does not answer; nothing was changed\. /)
    expect(asked.filter((each) => each.what.startsWith('PUT'))).toEqual([])
  })
})

describe('the panel of keys', () => {
  it('shows each key with what it does, and the notation', async () => {
    const made = mount(KeyPanel, { props: { open: true }, ...inPlace })
    await flushPromises()
    const keys = made.findAll('kbd').map((each) => each.text())
    expect(keys).toEqual(expect.arrayContaining(['Enter', 'Alt H', 'Insert', 'Alt N', 'F6']))
    expect(made.findAll('dd').every((each) => each.text().length > 0)).toBe(true)
    expect(made.findAll('code').map((each) => each.text())).toContain('no solution')
  })
})

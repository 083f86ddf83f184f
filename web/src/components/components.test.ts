import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import GraphView from './GraphView.vue'
import LinkShape from './LinkShape.vue'
import PlainMath from './PlainMath.vue'
import RelationGlyph from './RelationGlyph.vue'
import SideWork from './SideWork.vue'
import type { Graph, SideWork as Work } from '@/api/client'
import { forget } from '@/lib/typeset'
import { asked, beginAnew, line, says, sentTo } from '@/testing/server'

describe('PlainMath', () => {
  it.each([
    ['x^2 + 1', 'x2 + 1', ['2']],
    ['(x+1)^2', '(x+1)2', ['2']],
    ['2^(3x)', '23x', ['3x']],
    ['7', '7', []],
  ])('sets %s with its powers raised', (text, whole, raised) => {
    const set = mount(PlainMath, { props: { text } })
    expect(set.text().replaceAll(' ', '')).toBe(whole.replaceAll(' ', ''))
    expect(set.findAll('sup').map((each) => each.text())).toEqual(raised)
  })
})

describe('LinkShape', () => {
  it('names its relation as a class, and says when it was not read', () => {
    expect(mount(LinkShape, { props: { relation: 'widens', length: 20 } }).classes()).toContain('widens')
    expect(mount(LinkShape, { props: { relation: null, length: 20 } }).classes()).toContain('unread')
  })
  it('is animated only while it is fresh', () => {
    expect(mount(LinkShape, { props: { relation: 'holds', length: 20, fresh: true } }).classes()).toContain('fresh')
    expect(mount(LinkShape, { props: { relation: 'holds', length: 20 } }).classes()).not.toContain('fresh')
  })
  it('stands by itself between two beads', () => {
    const glyph = mount(RelationGlyph, { props: { relation: 'breaks', size: 50 } })
    expect(glyph.findAll('.bead')).toHaveLength(2)
    expect(glyph.attributes()).toMatchObject({ width: '30', height: '50', 'aria-hidden': 'true' })
  })
})

const WORKS: [Work, string, string[]][] = [
  [
    {
      kind: 'product-sum',
      product: '6',
      sum: '5',
      tried: [
        ['1', '6', '7'],
        ['2', '3', '5'],
      ],
      pair: ['2', '3'],
    } as never,
    'Two numbers',
    ['product 6', 'sum 5', '2 · 3'],
  ],
  [
    { kind: 'product-sum', product: '6', sum: '4', tried: [['1', '6', '7']], pair: null } as never,
    'Two numbers',
    ['none fits'],
  ],
  [
    {
      kind: 'area-grid',
      across: ['x', '3'],
      down: ['x', '2'],
      areas: [
        ['x^2', '3x'],
        ['2x', '6'],
      ],
    } as never,
    'Area grid',
    ['3x', '2x', '6'],
  ],
  [{ kind: 'factor-tree', number: 12, primes: [2, 2, 3] } as never, 'By primes', ['12', '6', '3']],
  [
    { kind: 'square-test', a: 'x', b: '3', needed: '6x', middle: '6x', fits: true } as never,
    'Perfect square?',
    ['2·x·3 = 6x ✓'],
  ],
  [
    { kind: 'square-test', a: 'x', b: '3', needed: '6x', middle: '5x', fits: false } as never,
    'Perfect square?',
    ['✗', 'but here 5x'],
  ],
  [
    { kind: 'ladder', unknown: 'x', do: ['·3', '+7'], undo: ['-7', '÷3'] } as never,
    'Do and undo',
    ['↓ ·3', '↓ +7', '↑ -7', '↑ ÷3'],
  ],
  [{ kind: 'balance', left: 'x + 3', right: '8', move: '-3' } as never, 'Both sides alike', ['level', 'it tips']],
  [{ kind: 'counters', terms: [3, -5], total: -2 } as never, 'Counters', ['3 and -5 make -2']],
  [
    {
      kind: 'slide-divide',
      a: '2',
      slid: 'x^2 + 7x + 6',
      factors: ['x+1', 'x+6'],
      divided: ['x+1/2', 'x+3'],
      result: ['2x+1', 'x+3'],
    } as never,
    'Slide and divide',
    ['(2x+1)(x+3)', '÷ 2'],
  ],
  [
    {
      kind: 'lcd',
      denominators: ['x', '2x'],
      lcd: '2x',
      rows: [
        ['x', '2'],
        ['2x', '1'],
      ],
    } as never,
    'What each lacks',
    ['denominator', 'LCD', '2x'],
  ],
  [{ kind: 'lcd', denominators: ['2', '3'], lcd: '6', rows: [] } as never, 'What each lacks', ['2, 3 all divide 6']],
  [{ kind: 'box', of: '6', half: '3', square: '9' } as never, 'Half, squared', ['6 ÷ 2 = 3', '(3)2 = 9']],
  [
    { kind: 'synthetic', root: '2', top: ['1', '-5', '6'], carried: ['2', '-6'], bottom: ['1', '-3', '0'] } as never,
    'Synthetic division',
    ['-5', '-3'],
  ],
  [
    {
      kind: 'long-division',
      dividend: 'x^2 - 1',
      divisor: 'x - 1',
      rows: [{ term: 'x', subtract: 'x^2 - x', rest: 'x - 1' }],
    } as never,
    'Division',
    ['take x', 'subtract x2 - x'],
  ],
  [{ kind: 'candidate', value: '3', claim: '3 = 3', holds: true } as never, 'Put in', ['3 = 3 ✓']],
  [{ kind: 'candidate', value: '-2', claim: '2 = -2', holds: false } as never, 'Put in', ['2 = -2 ✗']],
  [{ kind: 'formula', a: '1', b: '-3', c: '2' } as never, 'Read off', ['a = 1', 'b = -3', 'c = 2']],
]

describe('SideWork', () => {
  it.each(WORKS)('draws %j', (work, title, pieces) => {
    const figure = mount(SideWork, { props: { work } })
    expect(figure.attributes('aria-label')).toBe(title)
    const text = figure.text().replaceAll(/\s+/g, ' ').replaceAll('( ', '(')
    const tight = text.replaceAll(' ', '').replaceAll('−', '-')
    for (const piece of pieces) expect(tight).toContain(piece.replaceAll(' ', ''))
  })
  it('marks the pair that was looked for, and no other', () => {
    const figure = mount(SideWork, { props: { work: WORKS[0]![0] } })
    expect(figure.findAll('tr.found').map((each) => each.text())).toEqual(['2 · 35'])
  })
  it('tips the balance when one side only is changed', () => {
    const figure = mount(SideWork, { props: { work: WORKS[7]![0] } })
    const [level, tipped] = figure.findAll('.balance')
    expect([level!.findAll('b').length, tipped!.findAll('b').length]).toEqual([2, 1])
    expect(tipped!.classes()).toContain('tipped')
  })
  it('takes away counters in pairs', () => {
    const figure = mount(SideWork, { props: { work: WORKS[8]![0] } })
    expect(figure.findAll('.counter.plus.gone')).toHaveLength(3)
    expect(figure.findAll('.counter.minus.gone')).toHaveLength(3)
    expect(figure.findAll('.counter.minus:not(.gone)')).toHaveLength(2)
  })
})

describe('GraphView', () => {
  const graph = {
    window: [-5, 5, -5, 5],
    pieces: [
      [
        [-5, -5],
        [0, 0],
      ],
      [
        [1, 1],
        [5, 5],
      ],
    ],
    vertical: [{ text: 'x = 0.5', x: 0.5 }],
    horizontal: { text: 'y = 1', y: 1 },
    oblique: null,
    intercepts: [{ text: '(0, 0)', x: 0, y: 0 }],
    holes: [{ text: '(3, -3)', x: 3, y: -3 }],
    check_points: [{ text: '(2, 2)', x: 2, y: 2 }],
  } as unknown as Graph
  const traced = (view: ReturnType<typeof mount>): string => view.find('[role=status]').text()

  it('draws every piece, asymptote, hole and intercept', () => {
    const view = mount(GraphView, { props: { graph, width: 100, height: 100 } })
    expect(view.findAll('path.curve')).toHaveLength(2)
    expect(view.findAll('.asymptotes path')).toHaveLength(2)
    expect(view.find('.hole').text()).toBe('(3, −3)')
    expect(view.find('.intercept circle').attributes()).toMatchObject({ cx: '50', cy: '50' })
    expect(view.find('path.curve').attributes('d')).toBe('M0.00 100.00L50.00 50.00')
  })
  it('is traced by the arrow keys, and not where there is no curve', async () => {
    const view = mount(GraphView, { props: { graph, width: 100, height: 100 } })
    const drawing = view.find('.drawing')
    await drawing.trigger('keydown', { key: 'ArrowLeft' })
    expect(traced(view)).toBe('x ≈ −0.17, y ≈ −0.17')
    await drawing.trigger('keydown', { key: 'ArrowRight' })
    await drawing.trigger('keydown', { key: 'ArrowRight' })
    expect(traced(view)).toContain('move over the curve')
    await drawing.trigger('pointerleave')
    expect(view.find('.trace').exists()).toBe(false)
  })
  it('zooms by keys and buttons within bounds, and comes back whole', async () => {
    const view = mount(GraphView, { props: { graph, width: 100, height: 100 } })
    const drawing = view.find('.drawing')
    const hole = (): number => Number(view.find('.hole circle').attributes('cx'))
    expect(hole()).toBe(80)
    await drawing.trigger('keydown', { key: '+' })
    expect(hole()).toBe(95)
    await drawing.trigger('keydown', { key: '0' })
    expect(hole()).toBe(80)
    await view.find('[aria-label="Zoom out"]').trigger('click')
    expect(hole()).toBeCloseTo(70)
    for (let k = 0; k < 20; k++) await drawing.trigger('keydown', { key: '-' })
    expect(hole()).toBeCloseTo(56)
    await view.setProps({ graph: { ...graph } })
    expect(hole()).toBe(80)
  })
})

describe('PlainMath, once the core has said how', () => {
  beforeEach(() => {
    beginAnew()
    forget()
    says['POST /api/check/typeset'] = (body: unknown) => ({
      latex: (body as { texts: string[] }).texts.map((text) =>
        text.includes('?') ? '' : `\\mathrm{set}${text.length}`,
      ),
    })
  })

  it('is typeset; all that stands there is asked for at once, and only the first time', async () => {
    const first = [
      mount(PlainMath, { props: { text: 'x^2 + 1' } }),
      mount(PlainMath, { props: { text: '√(x+1)' } }),
      mount(PlainMath, { props: { text: 'x^2 + 1' } }),
    ]
    await vi.waitFor(() => expect(first.every((each) => each.find('.katex').exists())).toBe(true))
    expect(sentTo('POST /api/check/typeset')).toEqual([{ texts: ['x^2 + 1', '√(x+1)'] }])
    expect(
      mount(PlainMath, { props: { text: '√(x+1)' } })
        .find('.katex')
        .exists(),
    ).toBe(true)
    expect(asked).toHaveLength(1)
  })
  it.each([
    ['a whole number', '-12', 0],
    ['what is no mathematics', 'two? of them', 1],
  ])('leaves %s as it is', async (_, text, times) => {
    const made = mount(PlainMath, { props: { text } })
    await vi.waitFor(() => expect(asked).toHaveLength(times))
    await new Promise((done) => setTimeout(done, 30))
    expect(made.find('.katex').exists()).toBe(false)
    expect(asked).toHaveLength(times)
  })
  it('stands in the plain notation while the server is away, and is asked for again the next time', async () => {
    line.down = true
    const made = mount(PlainMath, { props: { text: 'x^3' } })
    await new Promise((done) => setTimeout(done, 40))
    expect(made.text()).toBe('x3')
    line.down = false
    await made.setProps({ text: 'x^4' })
    await made.setProps({ text: 'x^3' })
    await vi.waitFor(() => expect(made.find('.katex').exists()).toBe(true))
  })
  it('shows the latest of two texts', async () => {
    const made = mount(PlainMath, { props: { text: 'x^5' } })
    await made.setProps({ text: 'x^5 + 1' })
    await vi.waitFor(() => expect(made.find('.katex').exists()).toBe(true))
    expect(made.text()).toContain('set7')
  })
})

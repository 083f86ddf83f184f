import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { FORMS, type FormName } from './forms'
import GridPad from './GridPad.vue'
import { lineOf, placedBy, read, slantThrough, told, UNIT } from './grid'
import type { MyItem } from './answer'
import { ECHO_OF } from '@/composables/useEcho'
import { beginAnew, echo, key } from '@/testing/server'

let made: VueWrapper
const nothing = { options: [], lines: [], blanks: 0, ways: [], letters: [], reach: 0 }
const item = (form: object): MyItem =>
  ({
    id: 11,
    number: 1,
    task: 'solve',
    instruction: 'Solve.',
    given: '3x = 6',
    given_latex: '3x = 6',
    working: null,
    form: { ...nothing, ...form },
  }) as unknown as MyItem
beforeEach(() => {
  made?.unmount()
  document.body.innerHTML = ''
  beginAnew()
})
function show(
  form: { form: FormName; [more: string]: unknown },
  lines: string[] = [],
  verdicts: string[] = [],
  closed = false,
): void {
  const props = {
    item: item(form),
    lines,
    decimal: 'point' as const,
    closed,
    told: (k: number) => (verdicts[k] ? { verdict: verdicts[k]!, words: k ? '' : 'Mind it.', right: '' } : null),
  }
  made = mount(FORMS[form.form].component, {
    props,
    attachTo: document.body,
    global: { provide: { [ECHO_OF as symbol]: (text: string) => Promise.resolve(echo(text)) } },
  })
}
const press = (name: string) => made.find('form').trigger('keydown', key(name))
const given = () => made.emitted('answer')?.at(-1)?.[0]
async function put(label: string, text: string): Promise<void> {
  await made.find(`[aria-label="${label}"]`).setValue(text)
}

describe('an answer to an item that is not worked', () => {
  const choose = { form: 'choose' as const, options: ['x = 1', 'x = 2', 'x = 3'] }
  it('is chosen by its letter and given by Enter', async () => {
    show(choose)
    await press('b')
    await press('Enter')
    expect(given()).toEqual(['B'])
  })
  it('is given once, not again when it stands already, and only options are chosen', async () => {
    show(choose, ['B'])
    await press('e')
    await press('Enter')
    expect(given()).toBeUndefined()
    await press('c')
    await press('Enter')
    expect(given()).toEqual(['C'])
  })
  it('shows what is told of it, and takes no more when the room is closed', () => {
    show(choose, ['A'], ['look'], true)
    expect(made.text()).toContain('look again')
    expect(made.text()).toContain('Mind it.')
    expect(made.find('fieldset').attributes('disabled')).toBeDefined()
    expect(made.find('.give').exists()).toBe(false)
  })
  it('names the faulty line by its number and writes it right', async () => {
    show({ form: 'mend', lines: ['3x = 5', 'x = 5/3'] })
    await press('1')
    await flushPromises()
    await put('The right line', '3x = 6')
    await made.find('[aria-label="The right line"]').trigger('keydown', key('Enter'))
    await flushPromises()
    expect(given()).toEqual(['line 1', '3x = 6'])
  })
  it('fills blanks one after the other; one left open before a filled one is marked as such', async () => {
    show({ form: 'fill', lines: ['\\boxed{1}x = \\boxed{2}', 'x = \\boxed{3}'], blanks: 3 })
    await put('Blank 2', '6')
    await made.find('[aria-label="Blank 2"]').trigger('keydown', key('Enter'))
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Blank 3')
    await made.find('[aria-label="Blank 3"]').trigger('keydown', key('Enter'))
    expect(given()).toEqual(['?', '6'])
  })
  it('keeps what was begun, and forgets it when it is given', async () => {
    show({ form: 'fill', lines: ['\\boxed{1}x'], blanks: 2 })
    await put('Blank 2', '6')
    expect(made.emitted('draft')!.at(-1)).toEqual(['?\n6'])
    await made.setProps({ lines: ['?', '6'] })
    expect(made.emitted('draft')!.at(-1)).toEqual([''])
    made.unmount()
    made = mount(FORMS.choose.component, {
      props: {
        item: item({ form: 'choose', options: ['1', '2'] }),
        lines: ['A'],
        draft: 'B',
        told: () => null,
        decimal: 'point',
        closed: false,
      },
      attachTo: document.body,
    })
    expect(made.find<HTMLInputElement>('input[value=B]').element.checked).toBe(true)
  })
  it('puts what was answered before into the blanks, with a verdict each', () => {
    show({ form: 'fill', lines: ['\\boxed{1}x = \\boxed{2}'], blanks: 2 }, ['?', '6'], ['', 'holds'])
    expect(made.findAll('input').map((each) => (each.element as HTMLInputElement).value)).toEqual(['', '6'])
    expect(made.findAll('.fields label')[1]!.text()).toContain('holds')
    expect(made.findAll('.fields label')[0]!.text()).not.toContain('holds')
  })
  it('names a way', async () => {
    show({ form: 'way', ways: ['Factoring', 'Quadratic formula'] })
    await press('2')
    await press('Enter')
    expect(given()).toEqual(['Quadratic formula'])
  })
  it('judges a claim; only for an untrue one numbers are asked', async () => {
    show({ form: 'claim', lines: ['(a+b)^2 = a^2 + b^2'], letters: ['a', 'b'] })
    await press('1')
    expect(made.find('[aria-label="A number for a"]').exists()).toBe(false)
    await press('2')
    await put('A number for a', '1')
    await put('A number for b', ' 2 ')
    await made.find('form').trigger('submit')
    expect(given()).toEqual(['not true', 'a = 1', 'b = 2'])
  })
})

describe('places on a grid', () => {
  it.each([
    [UNIT * 3, '3'],
    [-30, '-1/2'],
    [20, '1/3'],
    [-50, '-5/6'],
    [0, '0'],
  ])('%i sixtieths are %s', (sixtieths, text) => {
    expect(told(sixtieths)).toBe(text)
    expect(read(text)).toBeCloseTo(sixtieths / UNIT)
  })
  it.each([
    ['point', 'point: (3, -1/2)'],
    ['hole', 'hole: (3, -1/2)'],
    ['vertical', 'vertical asymptote: x = 3'],
    ['horizontal', 'horizontal asymptote: y = -1/2'],
    ['x', 'x-intercept: 3'],
    ['y', 'y-intercept: -1/2'],
  ] as const)('a %s is a line of features and is read back', (kind, line) => {
    expect(lineOf(kind, 180, -30)).toBe(line)
    expect(placedBy(line)).toMatchObject({ kind })
  })
  it.each([
    [[0, 120], [60, 180], 'y = x + 2', 1],
    [[0, 0], [60, -60], 'y = -x', -1],
    [[0, -30], [120, 30], 'y = (1/2)x - 1/2', 0.5],
    [[60, 60], [0, -60], 'y = 2x - 1', 2],
    [[0, 60], [60, 20], 'y = (-2/3)x + 1', -2 / 3],
  ] as const)('a slant line through %j and %j is %s, and is read back', (from, to, text, slope) => {
    const line = slantThrough({ x: from[0], y: from[1] }, { x: to[0], y: to[1] })
    expect(line).toBe(`oblique asymptote: ${text}`)
    expect(placedBy(line!)!.slope).toBeCloseTo(slope)
    expect(placedBy(line!)!.y).toBeCloseTo((from[1] - slope * from[0]) / UNIT)
  })
  it('a line that stands or lies is no slant one', () => {
    expect([slantThrough({ x: 0, y: 0 }, { x: 0, y: 60 }), slantThrough({ x: 0, y: 60 }, { x: 60, y: 60 })]).toEqual([
      null,
      null,
    ])
  })
  it.each(['domain: x ≠ 3', 'hole: none', 'range: all', 'x = 3', 'horizontal asymptote: none'])(
    '%s places nothing',
    (line) => expect(placedBy(line)).toBeNull(),
  )
})

describe('the grid', () => {
  function pad(lines: string[] = [], closed = false): void {
    made = mount(GridPad, {
      attachTo: document.body,
      props: { reach: 10, lines, letter: 'x', verdict: (k: number) => (k ? 'look' : 'holds'), closed },
    })
  }
  const type = async (...names: string[]): Promise<void> => {
    for (const name of names) await made.find('svg').trigger('keydown', key(name))
  }
  it('is walked with the arrows, more finely by a digit, and a letter places', async () => {
    pad()
    await type('ArrowRight', 'ArrowRight', '6', 'ArrowUp', 'ArrowUp', 'o')
    expect(made.find('.where').text()).toContain('(2, 1/3)')
    await type('v', 'h')
    expect(made.emitted('place')!.map(([line]) => line)).toEqual([
      'hole: (2, 1/3)',
      'vertical asymptote: x = 2',
      'horizontal asymptote: y = 1/3',
    ])
  })
  it('takes a slant line by two places', async () => {
    pad()
    await type('s')
    expect(made.find('.where').text()).toContain('second place')
    await type('ArrowRight', 'ArrowUp', 'ArrowUp', 's')
    expect(made.emitted('place')!.map(([line]) => line)).toEqual(['oblique asymptote: y = 2x'])
    expect(made.find('.anchor').exists()).toBe(false)
    await made.setProps({ lines: ['oblique asymptote: y = 2x'] })
    expect(made.findAll('.placed .dashed')).toHaveLength(1)
  })
  it('does not leave the grid', async () => {
    pad()
    for (let k = 0; k < 14; k++) await type('ArrowLeft')
    expect(made.find('.where').text()).toContain('(-10, 0)')
  })
  it('shows what is placed, and apart what was to be looked at again', () => {
    pad(['hole: (3, 5/6)', 'vertical asymptote: x = 3', 'domain: x ≠ 3'])
    expect(made.findAll('.placed')).toHaveLength(2)
    expect(made.find('.placed.wrong .dashed').exists()).toBe(true)
    expect(made.find('.placed:not(.wrong) .open').exists()).toBe(true)
  })
  it('places nothing when the room is closed', async () => {
    pad([], true)
    await type('p')
    expect(made.emitted('place')).toBeUndefined()
    expect(made.find('.kinds').exists()).toBe(false)
  })
})

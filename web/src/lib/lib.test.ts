import { describe, expect, it } from 'vitest'
import { linkStrokes } from './glyph'
import { History } from './history'
import { keep, kept } from './keep'
import { meaningOf, RELATION_WORDS, relationWord, type Relation } from './relations'
import { asBody, CONVENTIONS, inForce } from './conventions'
import { pieces } from './plainmath'
import { instruction, TASKS, unknownOf } from './tasks'

describe('linkStrokes', () => {
  it('gives every relation a shape of its own', () => {
    const names = Object.keys(RELATION_WORDS) as Relation[]
    const shapes = new Set(names.map((name) => JSON.stringify(linkStrokes(name, 20))))
    expect(shapes.size).toBe(names.length)
  })
  it('opens a bar into two, and closes two into one', () => {
    expect(linkStrokes('widens', 20)).toHaveLength(3)
    expect(linkStrokes('settles', 20)[0]!.d).toMatch(/^M-5 0/)
  })
  it('cuts a broken bar with its ends out of line', () => {
    const [upper, lower] = linkStrokes('breaks', 20)
    expect(upper!.d).toBe('M0 0L-3.5 8.00')
    expect(lower!.d).toBe('M3.5 12.00L0 20.00')
  })
  it('scales with its length', () => {
    expect(linkStrokes('holds', 10)[0]!.d).toBe('M0 0V10.00')
  })
})

describe('History', () => {
  it('goes back and forth, and forgets what was undone at a new change', () => {
    const history = new History<string>('a')
    history.push('b')
    history.push('c')
    expect([history.undo(), history.undo(), history.undo()]).toEqual(['b', 'a', null])
    expect(history.redo()).toBe('b')
    history.push('d')
    expect([history.redo(), history.current]).toEqual([null, 'd'])
  })
  it('keeps no more than its limit', () => {
    const history = new History<number>(0, 2)
    for (const k of [1, 2, 3]) history.push(k)
    expect([history.undo(), history.undo(), history.undo()]).toEqual([2, 1, null])
  })
})

describe('keep', () => {
  it('gives back what was kept, and nothing for rubbish', () => {
    keep('draft.1', { text: 'x = (' })
    expect(kept('draft.1')).toEqual({ text: 'x = (' })
    keep('draft.1', null)
    expect(kept('draft.1')).toBeNull()
    localStorage.setItem('uchuu.bad', '{')
    expect(kept('bad')).toBeNull()
  })
})

describe('words', () => {
  it('says of side lines whether they are right, of links how they relate', () => {
    expect(relationWord('holds', 'check')).toBe('right')
    expect(relationWord('breaks', 'aside')).toBe('not right')
    expect(relationWord(null, 'open')).toBe('open')
    expect(relationWord('widens', 'equation')).toBe('widens')
    expect(relationWord(null, 'expression')).toBe('not read')
  })
  it('speaks of values for expressions and of solutions for equations', () => {
    expect(meaningOf('breaks', 'expression', 'simplify')).toContain('not equal')
    expect(meaningOf('breaks', 'equation', 'solve')).toContain('solutions')
    expect(meaningOf('breaks', 'statement', 'solve')).toContain('solutions')
    expect(meaningOf('breaks', 'statement', 'domain')).toContain('not so')
  })
  it.each([
    ['holds', 'expression', 'simplify', 'The two lines are equal.'],
    ['holds', 'choice', 'solve', 'This part of the answer is right.'],
    ['breaks', 'place', 'solve', 'This part of the answer is not right.'],
    ['holds', 'equation', 'solve', 'It has the same solutions.'],
    ['holds', 'statement', 'solve', 'It has the same solutions.'],
    ['holds', 'statement', 'domain', 'It is so for the given.'],
    ['holds', 'statement', 'analyze', 'It is so for the given.'],
    ['breaks', 'statement', 'analyze', 'It is not so for the given.'],
    ['holds', 'feature', 'analyze', 'It is so for the given.'],
    ['breaks', 'feature', 'simplify', 'It is not so for the given.'],
    ['breaks', 'expression', 'domain', 'The two lines are not equal.'],
    ['narrows', 'equation', 'solve', 'A true solution was lost.'],
    ['unclear', 'feature', 'analyze', 'Not decided.'],
    ['widens', 'expression', 'simplify', 'A legal move that added candidates; they are still to be tested.'],
  ] as const)('“%s” of a line of kind %s in the task %s means: %s', (relation, kind, task, meaning) => {
    expect(meaningOf(relation, kind, task)).toBe(meaning)
  })
  it.each([
    ['f(x) = 1/((x+5)(x-2))', 'x'],
    ['y = 3/(t-1)', 't'],
    ['\\frac{1}{m-2} = 3', 'm'],
    ['sqrt(a+5) = 3', 'a'],
    ['y = 4', 'y'],
    ['3 + 4', 'x'],
    ['  g ( t )  = 1/(w+t)', 'w'],
    ['2f(x) = 4', 'f'],
    ['y= 3/(t-1)', 't'],
    ['ty = 3', 't'],
    ['ROOT(3, m) = 2', 'm'],
  ])('finds the letter that %s is about', (given, letter) => expect(unknownOf({ given })).toBe(letter))
})

describe('the plain notation for reading', () => {
  it.each([
    [
      'x^2 - 3',
      [
        ['x', false],
        ['2', true],
        [' − 3', false],
      ],
    ],
    [
      '2^(n+1)·x',
      [
        ['2', false],
        ['n+1', true],
        ['·x', false],
      ],
    ],
    [
      'x^-1',
      [
        ['x', false],
        ['−1', true],
      ],
    ],
    [
      '(x^(2(n-1)))^3',
      [
        ['(x', false],
        ['2(n−1)', true],
        [')', false],
        ['3', true],
      ],
    ],
    ['x → -> y', [['x → -> y', false]]],
    ['7', [['7', false]]],
  ])('raises the exponents of %s', (plain, found) => {
    expect(pieces(plain).map(({ text, raised }) => [text, raised])).toEqual(found)
  })
})

describe('tasks and conventions', () => {
  it('has an instruction for every task, and names the letter to solve for', () => {
    expect(TASKS.map((task) => instruction(task, ''))).not.toContain('')
    expect(new Set(TASKS.map((task) => instruction(task, ''))).size).toBe(TASKS.length)
    expect(instruction('solve', 'r')).toBe('Solve for r')
  })
  it('a letter that is named comes first, and no problem is about x', () => {
    expect([
      unknownOf({ variable: 'r', given: 'A = r^2' }),
      unknownOf({ variable: '', given: 'm = 2' }),
      unknownOf(null),
    ]).toEqual(['r', 'm', 'x'])
  })
  it('sends the API only what is set', () => {
    expect(asBody({ decimal: 'comma', powers: undefined, moves: null } as never)).toEqual({ decimal: 'comma' })
  })
  it('says only what differs from the defaults', () => {
    const defaults = Object.fromEntries(CONVENTIONS.map(({ key, positions }) => [key, positions[0]!.value]))
    expect(inForce(defaults)).toEqual([])
    expect(inForce({ ...defaults, decimal: 'comma', powers: undefined })).toEqual([
      'decimals are written with a: comma: 2,5 (lists with ;)',
    ])
  })
})

describe('files', () => {
  it('are sent in base64, byte by byte', async () => {
    const { inBase64 } = await import('./files')
    expect(
      await inBase64({
        arrayBuffer: () => Promise.resolve(new Uint8Array([80, 75, 0, 255]).buffer),
      } as unknown as File),
    ).toBe('UEsA/w==')
  })
})

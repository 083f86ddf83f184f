import { describe, expect, it } from 'vitest'
import { actionOf, GROUPS, HELP, ON_A_LINE, pressed, SHEET, WRITING } from './shortcuts'

const event = (key: string, more: object = {}): KeyboardEvent => new KeyboardEvent('keydown', { key, ...more })

describe('a pressed key', () => {
  it.each([
    ['Enter', {}, 'Enter'],
    ['a', { altKey: true }, 'Alt+a'],
    ['A', { altKey: true }, 'Alt+a'],
    ['Z', { ctrlKey: true, shiftKey: true }, 'Ctrl+Shift+z'],
    ['z', { metaKey: true }, 'Ctrl+z'],
    ['ArrowUp', { altKey: true }, 'Alt+ArrowUp'],
    ['ArrowUp', { shiftKey: true }, 'ArrowUp'],
    ['?', { shiftKey: true }, '?'],
  ])('%s %j is written %s', (key, more, written) => {
    expect(pressed(event(key, more))).toBe(written)
  })
})

describe('the table of shortcuts', () => {
  it.each([
    [WRITING, 'Enter', {}, 'commit'],
    [WRITING, 'Enter', { altKey: true }, null],
    [ON_A_LINE, 'o', {}, 'open-after'],
    [ON_A_LINE, 'o', { altKey: true }, null],
    [HELP, 'o', { altKey: true }, 'other-explanation'],
    [HELP, 'o', {}, null],
    [SHEET, 'F6', {}, 'next-region'],
    [SHEET, 'n', {}, null],
    [SHEET, 'n', { altKey: true }, 'new'],
  ])('in %j, %s %j means %s', (group, key, more, action) => {
    expect(actionOf(group as never, event(key, more))).toBe(action)
  })
  it('gives no key two meanings in one group', () => {
    for (const group of GROUPS) {
      const keys = group.rows.flatMap((row) => Object.keys(row.keys))
      expect(new Set(keys).size).toBe(keys.length)
    }
  })
  it('gives no key that works everywhere on the desk two meanings', () => {
    const keys = [...HELP.rows, ...SHEET.rows].flatMap((row) => Object.keys(row.keys))
    expect(new Set(keys).size).toBe(keys.length)
  })
  it('shows each row in the words of what it does', () => {
    for (const row of GROUPS.flatMap((group) => group.rows)) {
      expect(row.what.length).toBeGreaterThan(3)
      expect(Object.keys(row.keys).length).toBeGreaterThan(0)
    }
  })
})

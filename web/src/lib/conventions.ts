import { CONVENTIONS as POSITIONS } from '@/api/conventions'
import type { Schema } from '@/api/client'

/** What a sheet has set: the conventions that differ from the defaults. */
export type Conventions = Schema['ConventionsOut']
export type ConventionKey = keyof typeof POSITIONS

/** A convention in a teacher's words; the first position is the default. */
export interface Convention {
  key: ConventionKey
  label: string
  positions: { value: string; label: string }[]
}

/** The positions of a convention in the core's order, each in words. */
function convention<K extends ConventionKey>(
  key: K,
  label: string,
  words: Record<(typeof POSITIONS)[K][number], string>,
): Convention {
  const values = POSITIONS[key] as readonly (typeof POSITIONS)[K][number][]
  return { key, label, positions: values.map((value) => ({ value, label: words[value] })) }
}

/** Every convention of the core, in the order in which a teacher is asked. */
export const CONVENTIONS: Convention[] = [
  convention('roots_of_letters', 'Letters under even roots', {
    'any-real': 'any real number: √x² is |x|',
    'non-negative': 'not negative: √x² is x',
  }),
  convention('root_denominators', 'Roots in denominators', { clear: 'must be cleared', allow: 'may stay' }),
  convention('powers', 'Numeric powers', { evaluate: 'are worked out', leave: 'may stay' }),
  convention('solutions', 'Solutions with ±', {
    listed: 'are listed one by one',
    'plus-minus': 'may be written with ±',
  }),
  convention('checks_after_squaring', 'Checks after squaring', {
    always: 'always',
    'when-gained': 'when a candidate was gained',
    never: 'never asked for',
  }),
  convention('fractions', 'Fractions above 1', { improper: 'improper or mixed', mixed: 'mixed numbers asked for' }),
  convention('restrictions', 'Excluded values beside a simplified expression', {
    optional: 'need not be written',
    required: 'must be written',
  }),
  convention('decimal', 'Decimals are written with a', { point: 'point: 2.5', comma: 'comma: 2,5 (lists with ;)' }),
  convention('product', 'Products in worked solutions', { dot: 'with a dot: 2·x', cross: 'with a cross: 2×x' }),
  convention('moves', 'Moves on both sides, in worked solutions', {
    below: 'below both sides',
    margin: 'in the margin',
    carried: 'terms carried across',
  }),
  convention('order_name', 'The order of operations is called', {
    PEMDAS: 'PEMDAS',
    BODMAS: 'BODMAS',
    BIDMAS: 'BIDMAS',
    GEMDAS: 'GEMDAS',
  }),
]

/** The convention's position in force. */
export function positionOf(chosen: Conventions, { key, positions }: Convention): string {
  return chosen[key] ?? positions[0]!.value
}

/** What is set once this position is chosen: the default is not kept. */
export function withPosition(chosen: Conventions, { key, positions }: Convention, value: string): Conventions {
  return { ...chosen, [key]: value === positions[0]!.value ? undefined : value }
}

/** What differs from the defaults, in a few words for the bar. */
export function inForce(chosen: Conventions): string[] {
  return CONVENTIONS.flatMap(({ key, label, positions }) => {
    const position = positions.find((each) => each.value === chosen[key])
    return position && position !== positions[0] ? [`${label.toLowerCase()}: ${position.label}`] : []
  })
}

/** What is set, as the API takes it. */
export const asBody = (chosen: Conventions): Record<string, string> =>
  Object.fromEntries(
    Object.entries(chosen).filter((entry): entry is [string, NonNullable<(typeof entry)[1]>] => entry[1] != null),
  )

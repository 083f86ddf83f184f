/** The conventions of a sheet in a teacher's words; the first position of each is the default. */
export interface Convention {
  key: string
  label: string
  positions: { value: string; label: string }[]
}

export const CONVENTIONS: Convention[] = [
  {
    key: 'roots_of_letters',
    label: 'Letters under even roots',
    positions: [
      { value: 'any-real', label: 'any real number: √x² is |x|' },
      { value: 'non-negative', label: 'not negative: √x² is x' },
    ],
  },
  {
    key: 'root_denominators',
    label: 'Roots in denominators',
    positions: [
      { value: 'clear', label: 'must be cleared' },
      { value: 'allow', label: 'may stay' },
    ],
  },
  {
    key: 'powers',
    label: 'Numeric powers',
    positions: [
      { value: 'evaluate', label: 'are worked out' },
      { value: 'leave', label: 'may stay' },
    ],
  },
  {
    key: 'solutions',
    label: 'Solutions with ±',
    positions: [
      { value: 'listed', label: 'are listed one by one' },
      { value: 'plus-minus', label: 'may be written with ±' },
    ],
  },
  {
    key: 'checks_after_squaring',
    label: 'Checks after squaring',
    positions: [
      { value: 'always', label: 'always' },
      { value: 'when-gained', label: 'when a candidate was gained' },
      { value: 'never', label: 'never asked for' },
    ],
  },
  {
    key: 'fractions',
    label: 'Fractions above 1',
    positions: [
      { value: 'improper', label: 'improper or mixed' },
      { value: 'mixed', label: 'mixed numbers asked for' },
    ],
  },
  {
    key: 'restrictions',
    label: 'Excluded values beside a simplified expression',
    positions: [
      { value: 'optional', label: 'need not be written' },
      { value: 'required', label: 'must be written' },
    ],
  },
  {
    key: 'decimal',
    label: 'Decimals are written with a',
    positions: [
      { value: 'point', label: 'point: 2.5' },
      { value: 'comma', label: 'comma: 2,5 (lists with ;)' },
    ],
  },
]

/** What differs from the defaults, in a few words for the bar. */
export function inForce(chosen: Record<string, string>): string[] {
  return CONVENTIONS.flatMap(({ key, label, positions }) => {
    const position = positions.find((each) => each.value === chosen[key])
    return position && position !== positions[0] ? [`${label.toLowerCase()}: ${position.label}`] : []
  })
}

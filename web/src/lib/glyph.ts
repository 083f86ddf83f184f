import type { Relation } from './relations'

/** One stroke of a link: an SVG path, and whether it is filled rather than drawn. */
export interface Stroke {
  d: string
  filled?: boolean
  dotted?: boolean
}

/**
 * The strokes of a link of the given length. It runs along y from 0 to `length`, about x = 0, in the units of a
 * full-size rail (3 px strokes); the tiny chain draws the same strokes scaled and turned.
 */
export function linkStrokes(relation: Relation | null, length: number): Stroke[] {
  const at = (share: number): string => (length * share).toFixed(2)
  const end = at(1)
  switch (relation) {
    case 'holds':
      return [{ d: `M0 0V${end}` }]
    case 'widens':
      return [
        { d: `M0 0V${at(0.3)}` },
        { d: `M0 ${at(0.3)}C0 ${at(0.5)} -5 ${at(0.42)} -5 ${at(0.62)}V${end}` },
        { d: `M0 ${at(0.3)}C0 ${at(0.5)} 5 ${at(0.42)} 5 ${at(0.62)}V${end}` },
      ]
    case 'settles':
      return [
        { d: `M-5 0V${at(0.38)}C-5 ${at(0.58)} 0 ${at(0.5)} 0 ${at(0.7)}` },
        { d: `M5 0V${at(0.38)}C5 ${at(0.58)} 0 ${at(0.5)} 0 ${at(0.7)}` },
        { d: `M0 ${at(0.7)}V${end}` },
      ]
    case 'narrows':
      return [
        {
          d: `M-4.5 0C-4.5 ${at(0.42)} -0.7 ${at(0.36)} -0.7 ${at(0.5)}S-4.5 ${at(0.58)} -4.5 ${end}H4.5C4.5 ${at(0.58)} 0.7 ${at(0.64)} 0.7 ${at(0.5)}S4.5 ${at(0.42)} 4.5 0Z`,
          filled: true,
        },
      ]
    case 'breaks':
      return [{ d: `M0 0L-3.5 ${at(0.4)}` }, { d: `M3.5 ${at(0.6)}L0 ${end}` }]
    default:
      return [{ d: `M0 0V${end}`, dotted: true }]
  }
}

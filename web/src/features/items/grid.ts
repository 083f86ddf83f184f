/**
 * Places on a grid as exact fractions: every coordinate is a whole number of sixtieths, so halves, thirds, fourths,
 * fifths and sixths are met.
 */
export const UNIT = 60
export const STEPS = [1, 2, 3, 4, 5, 6]

const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : Math.abs(a))

/** A fraction in the plain notation, in lowest terms: 3, -1/2. */
function fraction(top: number, bottom: number): string {
  const shared = (gcd(top, bottom) || 1) * Math.sign(bottom)
  const [above, below] = [top / shared, bottom / shared]
  return below === 1 ? `${above}` : `${above}/${below}`
}

/** A coordinate in the plain notation. */
export const told = (sixtieths: number): string => fraction(sixtieths, UNIT)

export interface Place {
  x: number
  y: number
}

/** The slant line through two places as a line of features; null where it stands or lies. */
export function slantThrough(from: Place, to: Place, letter = 'x'): string | null {
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  if (!dx || !dy) return null
  const slope = fraction(dy, dx)
  const rise = fraction(from.y * dx - from.x * dy, UNIT * dx)
  const times = slope === '1' ? '' : slope === '-1' ? '-' : slope.includes('/') ? `(${slope})` : slope
  const rest = rise === '0' ? '' : rise.startsWith('-') ? ` - ${rise.slice(1)}` : ` + ${rise}`
  return `oblique asymptote: y = ${times}${letter}${rest}`
}

/** A coordinate from the plain notation as a number; null for what is none. */
export function read(text: string): number | null {
  const found = /^\s*(-?\d+(?:\.\d+)?)\s*(?:\/\s*(\d+))?\s*$/.exec(text)
  return found ? Number(found[1]) / Number(found[2] ?? 1) : null
}

export type Kind = 'point' | 'hole' | 'vertical' | 'horizontal' | 'oblique' | 'x' | 'y'
export const KINDS: { kind: Kind; key: string; words: string }[] = [
  { kind: 'point', key: 'p', words: 'point' },
  { kind: 'hole', key: 'o', words: 'hole' },
  { kind: 'vertical', key: 'v', words: 'vertical asymptote' },
  { kind: 'horizontal', key: 'h', words: 'horizontal asymptote' },
  { kind: 'oblique', key: 's', words: 'oblique asymptote' },
  { kind: 'x', key: 'x', words: 'x-intercept' },
  { kind: 'y', key: 'y', words: 'y-intercept' },
]

/** What is placed at a position, as a line of a table of features. */
export function lineOf(kind: Kind, x: number, y: number, letter = 'x'): string {
  switch (kind) {
    case 'vertical':
      return `vertical asymptote: ${letter} = ${told(x)}`
    case 'horizontal':
      return `horizontal asymptote: y = ${told(y)}`
    case 'x':
      return `${letter}-intercept: ${told(x)}`
    case 'y':
      return `y-intercept: ${told(y)}`
    default:
      return `${kind}: (${told(x)}, ${told(y)})`
  }
}

/** What is placed, and for a slant line its slope; its `y` is the height at 0. */
export type Placed = Place & { kind: Kind; slope?: number }

/** What a line places on the grid; null for any other line. */
export function placedBy(line: string, letter = 'x'): Placed | null {
  const pair = /^\s*(point|hole)s?\s*:\s*\(([^,()]+),([^,()]+)\)\s*$/i.exec(line)
  if (pair) {
    const [x, y] = [read(pair[2]!), read(pair[3]!)]
    return x === null || y === null ? null : { kind: pair[1]!.toLowerCase() as Kind, x, y }
  }
  const slant =
    /^\s*oblique asymptote\s*:\s*y\s*=\s*(-?)\(?(\d+(?:\/\d+)?|-\d+(?:\/\d+)?)?\)?\*?[a-z]\s*(?:([+-])\s*(\d+(?:\/\d+)?))?\s*$/i.exec(
      line,
    )
  if (slant) {
    const slope = read(slant[2] ?? '1') ?? 1
    const rise = read(slant[4] ?? '0') ?? 0
    return { kind: 'oblique', x: 0, y: slant[3] === '-' ? -rise : rise, slope: slant[1] ? -slope : slope }
  }
  const one = /^\s*(vertical asymptote|horizontal asymptote|[a-z]-intercept)\s*:\s*(?:[a-z]\s*=\s*)?(.+)$/i.exec(line)
  const value = one ? read(one[2]!) : null
  if (!one || value === null) return null
  const name = one[1]!.toLowerCase()
  if (name.startsWith('v')) return { kind: 'vertical', x: value, y: 0 }
  if (name.startsWith('h')) return { kind: 'horizontal', x: 0, y: value }
  return name[0] === letter ? { kind: 'x', x: value, y: 0 } : { kind: 'y', x: 0, y: value }
}

/** Places on a grid as exact fractions: every coordinate is a whole number of sixtieths, so halves, thirds, fourths, fifths and sixths are met. */
export const UNIT = 60
export const STEPS = [1, 2, 3, 4, 5, 6]

const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : Math.abs(a))

/** A coordinate in the plain notation: 3, -1/2. */
export function told(sixtieths: number): string {
  const shared = gcd(sixtieths, UNIT) || 1
  const [top, bottom] = [sixtieths / shared, UNIT / shared]
  return bottom === 1 ? `${top}` : `${top}/${bottom}`
}

/** A coordinate from the plain notation as a number; null for what is none. */
export function read(text: string): number | null {
  const found = /^\s*(-?\d+(?:\.\d+)?)\s*(?:\/\s*(\d+))?\s*$/.exec(text)
  return found ? Number(found[1]) / Number(found[2] ?? 1) : null
}

export type Kind = 'point' | 'hole' | 'vertical' | 'horizontal' | 'x' | 'y'
export const KINDS: { kind: Kind; key: string; words: string }[] = [
  { kind: 'point', key: 'p', words: 'point' },
  { kind: 'hole', key: 'o', words: 'hole' },
  { kind: 'vertical', key: 'v', words: 'vertical asymptote' },
  { kind: 'horizontal', key: 'h', words: 'horizontal asymptote' },
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

export type Placed = { kind: Kind; x: number; y: number }

/** What a line places on the grid; null for any other line. */
export function placedBy(line: string, letter = 'x'): Placed | null {
  const pair = /^\s*(point|hole)s?\s*:\s*\(([^,()]+),([^,()]+)\)\s*$/i.exec(line)
  if (pair) {
    const [x, y] = [read(pair[2]!), read(pair[3]!)]
    return x === null || y === null ? null : { kind: pair[1]!.toLowerCase() as Kind, x, y }
  }
  const one = /^\s*(vertical asymptote|horizontal asymptote|[a-z]-intercept)\s*:\s*(?:[a-z]\s*=\s*)?(.+)$/i.exec(line)
  const value = one ? read(one[2]!) : null
  if (!one || value === null) return null
  const name = one[1]!.toLowerCase()
  if (name.startsWith('v')) return { kind: 'vertical', x: value, y: 0 }
  if (name.startsWith('h')) return { kind: 'horizontal', x: 0, y: value }
  return name[0] === letter ? { kind: 'x', x: value, y: 0 } : { kind: 'y', x: 0, y: value }
}

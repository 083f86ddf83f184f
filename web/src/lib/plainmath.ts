/** Pieces of the plain notation for reading: powers raised, ASCII minus as a true one. */
export interface Piece {
  text: string
  raised: boolean
}

/** Splits `x^2 - 3x^(n+1)` into pieces, the exponents raised and without their brackets. */
export function pieces(plain: string): Piece[] {
  const found: Piece[] = []
  let rest = plain.replace(/(?<![-<])-(?!>)/g, '−')
  while (rest) {
    const at = rest.indexOf('^')
    if (at < 0) {
      found.push({ text: rest, raised: false })
      break
    }
    if (at) found.push({ text: rest.slice(0, at), raised: false })
    const after = rest.slice(at + 1)
    const length = exponentLength(after)
    const exponent = after.slice(0, length)
    found.push({ text: exponent.startsWith('(') ? exponent.slice(1, -1) : exponent, raised: true })
    rest = after.slice(length)
  }
  return found
}

function exponentLength(text: string): number {
  if (!text.startsWith('(')) return /^−?\w+/.exec(text)?.[0].length ?? 1
  let depth = 0
  for (let k = 0; k < text.length; k++) {
    if (text[k] === '(') depth++
    if (text[k] === ')' && --depth === 0) return k + 1
  }
  return text.length
}

/**
 * The LaTeX of a mathematics field as a line that the core reads: boxes still empty left out, words and bars as one
 * types them.
 */
export function toLine(latex: string): string {
  return latex
    .replaceAll(/\\placeholder(\[[^\]]*\])?\{[^{}]*\}/g, '')
    .replaceAll('\\lor', '\\text{ or }')
    .replaceAll(/\\mid(?![a-z])/g, '|')
    .replaceAll('\\exponentialE', 'e')
    .replaceAll('\\imaginaryI', 'i')
}

export const TASKS = ['solve', 'simplify', 'factor', 'expand', 'evaluate', 'domain', 'analyze'] as const
export type Task = (typeof TASKS)[number]
export type Numbers = 'real' | 'complex'

/** The instruction as it stands over a problem. */
export function instruction(task: string, variable: string): string {
  switch (task) {
    case 'solve':
      return variable ? `Solve for ${variable}` : 'Solve'
    case 'simplify':
      return 'Simplify'
    case 'factor':
      return 'Factor completely'
    case 'expand':
      return 'Multiply out'
    case 'evaluate':
      return 'Work out'
    case 'domain':
      return 'State the domain'
    case 'analyze':
      return 'Find all features'
    default:
      return task
  }
}

/**
 * The letter a problem is about: the one named, or the first of the given behind `f(x) =` and the words of the
 * notation.
 */
export function unknownOf(problem: { variable?: string | null; given: string } | null | undefined): string {
  if (problem?.variable) return problem.variable
  const given = (problem?.given ?? '').replace(/\\[a-z]+|sqrt|cbrt|abs|root/gi, ' ')
  const behind = given.replace(/^\s*(?:[a-z]\s*\(\s*[a-z]\s*\)|y)\s*=/i, '')
  return (/[a-z]/i.exec(behind) ?? /[a-z]/i.exec(given))?.[0] ?? 'x'
}

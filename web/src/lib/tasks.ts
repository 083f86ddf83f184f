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

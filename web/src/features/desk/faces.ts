/** The faces of a problem: the ways to look at it. */
export type FaceName = 'work' | 'anticipate' | 'methods' | 'board' | 'graph'

export interface Face {
  name: FaceName
  word: string
  /** Pressed with Alt. */
  letter: string
}

const FACES: Face[] = [
  { name: 'work', word: 'Work', letter: 'W' },
  { name: 'anticipate', word: 'Anticipate', letter: 'A' },
  { name: 'methods', word: 'Methods', letter: 'M' },
  { name: 'board', word: 'Board', letter: 'B' },
  { name: 'graph', word: 'Graph', letter: 'G' },
]

/** The faces that a problem of this task has; none where there is no problem. */
export function facesOf(task: string | null): Face[] {
  return task === null ? [] : FACES.filter(({ name }) => name !== 'graph' || task === 'analyze')
}

/** Whether a face takes the room of the notes, too. */
export function isWide(face: string): boolean {
  return face === 'anticipate' || face === 'graph'
}

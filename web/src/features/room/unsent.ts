/**
 * Lines that have not reached the server yet, with the revision they were written on; `tried` are those that were sent
 * and never answered.
 */
export interface Unsent {
  lines: string[]
  revision: number
  tried: string[]
}
const MOST_TRIED = 20

/** Notes that lines go out now. */
export function goesOut(unsent: Unsent): void {
  unsent.tried = [...unsent.tried, JSON.stringify(unsent.lines)].slice(-MOST_TRIED)
}

/**
 * Where the server says that other lines stand: whether they are those sent from here whose answer was lost. Then one
 * goes on from them.
 */
export function goesOn(unsent: Unsent, stands: { lines?: string[]; revision?: number } | null): boolean {
  if (stands?.revision === undefined || !unsent.tried.slice(0, -1).includes(JSON.stringify(stands.lines))) return false
  Object.assign(unsent, { revision: stands.revision, tried: [] })
  return true
}

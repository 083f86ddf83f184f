import { keep, kept } from '@/lib/keep'

/**
 * What the server says, or without a connection what it said last: kept in this browser for a page that is opened again
 * meanwhile. A refusal is none of that.
 */
export async function withCopy<T>(key: string, load: () => Promise<T>): Promise<T> {
  try {
    const found = await load()
    keep(`copy.${key}`, found)
    return found
  } catch (problem) {
    const copy = problem instanceof TypeError ? kept<T>(`copy.${key}`) : null
    if (copy === null) throw problem
    return copy
  }
}

/** Forgets copies whose key begins so. */
export function forgetCopies(beginning: string): void {
  for (const key of Object.keys(localStorage))
    if (key.startsWith(`uchuu.copy.${beginning}`)) localStorage.removeItem(key)
}

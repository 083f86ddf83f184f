import { api, unwrap } from '@/api/client'

/** Most texts that are asked for at once, and most answers that are kept. */
const MOST_ASKED = 100
const MOST_KEPT = 4000
const PAUSE = 15

const kept = new Map<string, string>()
let waiting = new Map<string, ((latex: string) => void)[]>()
let timer: ReturnType<typeof setTimeout> | undefined

/** The LaTeX of a text in the plain notation where it is known already. */
export const known = (text: string): string | undefined => kept.get(text)

/**
 * The LaTeX of a text in the plain notation; empty where it is none, or the server does not answer. What is wanted
 * together is asked together.
 */
export function typeset(text: string): Promise<string> {
  const found = kept.get(text)
  if (found !== undefined) return Promise.resolve(found)
  return new Promise((done) => {
    waiting.set(text, [...(waiting.get(text) ?? []), done])
    timer ??= setTimeout(() => void ask(), PAUSE)
  })
}

async function ask(): Promise<void> {
  timer = undefined
  const asked = [...waiting]
  waiting = new Map()
  for (let k = 0; k < asked.length; k += MOST_ASKED) {
    const part = asked.slice(k, k + MOST_ASKED)
    let latex: string[] = []
    try {
      latex = (await unwrap(api.POST('/api/check/typeset', { body: { texts: part.map(([text]) => text) } }))).latex
      if (kept.size > MOST_KEPT) kept.clear()
      part.forEach(([text], j) => kept.set(text, latex[j] ?? ''))
    } catch {
      // without a connection the plain notation stands; it is asked for again the next time
    }
    part.forEach(([, doneEach], j) => doneEach.forEach((done) => done(latex[j] ?? '')))
  }
}

/** Forgets everything: for tests. */
export function forget(): void {
  kept.clear()
  waiting = new Map()
  clearTimeout(timer)
  timer = undefined
}

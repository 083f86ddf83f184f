import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, ApiError, unwrap, type Link, type Problem } from '@/api/client'
import { useSheets } from '@/features/sheets/store'
import { withCopy } from '@/lib/copies'
import { History } from '@/lib/history'
import { keep, kept } from '@/lib/keep'

export type SaveState = 'saved' | 'saving' | 'offline' | 'conflict' | 'refused'
interface Pending {
  revision: number
  lines: string[]
}

const RETRY = 3000

/** The chain on the paper: its lines as typed, their undo history, and their way to the server and back. */
export const useChain = defineStore('chain', () => {
  const sheets = useSheets()
  const problem = shallowRef<Problem | null>(null)
  const lines = ref<string[]>([])
  const state = ref<SaveState>('saved')
  const trouble = ref('')
  const theirs = shallowRef<Pending | null>(null)
  const histories = new Map<number, History<string[]>>()
  let dirty = false
  let sending: Promise<void> | null = null
  let retry: ReturnType<typeof setTimeout> | undefined

  const history = computed(() => (problem.value ? historyOf(problem.value.id) : null))

  function historyOf(id: number): History<string[]> {
    let found = histories.get(id)
    if (!found) histories.set(id, (found = new History<string[]>([])))
    return found
  }

  /** The verdict on a line, or null while it is not known for the lines as they stand. */
  function linkAt(index: number): Link | null {
    const known = problem.value
    if (!known) return null
    for (let k = 0; k <= index; k++) if (known.lines[k]?.text !== lines.value[k]) return null
    return known.report.links[index] ?? null
  }

  /** Whether the report speaks of exactly the lines that stand on the paper. */
  const judged = computed(() => {
    const known = problem.value?.lines
    return !!known && known.length === lines.value.length && known.every((line, k) => line.text === lines.value[k])
  })

  async function open(id: number): Promise<void> {
    if (problem.value && problem.value.id !== id) await flush()
    const found = await withCopy(`problem.${id}`, () =>
      unwrap(api.GET('/api/problems/{problem_id}', { params: { path: { problem_id: id } } })),
    )
    take(found)
    theirs.value = null
    trouble.value = ''
    state.value = 'saved'
    lines.value = found.lines.map((line) => line.text)
    if (!histories.has(id)) histories.set(id, new History([...lines.value]))
    else if (!same(historyOf(id).current, lines.value)) historyOf(id).push([...lines.value])
    const pending = kept<Pending>(`pending.${id}`)
    if (pending && !same(pending.lines, lines.value)) await resume(found, pending)
    else keep(`pending.${id}`, null)
  }

  async function resume(found: Problem, pending: Pending): Promise<void> {
    if (pending.revision === found.revision) {
      write(pending.lines)
      return
    }
    theirs.value = { revision: found.revision, lines: [...lines.value] }
    lines.value = pending.lines
    state.value = 'conflict'
  }

  function take(found: Problem): void {
    problem.value = found
    keep(`copy.problem.${found.id}`, found)
    sheets.follow(found)
  }

  function write(next: string[]): void {
    history.value?.push([...next])
    set(next)
  }

  function set(next: string[]): void {
    lines.value = [...next]
    dirty = true
    if (problem.value) keep(`pending.${problem.value.id}`, { revision: problem.value.revision, lines: next })
    if (state.value !== 'conflict') void flush()
  }

  function insert(at: number, text: string): void {
    write([...lines.value.slice(0, at), text, ...lines.value.slice(at)])
  }

  /** All lines at once, as one change that can be undone. */
  function fill(next: string[]): void {
    write(next)
  }

  function replace(at: number, text: string): void {
    if (lines.value[at] !== text) write(lines.value.map((line, k) => (k === at ? text : line)))
  }

  function remove(at: number): void {
    write(lines.value.filter((_, k) => k !== at))
  }

  /** Swaps a line with its neighbour; returns where it stands then. */
  function move(at: number, by: -1 | 1): number {
    const to = at + by
    if (to < 0 || to >= lines.value.length) return at
    const next = [...lines.value]
    ;[next[at], next[to]] = [next[to]!, next[at]!]
    write(next)
    return to
  }

  function undo(): void {
    const back = history.value?.undo()
    if (back) set(back)
  }

  function redo(): void {
    const again = history.value?.redo()
    if (again) set(again)
  }

  /** Sends what is not saved yet; one request at a time, the newest lines last. */
  async function flush(): Promise<void> {
    while (sending) await sending
    if (!dirty || !problem.value) return
    sending = send().finally(() => (sending = null))
    await sending
  }

  async function send(): Promise<void> {
    clearTimeout(retry)
    while (dirty && problem.value) {
      const { id, revision } = problem.value
      const sent = [...lines.value]
      dirty = false
      state.value = 'saving'
      try {
        const saved = await unwrap(
          api.PUT('/api/problems/{problem_id}/lines', {
            params: { path: { problem_id: id } },
            body: { revision, lines: sent },
          }),
        )
        take(saved)
        trouble.value = ''
        if (!dirty) {
          keep(`pending.${id}`, null)
          state.value = 'saved'
        }
      } catch (problemFound) {
        dirty = true
        settle(problemFound)
        return
      }
    }
  }

  function settle(found: unknown): void {
    if (found instanceof ApiError && found.status === 409) {
      theirs.value = found.body as Pending
      state.value = 'conflict'
    } else if (found instanceof ApiError && found.status < 500) {
      trouble.value = found.message
      state.value = 'refused'
    } else {
      state.value = 'offline'
      retry = setTimeout(() => void flush(), RETRY)
    }
  }

  /** Ends a conflict: by the lines that stand here, or by those of the other window. */
  async function resolve(choice: 'mine' | 'theirs'): Promise<void> {
    const other = theirs.value
    if (!other || !problem.value) return
    const mine = [...lines.value]
    problem.value = { ...problem.value, revision: other.revision }
    theirs.value = null
    state.value = 'saved'
    if (choice === 'mine') {
      set(mine)
    } else {
      dirty = false
      keep(`pending.${problem.value.id}`, null)
      await open(problem.value.id)
    }
  }

  window.addEventListener('online', () => void flush())

  return {
    problem,
    lines,
    state,
    trouble,
    theirs,
    judged,
    linkAt,
    open,
    insert,
    fill,
    replace,
    remove,
    move,
    undo,
    redo,
    flush,
    resolve,
  }
})

function same(left: string[], right: string[]): boolean {
  return left.length === right.length && left.every((line, k) => line === right[k])
}

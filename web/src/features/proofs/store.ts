import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, ApiError, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'
import { useRun } from '@/composables/useRun'
import { ownConventions } from '@/lib/regional'
import { kept, keep } from '@/lib/keep'

export type Proofs = Schema['KeyOut']
type Run = Schema['KeyRunOut']

/** From so many characters on a key is read problem by problem in the background, and shown as it comes. */
export const LONG = 4000

const look = (id: number): Promise<Run> =>
  unwrap(api.GET('/api/keys/runs/{run_id}', { params: { path: { run_id: id } } }))

/** The key that is being proof-read: its text, kept across a reload, and what was found in it. */
export const useProofs = defineStore('proofs', () => {
  const text = ref('')
  const read = ref('')
  const proofs = shallowRef<Proofs | null>(null)
  /** The reading of a long key, under way or ended; null where it was read at once. */
  const following = useRun<Run>()
  const { now: run, away, quiet } = following
  const request = useRequest('The server does not answer. Your text is kept.')
  /** Whether the text was changed since it was read. */
  const stale = computed(() => proofs.value !== null && text.value !== read.value)

  function recall(): void {
    text.value ||= kept<string>('key') ?? ''
  }

  function write(now: string): void {
    text.value = now
    keep('key', now)
  }

  async function proofread(): Promise<void> {
    const asked = text.value
    if (!asked.trim() || request.busy.value) return
    await request.run(
      () => (asked.length > LONG ? inParts(asked) : atOnce(asked)),
      (found) => {
        if (found) proofs.value = found
        read.value = asked
      },
    )
  }

  async function atOnce(asked: string): Promise<Proofs | null> {
    run.value = null
    try {
      return await unwrap(api.POST('/api/keys/proofread', { body: { text: asked, conventions: ownConventions() } }))
    } catch (problem) {
      if (problem instanceof ApiError && (problem.body as { code?: string } | null)?.code === 'too-long')
        return inParts(asked)
      throw problem
    }
  }

  /** Reads it in the background and shows what is found as it comes; null where it was stopped before anything was. */
  async function inParts(asked: string): Promise<Proofs | null> {
    const begun = await unwrap(api.POST('/api/keys/runs', { body: { text: asked, conventions: ownConventions() } }))
    keep('key.run', { id: begun.id, text: asked })
    return follow(begun, asked)
  }

  /** Follows a reading and shows what is found; null where it was stopped before anything was. */
  async function follow(begun: Run, asked: string): Promise<Proofs | null> {
    read.value = asked
    const last = await following.follow(begun, look, (now) => (proofs.value = now.found))
    return last.done ? last.found : null
  }

  /** Goes on with the reading that was under way when the page was left, where its text still stands here. */
  async function resume(): Promise<void> {
    const left = kept<{ id: number; text: string }>('key.run')
    if (!left || run.value || left.text !== text.value || request.busy.value) return
    await request.run(
      async () => {
        try {
          return await follow(await look(left.id), left.text)
        } catch (problem) {
          if (!(problem instanceof ApiError && problem.status === 404)) throw problem
          keep('key.run', null) // removed, or forgotten after its time
          return null
        }
      },
      (found) => {
        if (found) proofs.value = found
      },
    )
  }

  /** Ends the reading of a long key; what was found so far stays. */
  async function stop(): Promise<void> {
    keep('key.run', null)
    await following.stop()
  }

  /** The id of the new sheet, or null where it could not be made. */
  async function makeSheet(title: string): Promise<number | null> {
    let made: number | null = null
    const whole = run.value?.ended && !stale.value ? run.value : null
    await request.run(
      () =>
        whole
          ? unwrap(
              api.POST('/api/keys/runs/{run_id}/sheet', { params: { path: { run_id: whole.id } }, body: { title } }),
            )
          : unwrap(api.POST('/api/keys/sheet', { body: { text: text.value, title, conventions: ownConventions() } })),
      (sheet) => (made = sheet.id),
    )
    return made
  }

  return {
    text, read, proofs, run, away, quiet, stale, request, busy: request.busy, trouble: request.trouble, recall, resume, write, proofread, stop, makeSheet,
  } // prettier-ignore
})

import { defineStore } from 'pinia'
import { ApiError, api, unwrap, type Schema } from '@/api/client'
import { keep, kept } from '@/lib/keep'

const AGAIN_MS = 4000

interface Sends {
  decide: Schema['DecidedOut']
  type: Schema['WorkingOut']
}
export type Kind = keyof Sends
interface Bodies {
  decide: { workings: number[]; mark: number | null; alike: boolean }
  type: Schema['TypedIn']
}
/** What is on its way to a set: drawn `key`s tell what comes again for its answer was lost. */
export interface Entry<K extends Kind = Kind> {
  kind: K
  key: string
  set: number
  body: Bodies[K]
}
type Settle = { done: (found: unknown) => void; failed: (found: unknown) => void }
/** Who waits for an entry on this page; after a reload nobody does. */
const waiting = new Map<string, Settle>()

let again: ReturnType<typeof setTimeout> | undefined
/** Tries no more by itself, until something is added: for tests, where one page comes after the other. */
export function rest(): void {
  clearTimeout(again)
}

/** A key that nobody draws twice (UUID 4); `crypto.randomUUID` is there only where a page comes by HTTPS. */
function drawnKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  bytes[6] = (bytes[6]! & 0x0f) | 0x40
  bytes[8] = (bytes[8]! & 0x3f) | 0x80
  const digits = [...bytes].map((each) => each.toString(16).padStart(2, '0')).join('')
  return digits.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
}

function sent(entry: Entry): Promise<unknown> {
  const params = { path: { set_id: entry.set } }
  return entry.kind === 'decide'
    ? unwrap(
        api.POST('/api/sets/{set_id}/decisions', {
          params,
          body: { ...(entry.body as Bodies['decide']), key: entry.key },
        }),
      )
    : unwrap(api.PUT('/api/sets/{set_id}/workings', { params, body: entry.body as Bodies['type'] }))
}

/**
 * What has not reached the server yet: kept in this browser from the moment it was done, sent in order, and sent again
 * until there is an answer; also after the page was closed and opened again.
 */
export const useOutbox = defineStore('outbox', {
  state: () => ({
    who: '',
    entries: [] as Entry[],
    sending: false,
    /** Whether the last try found no server. */
    offline: false,
    /** What the server has refused of entries for which nobody waited, in its words. */
    refused: [] as string[],
  }),
  actions: {
    place(): string {
      return `outbox.${this.who}`
    },
    /** What this teacher has left unsent in this browser goes out. */
    begin(who: string) {
      if (this.who === who) return
      this.who = who
      waiting.clear() // whoever waited has gone with their screens
      this.entries = who ? (kept<Entry[]>(this.place()) ?? []) : []
      void this.send()
    },
    /** Keeps something and sends it in its turn: the answer, or what it was refused with. */
    add<K extends Kind>(kind: K, set: number, body: Bodies[K]): Promise<Sends[K]> {
      const entry: Entry<K> = { kind, key: drawnKey(), set, body }
      this.entries.push(entry)
      keep(this.place(), this.entries)
      const answer = new Promise<Sends[K]>((done, failed) =>
        waiting.set(entry.key, { done: done as Settle['done'], failed }),
      )
      void this.send()
      return answer
    },
    async send(): Promise<void> {
      if (this.sending) return
      this.sending = true
      try {
        for (let entry = this.entries[0]; entry; entry = this.entries[0]) {
          const found = await this.tryOne(entry)
          if (!found) break
        }
      } finally {
        this.sending = false
      }
    },
    /** Whether an entry has been answered, well or not; else it stays, and is tried again after a while. */
    async tryOne(entry: Entry): Promise<boolean> {
      const { key } = entry
      try {
        const found = await sent(entry)
        this.away(key)
        waiting.get(key)?.done(found)
      } catch (found) {
        if (!(found instanceof ApiError) || found.status >= 500 || found.status === 429 || found.status === 401) {
          this.offline = true
          clearTimeout(again)
          again = setTimeout(() => this.entries.length && void this.send(), AGAIN_MS)
          return false
        }
        this.away(key)
        if (waiting.has(key)) waiting.get(key)!.failed(found)
        else this.refused.push(found.message)
      }
      waiting.delete(key)
      return true
    },
    away(key: string) {
      this.offline = false
      this.entries = this.entries.filter((each) => each.key !== key)
      keep(this.place(), this.entries.length ? this.entries : null)
    },
  },
})

import { defineStore } from 'pinia'
import { ApiError, api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'
import { withCopy } from '@/lib/copies'
import { keep, kept } from '@/lib/keep'
import { useHome } from './home'
import type { MyItem } from '@/features/items/answer'
import { goesOn, goesOut, type Unsent } from './unsent'

export type MyRoom = Schema['MyRoom']
/** What has not reached the server yet, by item. */
type UnsentItems = Record<string, Unsent>
const AGAIN_MS = 4000
const LOOK_MS = 10_000
const WAKE_MS = 2000
const LEFT = 'room.left'

/**
 * A student's side of a practice room. What is typed stands at once, is kept in this browser until the server has it,
 * and is sent once.
 */
export const useRoom = defineStore('room', {
  state: () => ({
    room: null as MyRoom | null,
    at: 0,
    unsent: {} as UnsentItems,
    /** Lines of this device that another device of the same student has overtaken. */
    overtaken: {} as Record<string, string[]>,
    /** Items that are skipped, to be come back to. */
    later: [] as number[],
    hint: null as Schema['RoomHint'] | null,
    sending: false,
    offline: false,
    /** When the server was last heard, in milliseconds. */
    heard: 0,
    /** Counts who comes and goes: an answer to what was asked before that is no news any more. */
    visit: 0,
    refused: '',
    request: useRequest('There is no connection. Try again in a moment.'),
  }),
  getters: {
    item: (state): MyItem | null => state.room?.items[state.at] ?? null,
    /** The lines of an item as they stand here, sent or not. */
    linesOf:
      (state) =>
      (item: MyItem): string[] =>
        state.unsent[item.id]?.lines ?? item.working?.lines ?? [],
    /**
     * The place of what comes next: the one after this, or behind the last the first that was skipped; null where there
     * is none.
     */
    next: (state): number | null => {
      const items = state.room?.items ?? []
      if (state.at < items.length - 1) return state.at + 1
      const skipped = items.findIndex((each) => state.later.includes(each.id) && !each.working?.answered)
      return skipped === -1 || skipped === state.at ? null : skipped
    },
    waiting: (state): number => Object.keys(state.unsent).length,
    /** Whether lines were kept that are yet to be verified. */
    isVerifiedLate: (state): boolean =>
      !!state.room?.items.some(({ working }) => working && working.told.length < working.lines.length),
  },
  actions: {
    place(): string {
      return `room.${this.room?.title ?? ''}.${this.room?.student ?? ''}`
    },
    comeIn(code: string, name: string, secret: string): Promise<boolean> {
      return this.request.run(
        () => unwrap(api.POST('/api/room/come-in', { body: { code, name, secret } })),
        async (found) => {
          keep(LEFT, null)
          if (found.room) this.enter(found.room)
          else await useHome().load()
        },
      )
    },
    /** The room that one is in already; false where one is outside. */
    async resume(): Promise<boolean> {
      try {
        // a reload without a connection goes on with the room as it was
        this.begin(await withCopy('room', () => unwrap(api.GET('/api/room'))))
        return true
      } catch {
        return false
      }
    },
    enter(found: MyRoom) {
      keep('copy.room', found)
      this.begin(found)
    },
    begin(found: MyRoom) {
      this.room = found
      this.visit += 1
      this.heard = Date.now()
      this.at = Math.min(this.at, found.items.length - 1)
      this.unsent = kept<UnsentItems>(this.place()) ?? {}
      this.later = kept<number[]>(`${this.place()}.later`) ?? []
      void this.send()
    },
    async leave() {
      await this.send()
      useHome().close()
      this.request.clear()
      keep('copy.room', null)
      keep(LEFT, true)
      const visit = this.visit + 1
      this.$reset()
      this.visit = visit
      await this.isOutside()
    },
    /**
     * Whether nobody who has left is still inside for the server: who left without a connection is let out before
     * anybody is shown anything.
     */
    async isOutside(): Promise<boolean> {
      if (!kept(LEFT)) return true
      try {
        await unwrap(api.POST('/api/room/leave'))
      } catch {
        return false
      }
      keep(LEFT, null)
      return true
    },
    /** What the teacher has changed, taken into the room; whether that changes what is told of the lines. */
    hear(found: Schema['News']): boolean {
      this.offline = false
      this.heard = Date.now()
      if (!this.room) return false
      const { tells, hints, paused, nudge, closes, over, ask } = found
      const anew = tells !== this.room.tells || over !== this.room.over
      Object.assign(this.room, { tells, hints, paused, nudge, closes, over, ask })
      return anew
    },
    /** The room anew: what is told of the lines that were sent. */
    async reload(): Promise<void> {
      const { visit } = this
      const found = await unwrap(api.GET('/api/room'))
      if (visit !== this.visit) return
      this.hear(found)
      this.room = found
      keep('copy.room', found)
    },
    /** What was begun and not committed. */
    draftOf(item: number): string {
      return kept<string>(`${this.place()}.draft.${item}`) ?? ''
    },
    keepDraft(item: number, text: string) {
      keep(`${this.place()}.draft.${item}`, text)
    },
    /** Leaves an item for later and goes on. */
    skip(item: MyItem) {
      this.later = [...this.later, item.id]
      keep(`${this.place()}.later`, this.later)
      if (this.next !== null) this.at = this.next
    },
    /** Keeps lines here at once, and sends them. */
    write(item: MyItem, lines: string[]) {
      const before = this.unsent[item.id]
      this.unsent[item.id] = {
        lines,
        revision: before?.revision ?? item.working?.revision ?? 0,
        tried: before?.tried ?? [],
      }
      this.hint = null
      this.later = this.later.filter((each) => each !== item.id)
      keep(`${this.place()}.later`, this.later.length ? this.later : null)
      keep(this.place(), this.unsent)
      void this.send()
    },
    /** Sends what has not been sent, one after the other; what there is no connection for waits. */
    async send(): Promise<void> {
      if (this.sending) return
      this.sending = true
      this.refused = ''
      const { visit } = this
      let anew = false
      try {
        for (let entry = Object.entries(this.unsent)[0]; entry; entry = Object.entries(this.unsent)[0]) {
          const [id, wanted] = entry
          goesOut(wanted)
          keep(this.place(), this.unsent)
          const body = { lines: wanted.lines, revision: wanted.revision }
          const found = await unwrap(
            api.PUT('/api/room/items/{item_id}', { params: { path: { item_id: Number(id) } }, body }),
          )
          if (visit !== this.visit) return
          if (this.hear(found)) anew = true
          const item = this.room?.items.find((each) => each.id === found.item)
          if (item) item.working = found.working
          keep('copy.room', this.room)
          // more may have been typed meanwhile: that goes on from what is there now
          const { revision } = found.working
          if (this.unsent[id]?.lines === wanted.lines) delete this.unsent[id]
          else Object.assign(this.unsent[id]!, { revision, tried: [] })
          keep(this.place(), this.waiting ? this.unsent : null)
        }
        if (anew) await this.reload()
      } catch (found) {
        if (visit === this.visit) await this.failed(found)
      } finally {
        this.sending = false
      }
    },
    async failed(found: unknown): Promise<void> {
      if (!(found instanceof ApiError) || found.status >= 500) {
        this.offline = true // no answer, or none that says anything of these lines
        setTimeout(() => this.waiting && void this.send(), AGAIN_MS)
        return
      }
      if (found.status === 409) {
        const [id, wanted] = Object.entries(this.unsent)[0] ?? []
        if (id && wanted && goesOn(wanted, found.body as Partial<Unsent> | null)) {
          setTimeout(() => void this.send())
          return
        }
        if (id && wanted) {
          this.overtaken[id] = wanted.lines
          delete this.unsent[id]
          keep(this.place(), this.waiting ? this.unsent : null)
        }
        await this.reload().catch(() => undefined)
        return
      }
      this.refused = found.message
      if (found.status === 403) {
        this.room = null
        keep('copy.room', null)
      }
      if (found.code === 'marked' || found.code === 'reading') await this.putAside()
    },
    /** Lines that can't be taken any more, for their working is closed, are put aside: the rest is still sent. */
    async putAside(): Promise<void> {
      const [id] = Object.keys(this.unsent)
      if (id) delete this.unsent[id]
      keep(this.place(), this.waiting ? this.unsent : null)
      await this.reload().catch(() => undefined)
      if (this.waiting) setTimeout(() => void this.send())
    },
    /** Looks what has changed: a pause, a nudge, the end. */
    async look(): Promise<void> {
      const { visit } = this
      try {
        if (this.waiting) {
          if (!this.sending) await this.send()
          return
        }
        const found = await unwrap(api.GET('/api/room/news'))
        if (visit === this.visit && (this.hear(found) || this.isVerifiedLate)) await this.reload()
      } catch (found) {
        if (visit === this.visit) await this.failed(found)
      }
    },
    /** Looks at once, unless that was just done. */
    wake() {
      if (this.room && !this.sending && Date.now() - this.heard > WAKE_MS) void this.look()
    },
    async follow(isLeft: () => boolean): Promise<void> {
      while (!isLeft() && this.room) {
        // every answer brings what is new: who writes need not look
        await new Promise((done) => setTimeout(done, Math.max(LOOK_MS - (Date.now() - this.heard), AGAIN_MS / 4)))
        if (!isLeft() && this.room && Date.now() - this.heard >= LOOK_MS) await this.look()
      }
    },
    /** Answers what is asked from the board. */
    answer(text: string): Promise<boolean> {
      const asked = this.room?.ask
      if (!asked || !text.trim()) return Promise.resolve(false)
      return this.request.run(
        () => unwrap(api.POST('/api/room/ask', { body: { ask: asked.id, text: text.trim() } })),
        (found) => void this.hear(found),
      )
    },
    askHint(item: MyItem): Promise<boolean> {
      return this.request.run(async () => {
        this.hint = await unwrap(api.POST('/api/room/items/{item_id}/hint', { params: { path: { item_id: item.id } } }))
        await this.reload() // how many are left
      })
    },
    /** Takes the lines of this device after all. */
    putMine(item: MyItem) {
      const mine = this.overtaken[item.id]
      delete this.overtaken[item.id]
      if (mine) this.write(item, mine)
    },
  },
})

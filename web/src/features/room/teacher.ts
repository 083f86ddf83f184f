import { defineStore } from 'pinia'
import { ApiError, api, unwrap, type Schema } from '@/api/client'
import { troubleOf, useRequest } from '@/composables/useRequest'

const LOOK_MS = 1000

/** The teacher's view of a practice room: it is looked at each second, and only what has changed is fetched. */
export const useTeachersRoom = defineStore('teachers-room', {
  state: () => ({
    set: 0,
    room: null as Schema['RoomOut'] | null,
    seats: [] as Schema['SeatOut'][],
    none: false,
    names: false,
    /** The code by which the class comes in from home. */
    door: '',
    /** Why the last look at the room failed; it is looked at again by itself. */
    behind: '',
    /** What the teacher does; a look neither ends nor overtakes it. */
    request: useRequest(),
  }),
  getters: {
    /** The error that stands most often just now; empty where there is none. */
    commonest: (state): string => {
      const slips = state.seats.flatMap((seat) => seat.cells.map((cell) => cell.slip)).filter(Boolean)
      const counts = new Map<string, number>()
      for (const slip of slips) counts.set(slip, (counts.get(slip) ?? 0) + 1)
      return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? ''
    },
  },
  actions: {
    /** All of a room. */
    take(found: Schema['RoomOut']) {
      this.room = found
      this.none = false
      this.seats = found.seats
    },
    /** What has changed of a room: students, and of each the workings. */
    takeChanges(found: Schema['RoomOut']) {
      this.room = { ...found, items: this.room?.items ?? [] }
      for (const seat of found.seats) {
        const known = this.seats.find((each) => each.student === seat.student)
        const rest = known?.cells.filter((cell) => !seat.cells.some((each) => each.item === cell.item)) ?? []
        const now = { ...seat, heard: seat.heard ?? known?.heard ?? null, cells: [...rest, ...seat.cells] }
        if (known) Object.assign(known, now)
        else this.seats.push(now)
      }
    },
    async load(set: number): Promise<void> {
      if (this.set !== set) Object.assign(this, { set, room: null, seats: [], none: false, door: '', behind: '' })
      try {
        const since = this.room?.version ?? -1
        const found = await unwrap(
          api.GET('/api/sets/{set_id}/room', { params: { path: { set_id: set }, query: { since } } }),
        )
        if (this.set !== set) return
        if (since < 0) this.take(found)
        else if (found.version > (this.room?.version ?? -1)) this.takeChanges(found)
        this.behind = ''
      } catch (found) {
        if (found instanceof ApiError && found.status === 404) this.none = true
        else
          this.behind = troubleOf(
            found,
            'The server does not answer. The class goes on; what it shows is from a moment ago.',
          )
      }
    },
    async follow(isLeft: () => boolean): Promise<void> {
      const set = this.set
      while (!isLeft() && this.set === set) {
        // after the end only who was away still writes
        await new Promise((done) => setTimeout(done, this.room?.ended ? LOOK_MS * 10 : LOOK_MS))
        if (!isLeft() && !this.none) await this.load(set)
      }
    },
    async loadDoor(school_class: number): Promise<void> {
      const found = await unwrap(
        api.GET('/api/classes/{class_id}/door', { params: { path: { class_id: school_class } } }),
      ).catch(() => ({ code: '' }))
      // a code that was asked for meanwhile is newer
      this.door ||= found.code
    },
    openDoor(school_class: number): Promise<boolean> {
      return this.request.run(
        () => unwrap(api.POST('/api/classes/{class_id}/door', { params: { path: { class_id: school_class } } })),
        (found) => void (this.door = found.code),
      )
    },
    closeDoor(school_class: number): Promise<boolean> {
      return this.request.run(
        () => unwrap(api.DELETE('/api/classes/{class_id}/door', { params: { path: { class_id: school_class } } })),
        () => void (this.door = ''),
      )
    },
    /** Opens the room; the set that it is of, which is another one for a second attempt, or 0 where that failed. */
    async open(settings: Schema['RoomIn']): Promise<number> {
      const set = this.set
      let opened = 0
      await this.request.run(
        () => unwrap(api.POST('/api/sets/{set_id}/room', { params: { path: { set_id: set } }, body: settings })),
        (found) => {
          opened = found.given_set
          if (opened === set) this.take(found)
        },
      )
      return opened
    },
    change(change: Partial<Schema['RoomChange']>): Promise<boolean> {
      return this.request.run(
        () =>
          unwrap(
            api.PATCH('/api/sets/{set_id}/room', {
              params: { path: { set_id: this.set } },
              body: { new_code: false, ...change },
            }),
          ),
        this.take,
      )
    },
    forOne(student: number, change: Partial<Schema['SeatChange']>): Promise<boolean> {
      return this.request.run(
        () =>
          unwrap(
            api.POST('/api/sets/{set_id}/room/students/{student_id}', {
              params: { path: { set_id: this.set, student_id: student } },
              body: { forget_secret: false, ...change },
            }),
          ),
        this.take,
      )
    },
  },
})

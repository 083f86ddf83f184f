import { defineStore } from 'pinia'
import { ApiError, api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'

const LOOK_MS = 1000

/** The teacher's view of a practice room: it is looked at each second, and only what has changed is fetched. */
export const useTeachersRoom = defineStore('teachers-room', {
  state: () => ({
    set: 0,
    room: null as Schema['RoomOut'] | null,
    seats: [] as Schema['SeatOut'][],
    none: false,
    names: false,
    request: useRequest('The server does not answer. The class goes on; what it shows is from a moment ago.'),
  }),
  actions: {
    take(found: Schema['RoomOut']) {
      this.room = found
      this.none = false
      if (found.seats) this.seats = found.seats
    },
    async load(set: number): Promise<void> {
      if (this.set !== set) Object.assign(this, { set, room: null, seats: [], none: false })
      try {
        this.take(await unwrap(api.GET('/api/sets/{set_id}/room', { params: { path: { set_id: set }, query: { since: this.room?.version ?? -1 } } })))
        this.request.clear()
      } catch (found) {
        if (found instanceof ApiError && found.status === 404) this.none = true
        else await this.request.run(() => Promise.reject(found as Error))
      }
    },
    async follow(isLeft: () => boolean): Promise<void> {
      const set = this.set
      while (!isLeft() && this.set === set) {
        await new Promise((done) => setTimeout(done, LOOK_MS))
        if (!isLeft() && this.room && !this.room.ended) await this.load(set)
      }
    },
    open(settings: Schema['RoomIn']): Promise<boolean> {
      return this.request.run(() => unwrap(api.POST('/api/sets/{set_id}/room', { params: { path: { set_id: this.set } }, body: settings })), this.take)
    },
    change(change: Partial<Schema['RoomChange']>): Promise<boolean> {
      return this.request.run(() => unwrap(api.PATCH('/api/sets/{set_id}/room', { params: { path: { set_id: this.set } }, body: { new_code: false, ...change } })), this.take)
    },
    forOne(student: number, change: Partial<Schema['SeatChange']>): Promise<boolean> {
      return this.request.run(
        () => unwrap(api.POST('/api/sets/{set_id}/room/students/{student_id}', { params: { path: { set_id: this.set, student_id: student } }, body: { forget_secret: false, ...change } })),
        this.take,
      )
    },
  },
})

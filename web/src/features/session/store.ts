import { defineStore } from 'pinia'
import { ApiError, api, unwrap, type Schema, type Session } from '@/api/client'
import { withCopy } from '@/lib/copies'
import { forgetAll, keep } from '@/lib/keep'
import { useOutbox } from '@/lib/outbox'
import { writeAs } from '@/lib/regional'

type Settle = (renewed: boolean) => void
/** The requests that wait until the teacher is logged in again. */
let waiting: Settle[] = []

export const useSession = defineStore('session', {
  state: () => ({
    teacher: null as Session['teacher'],
    needsSetup: false,
    loaded: false,
    ended: false,
    /** Of the product and of the core, as the server says. */
    version: '',
    core: '',
  }),
  getters: {
    /** Where one's work begins. */
    home: (state): string => (state.teacher && !state.teacher.teaches ? '/people' : '/'),
  },
  actions: {
    take(session: Session) {
      this.teacher = session.teacher
      if (session.teacher) writeAs(session.teacher.in_force)
      this.needsSetup = session.needs_setup
      this.version = session.version
      this.core = session.core
      this.loaded = true
      keep('copy.session', session)
    },
    async load() {
      if (!this.loaded) this.take(await withCopy('session', () => unwrap(api.GET('/api/account/session'))))
    },
    async logIn(username: string, password: string, digits = '') {
      this.take(await unwrap(api.POST('/api/account/log-in', { body: { username, password, digits } })))
    },
    /** The session has ended under an open screen: resolves to true when the teacher is back, false when they leave. */
    askAgain(): Promise<boolean> {
      if (!this.teacher) return Promise.resolve(false)
      this.ended = true
      return new Promise((settle) => waiting.push(settle))
    },
    async renew(password: string, digits = '') {
      await this.logIn(this.teacher!.username, password, digits)
      this.settle(true)
    },
    /**
     * Gives up the ended session: what waits fails as a request without a log-in, what was typed is kept for the next.
     */
    leave() {
      this.teacher = null
      this.settle(false)
    },
    settle(renewed: boolean) {
      this.ended = false
      const told = waiting
      waiting = []
      for (const settle of told) settle(renewed)
    },
    async setUp(username: string, password: string, name: string, word: string) {
      this.take(await unwrap(api.POST('/api/account/set-up', { body: { username, password, name, word } })))
    },
    /** A second factor that counts once its digits are given back. */
    offerFactor(): Promise<Schema['OfferedFactor']> {
      return unwrap(api.POST('/api/account/second-factor'))
    },
    async confirmFactor(digits: string) {
      this.take(await unwrap(api.PUT('/api/account/second-factor', { body: { digits } })))
    },
    async dropFactor(password: string) {
      this.take(await unwrap(api.POST('/api/account/second-factor/away', { body: { password } })))
    },
    changeRegional(change: Schema['Regional']): Promise<Session> {
      return unwrap(api.PATCH('/api/account/regional', { body: change }))
    },
    async newPassword(old: string, fresh: string) {
      this.take(await unwrap(api.POST('/api/account/password', { body: { old, new: fresh } })))
    },
    async logOut() {
      const outbox = useOutbox()
      await outbox.send()
      const left = outbox.entries.length
      if (left) throw new Error(`${left} ${left === 1 ? 'change has' : 'changes have'} not reached the server yet.`)
      const teacher = this.teacher
      this.teacher = null // who leaves is not asked to log in for it
      try {
        this.take(await unwrap(api.POST('/api/account/log-out')))
      } catch (found) {
        if (!(found instanceof ApiError && found.status === 401)) {
          this.teacher = teacher
          throw found
        }
      }
      forgetAll()
    },
  },
})

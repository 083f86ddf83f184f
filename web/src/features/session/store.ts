import { defineStore } from 'pinia'
import { api, unwrap, type Session } from '@/api/client'
import { forgetAll } from '@/lib/keep'

export const useSession = defineStore('session', {
  state: () => ({ teacher: null as Session['teacher'], needsSetup: false, loaded: false }),
  actions: {
    take(session: Session) {
      this.teacher = session.teacher
      this.needsSetup = session.needs_setup
      this.loaded = true
    },
    async load() {
      if (!this.loaded) this.take(await unwrap(api.GET('/api/account/session')))
    },
    async logIn(username: string, password: string) {
      this.take(await unwrap(api.POST('/api/account/log-in', { body: { username, password } })))
    },
    async setUp(username: string, password: string, name: string) {
      this.take(await unwrap(api.POST('/api/account/set-up', { body: { username, password, name } })))
    },
    async logOut() {
      this.take(await unwrap(api.POST('/api/account/log-out')))
      forgetAll()
    },
  },
})

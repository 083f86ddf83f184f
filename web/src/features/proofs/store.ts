import { defineStore } from 'pinia'
import { api, unwrap, type Schema } from '@/api/client'
import { kept, keep } from '@/lib/keep'

export type Proofs = Schema['KeyOut']

/** The key that is being proof-read: its text, kept across a reload, and what was found in it. */
export const useProofs = defineStore('proofs', {
  state: () => ({ text: '', read: '', proofs: null as Proofs | null, busy: false, trouble: '' }),
  getters: {
    /** Whether the text was changed since it was read. */
    stale: (state): boolean => state.proofs !== null && state.text !== state.read,
  },
  actions: {
    recall() {
      if (!this.text) this.text = kept<string>('key') ?? ''
    },
    write(text: string) {
      this.text = text
      keep('key', text)
    },
    async proofread() {
      if (!this.text.trim() || this.busy) return
      const text = this.text
      await this.attempt(async () => {
        this.proofs = await unwrap(api.POST('/api/keys/proofread', { body: { text, conventions: {} } }))
        this.read = text
      })
    },
    /** The id of the new sheet, or null where it could not be made. */
    async makeSheet(title: string): Promise<number | null> {
      let made: number | null = null
      await this.attempt(async () => {
        made = (await unwrap(api.POST('/api/keys/sheet', { body: { text: this.text, title, conventions: {} } }))).id
      })
      return made
    },
    async attempt(work: () => Promise<void>) {
      this.busy = true
      this.trouble = ''
      try {
        await work()
      } catch (found) {
        this.trouble = found instanceof TypeError ? 'The server does not answer. Your text is kept.' : (found as Error).message
      } finally {
        this.busy = false
      }
    },
  },
})

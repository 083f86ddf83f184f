import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'
import { kept, keep } from '@/lib/keep'

export type Proofs = Schema['KeyOut']

/** The key that is being proof-read: its text, kept across a reload, and what was found in it. */
export const useProofs = defineStore('proofs', () => {
  const text = ref('')
  const read = ref('')
  const proofs = shallowRef<Proofs | null>(null)
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
      () => unwrap(api.POST('/api/keys/proofread', { body: { text: asked, conventions: {} } })),
      (found) => {
        proofs.value = found
        read.value = asked
      },
    )
  }

  /** The id of the new sheet, or null where it could not be made. */
  async function makeSheet(title: string): Promise<number | null> {
    let made: number | null = null
    await request.run(
      () => unwrap(api.POST('/api/keys/sheet', { body: { text: text.value, title, conventions: {} } })),
      (sheet) => (made = sheet.id),
    )
    return made
  }

  return { text, read, proofs, stale, request, busy: request.busy, trouble: request.trouble, recall, write, proofread, makeSheet }
})

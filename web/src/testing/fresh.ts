import { disableAutoUnmount, enableAutoUnmount } from '@vue/test-utils'
import { afterAll, vi } from 'vitest'
import { whenLoggedOut } from '@/api/client'

// One document serves all files of a worker: making it anew takes longer than most tests. So each file leaves it as it
// was found: nothing mounted, nothing stubbed, no clock of its own.
disableAutoUnmount()
enableAutoUnmount(afterAll)
afterAll(() => {
  document.body.innerHTML = ''
  localStorage.clear()
  sessionStorage.clear()
  whenLoggedOut(() => Promise.resolve(false))
  vi.useRealTimers()
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

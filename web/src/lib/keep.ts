/** Small things kept in this browser: drafts of lines, and changes that have not reached the server. */
const PREFIX = 'uchuu.'

export function keep(key: string, value: unknown): void {
  try {
    if (value === null || value === '') localStorage.removeItem(PREFIX + key)
    else localStorage.setItem(PREFIX + key, JSON.stringify(value))
  } catch {
    // a full or forbidden store must not stop the typing; the server still has every committed line
  }
}

export function kept<T>(key: string): T | null {
  try {
    const text = localStorage.getItem(PREFIX + key)
    return text === null ? null : (JSON.parse(text) as T)
  } catch {
    return null
  }
}

/** Forgets everything that was kept, but what a colleague has not sent yet; for logging out. */
export function forgetAll(): void {
  for (const key of Object.keys(localStorage))
    if (key.startsWith(PREFIX) && !key.startsWith(`${PREFIX}outbox.`)) localStorage.removeItem(key)
}

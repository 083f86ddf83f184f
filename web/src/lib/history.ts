/** Undo and redo over whole states. `current` is what stands now; every `push` forgets what was undone. */
export class History<T> {
  private past: T[] = []
  private future: T[] = []

  constructor(
    private now: T,
    private readonly limit = 200,
  ) {}

  get current(): T {
    return this.now
  }

  push(state: T): void {
    this.past.push(this.now)
    if (this.past.length > this.limit) this.past.shift()
    this.now = state
    this.future = []
  }

  undo(): T | null {
    const state = this.past.pop()
    if (state === undefined) return null
    this.future.push(this.now)
    this.now = state
    return state
  }

  redo(): T | null {
    const state = this.future.pop()
    if (state === undefined) return null
    this.past.push(this.now)
    this.now = state
    return state
  }
}

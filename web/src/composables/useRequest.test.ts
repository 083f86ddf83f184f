import { describe, expect, it, vi } from 'vitest'
import { troubleOf, useRequest } from './useRequest'

/** A promise with its two ends in hand. */
function open<T>(): { promise: Promise<T>; give: (found: T) => void; fail: (why: Error) => void } {
  let give!: (found: T) => void
  let fail!: (why: Error) => void
  const promise = new Promise<T>((resolve, reject) => {
    give = resolve
    fail = reject
  })
  return { promise, give, fail }
}

describe('a request', () => {
  it('is busy until the answer has come, and hands it over', async () => {
    const request = useRequest()
    const answer = open<number>()
    const take = vi.fn()
    const done = request.run(() => answer.promise, take)
    expect(request.busy.value).toBe(true)
    answer.give(7)
    expect(await done).toBe(true)
    expect(take).toHaveBeenCalledExactlyOnceWith(7)
    expect(request.busy.value).toBe(false)
  })

  it.each([
    [new TypeError('fetch'), 'Nobody there.', true],
    [new Error('The title is too long.'), 'The title is too long.', false],
  ])('says what went wrong, and whether asking again may help %#', async (why, words, again) => {
    const request = useRequest('Nobody there.')
    expect(await request.run(() => Promise.reject(why))).toBe(false)
    expect([request.trouble.value, request.again.value, request.busy.value]).toEqual([words, again, false])
    expect(troubleOf(why, 'Nobody there.')).toBe(words)
  })

  it('takes only the answer to what was asked last', async () => {
    const request = useRequest()
    const [first, second] = [open<string>(), open<string>()]
    const taken: string[] = []
    const take = (found: string): number => taken.push(found)
    const early = request.run(() => first.promise, take)
    const late = request.run(() => second.promise, take)
    first.give('early')
    expect(await early).toBe(false)
    expect(request.busy.value).toBe(true)
    second.give('late')
    expect(await late).toBe(true)
    expect(taken).toEqual(['late'])
  })

  it('does not complain about what was overtaken', async () => {
    const request = useRequest()
    const first = open<string>()
    const early = request.run(() => first.promise)
    await request.run(() => Promise.resolve('late'))
    first.fail(new Error('too late to matter'))
    expect(await early).toBe(false)
    expect(request.trouble.value).toBe('')
  })

  it('forgets the trouble when it is cleared, and what is still awaited', async () => {
    const request = useRequest()
    await request.run(() => Promise.reject(new TypeError()))
    request.clear()
    expect([request.trouble.value, request.again.value]).toEqual(['', false])
    const answer = open<number>()
    const take = vi.fn()
    const done = request.run(() => answer.promise, take)
    request.clear()
    expect(request.busy.value).toBe(false)
    answer.give(1)
    expect(await done).toBe(false)
    expect(take).not.toHaveBeenCalled()
  })

  it('does the last work again', async () => {
    const request = useRequest()
    const work = vi.fn().mockRejectedValueOnce(new TypeError()).mockResolvedValue(5)
    const take = vi.fn()
    await request.run(work, take)
    expect(await request.retry()).toBe(true)
    expect(work).toHaveBeenCalledTimes(2)
    expect(take).toHaveBeenCalledExactlyOnceWith(5)
    expect(request.trouble.value).toBe('')
  })
})

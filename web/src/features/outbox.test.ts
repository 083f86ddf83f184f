import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import UnsentNote from '@/components/UnsentNote.vue'
import { useSession } from '@/features/session/store'
import { useOutbox } from '@/lib/outbox'
import { beginAnew, line, person, says, sentTo, VERSIONS } from '@/testing/server'

const DECIDE = 'POST /api/sets/7/decisions'
const TYPE = 'PUT /api/sets/7/workings'
const decision = (working: number) => ({ workings: [working], mark: null, alike: false })
const lines = (text: string) => ({ student: 1, item: 11, lines: [text] })
/** The page as it is after it was closed and opened again. */
function openedAgain() {
  setActivePinia(createPinia())
  const outbox = useOutbox()
  outbox.begin('demo')
  return outbox
}
beforeEach(() => {
  beginAnew()
  useOutbox().begin('demo')
  says[DECIDE] = { marks: {}, totals: [] }
  says[TYPE] = {}
})

describe('the outbox', () => {
  it('sends in order and hands the answers over', async () => {
    const outbox = useOutbox()
    says[DECIDE] = (body: unknown) => ({ marks: { [(body as { workings: number[] }).workings[0]!]: 2 }, totals: [] })
    const answers = await Promise.all([outbox.add('decide', 7, decision(1)), outbox.add('decide', 7, decision(2))])
    expect(answers.map((each) => each.marks)).toEqual([{ 1: 2 }, { 2: 2 }])
    expect(outbox.entries).toEqual([])
    const keys = (sentTo(DECIDE) as { key: string }[]).map((each) => each.key)
    expect(new Set(keys).size).toBe(2)
    expect(keys[0]).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
  })
  it('keeps what finds no server, through a reload, and sends it in order under the same keys', async () => {
    const outbox = useOutbox()
    line.down = true
    void outbox.add('decide', 7, decision(1))
    void outbox.add('type', 7, lines('x = 2'))
    void outbox.add('decide', 7, decision(3))
    await flushPromises()
    expect([outbox.entries.length, outbox.offline]).toEqual([3, true])
    const keys = outbox.entries.map((each) => each.key)
    line.down = false
    const again = openedAgain()
    await flushPromises()
    expect(again.entries).toEqual([])
    expect(sentTo(TYPE)).toEqual([lines('x = 2')])
    expect(sentTo(DECIDE)).toEqual([
      { ...decision(1), key: keys[0] },
      { ...decision(3), key: keys[2] },
    ])
    expect(openedAgain().entries).toEqual([]) // and no more after that
  })
  it.each([500, 503, 429, 401])('tries again after a status %i, and not before a while', async (status) => {
    vi.useFakeTimers()
    says[DECIDE] = () => Response.json({ detail: 'not now' }, { status })
    const outbox = useOutbox()
    const answer = outbox.add('decide', 7, decision(1))
    await vi.advanceTimersByTimeAsync(100)
    expect([sentTo(DECIDE).length, outbox.entries.length]).toEqual([1, 1])
    says[DECIDE] = { marks: { 1: 2 }, totals: [] }
    await vi.advanceTimersByTimeAsync(4000)
    expect((await answer).marks).toEqual({ 1: 2 })
    expect([sentTo(DECIDE).length, outbox.entries.length]).toEqual([2, 0])
    vi.useRealTimers()
  })
  it('tells who waits what was refused, and says it at its place where nobody waits any more', async () => {
    says[DECIDE] = () => Response.json({ detail: 'This item is worth 2.' }, { status: 400 })
    await expect(useOutbox().add('decide', 7, decision(1))).rejects.toThrow('worth 2')
    expect(useOutbox().refused).toEqual([])
    line.down = true
    void useOutbox().add('decide', 7, decision(1))
    await flushPromises()
    line.down = false
    const again = openedAgain()
    await flushPromises()
    expect(again.refused).toEqual(['This item is worth 2.'])
    const note = mount(UnsentNote)
    expect(note.text()).toContain('was refused: This item is worth 2.')
    await note.find('button').trigger('click')
    expect(note.text()).toBe('')
  })
  it('says how much is not sent yet, and has the browser ask who leaves', async () => {
    const note = mount(UnsentNote)
    const leaves = () => !window.dispatchEvent(new Event('beforeunload', { cancelable: true }))
    expect([note.text(), leaves()]).toEqual(['', false])
    line.down = true
    void useOutbox().add('decide', 7, decision(1))
    void useOutbox().add('decide', 7, decision(2))
    await flushPromises()
    expect(note.text()).toContain('2 not sent yet: there is no connection.')
    expect(leaves()).toBe(true)
    line.down = false
    window.dispatchEvent(new Event('online'))
    await flushPromises()
    expect([note.text(), leaves()]).toEqual(['', false])
    note.unmount()
  })
  it('is each teacher’s own, and nobody logs out before it is empty', async () => {
    useSession().take({ teacher: person('demo', 'Tavi'), needs_setup: false, ...VERSIONS })
    line.down = true
    void useOutbox().add('decide', 7, decision(1))
    await flushPromises()
    await expect(useSession().logOut()).rejects.toThrow('1 change has not reached the server yet.')
    setActivePinia(createPinia())
    useOutbox().begin('runa')
    expect(useOutbox().entries).toEqual([])
    expect(openedAgain().entries).toHaveLength(1)
  })
})

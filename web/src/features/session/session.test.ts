import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import LogInAgain from './LogInAgain.vue'
import { useSession } from './store'
import { api, unwrap, whenLoggedOut } from '@/api/client'
import { keep, kept } from '@/lib/keep'
import { asked, beginAnew, person, says, sentTo, VERSIONS } from '@/testing/server'

const TEACHER = person('tavi', 'Tavi Orsel', { id: 4 })
/** Whether the server knows the session. */
const server = { open: false }
const save = (title: string) => unwrap(api.POST('/api/sheets', { body: { title } }))

beforeEach(() => {
  beginAnew()
  server.open = false
  const session = useSession()
  session.teacher = TEACHER
  whenLoggedOut(() => session.askAgain())
  says['POST /api/sheets'] = (body: unknown) =>
    server.open ? { id: 1, ...(body as object) } : Response.json({ detail: 'Unauthorized' }, { status: 401 })
  says['POST /api/account/log-in'] = (body: unknown) => {
    server.open = (body as { password: string }).password === 'right'
    return server.open
      ? { teacher: TEACHER, needs_setup: false, ...VERSIONS }
      : Response.json({ code: 'credentials', detail: 'The password is not right.' }, { status: 400 })
  }
})

describe('a session that has ended', () => {
  it('is renewed, and what was refused is sent again, once each, with the new token', async () => {
    document.cookie = 'uchuu_csrf=old'
    const both = Promise.all([save('Tides'), save('Lamps')])
    const session = useSession()
    await vi.waitFor(() => expect(asked).toHaveLength(2))
    await flushPromises()
    expect(session.ended).toBe(true)
    document.cookie = 'uchuu_csrf=new'
    const fetched = vi.spyOn(globalThis, 'fetch')
    await session.renew('right')
    expect(await both).toEqual([
      { id: 1, title: 'Tides' },
      { id: 1, title: 'Lamps' },
    ])
    expect(session.ended).toBe(false)
    expect(sentTo('POST /api/sheets')).toHaveLength(4)
    expect(fetched.mock.calls.map(([request]) => (request as Request).headers.get('X-CSRFToken'))).toEqual([
      'new',
      'new',
      'new',
    ])
  })
  it('refuses what waits when the teacher leaves, and keeps what was typed', async () => {
    keep('draft.3', 'x = 7')
    const waiting = save('Tides')
    const refused = expect(waiting).rejects.toThrow('Unauthorized')
    await vi.waitFor(() => expect(useSession().ended).toBe(true))
    useSession().leave()
    await refused
    expect([useSession().ended, useSession().teacher, kept('draft.3')]).toEqual([false, null, 'x = 7'])
  })
  it('asks nobody who was not logged in', async () => {
    useSession().teacher = null
    await expect(save('Tides')).rejects.toThrow('Unauthorized')
    expect(useSession().ended).toBe(false)
  })
  it('lets the teacher log out without logging in', async () => {
    says['POST /api/account/log-out'] = () => Response.json({ detail: 'Unauthorized' }, { status: 401 })
    keep('draft.3', 'x = 7')
    await useSession().logOut()
    expect([useSession().ended, useSession().teacher, kept('draft.3')]).toEqual([false, null, null])
  })
  it('stays with the teacher who could not be logged out', async () => {
    says['POST /api/account/log-out'] = () => Response.json({}, { status: 500 })
    await expect(useSession().logOut()).rejects.toThrow('500')
    expect(useSession().teacher).toEqual(TEACHER)
  })
})

describe('the log-in over the screen', () => {
  const made = () =>
    mount(LogInAgain, { attachTo: document.body, global: { stubs: { teleport: true, transition: true } } })
  it('says what is wrong with the password, and goes on with the right one', async () => {
    const dialog = made()
    const waiting = save('Tides')
    await vi.waitFor(() => expect(useSession().ended).toBe(true))
    await flushPromises()
    const [name, field] = dialog.findAll('input')
    expect((name!.element as HTMLInputElement).value).toBe('tavi')
    await field!.setValue('wrong')
    await dialog.find('form').trigger('submit')
    await flushPromises()
    expect(dialog.find('[role=alert]').text()).toBe('The password is not right.')
    expect(useSession().ended).toBe(true)
    await field!.setValue('right')
    await dialog.find('form').trigger('submit')
    expect(await waiting).toEqual({ id: 1, title: 'Tides' })
    dialog.unmount()
  })
  it('keeps its keys from the screen behind, but leaves Tab to the dialog', async () => {
    const dialog = made()
    await flushPromises()
    const heard: string[] = []
    const listen = (event: KeyboardEvent) => heard.push(event.key)
    window.addEventListener('keydown', listen)
    for (const key of ['?', 'Backspace', 'Tab']) await dialog.findAll('input')[1]!.trigger('keydown', { key })
    window.removeEventListener('keydown', listen)
    expect(heard).toEqual(['Tab'])
    dialog.unmount()
  })
  it('lets someone else leave', async () => {
    const dialog = made()
    await flushPromises()
    await dialog.find('button').trigger('click')
    expect(dialog.emitted('leave')).toHaveLength(1)
    dialog.unmount()
  })
})

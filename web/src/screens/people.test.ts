import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { createMemoryHistory, createRouter, RouterView } from 'vue-router'
import { defineComponent, h } from 'vue'
import AccountScreen from './AccountScreen.vue'
import PeopleScreen from './PeopleScreen.vue'
import SheetsScreen from './SheetsScreen.vue'
import { router as whole } from '@/router'
import { useSession } from '@/features/session/store'
import { useRegional } from '@/lib/regional'
import { asked, beginAnew, line, person, says, sentTo, sheetList, VERSIONS } from '@/testing/server'

const someone = (id: number, username: string, more: object = {}) => ({
  id,
  username,
  name: username.toUpperCase(),
  teaches: true,
  manages: false,
  active: true,
  last_here: null,
  word_until: null,
  locked: false,
  second_factor: false,
  ...more,
})
const everybody = [
  someone(1, 'demo', { manages: true }),
  someone(2, 'runa', { last_here: '2031-03-04T08:00:00Z' }),
  someone(3, 'ilo', { active: false }),
]
const router = createRouter({
  history: createMemoryHistory(),
  routes: [
    { path: '/', component: SheetsScreen },
    { path: '/people', component: PeopleScreen },
    { path: '/account', component: AccountScreen },
    { path: '/keys', component: SheetsScreen },
    { path: '/build', component: AccountScreen },
    { path: '/log-in', component: SheetsScreen },
    { path: '/sheets/:id', component: AccountScreen },
  ],
})
let made: VueWrapper
async function visit(path: string): Promise<void> {
  await router.push(path)
  made = mount(
    defineComponent(() => () => h(RouterView)),
    { attachTo: document.body, global: { plugins: [router], stubs: { teleport: true, transition: true } } },
  )
  await flushPromises()
}
const button = (words: string) => made.findAll('button').find((each) => each.text() === words)!
async function press(words: string): Promise<void> {
  await button(words).trigger('click')
  await flushPromises()
}
beforeEach(() => {
  document.body.innerHTML = ''
  beginAnew()
  useSession().take({ teacher: person('demo', 'Tavi', { manages: true }), needs_setup: false, ...VERSIONS })
  Object.assign(says, {
    'GET /api/people': {
      people: everybody,
      happenings: [{ when: '2031-03-04T08:00:00Z', who: 'demo', what: 'made', whom: 'ilo' }],
    },
  })
})

describe('people', () => {
  it('shows who may what, and what was done last', async () => {
    await visit('/people')
    const rows = made.findAll('tbody tr').map((each) => each.text())
    expect(rows[0]).toContain('you')
    expect(rows[1]).toContain('last here')
    expect(rows[2]).toContain('switched off')
    expect(made.find('.told').text()).toContain('demo: made ilo')
  })
  it('says who is locked, and unlocks', async () => {
    says['GET /api/people'] = { people: [everybody[0], someone(2, 'runa', { locked: true })], happenings: [] }
    says['POST /api/people/2/unlock'] = someone(2, 'runa')
    await visit('/people')
    expect(made.findAll('tbody tr')[1]!.text()).toContain('locked somewhere after wrong passwords')
    says['GET /api/people'] = { people: everybody, happenings: [] }
    await press('unlock')
    expect(sentTo('POST /api/people/2/unlock')).toHaveLength(1)
    expect(made.text()).not.toContain('locked somewhere')
  })
  it('makes an account; its word is shown once and is where the keyboard is', async () => {
    says['POST /api/people'] = { person: someone(4, 'nera', { name: '' }), word: 'bako-timu-rela-sopi' }
    await visit('/people')
    expect(button('Make the account').attributes('disabled')).toBeDefined()
    await made.find('.new input').setValue('nera')
    await made.find('.new').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/people')).toEqual([{ username: 'nera', name: '', teaches: true, manages: false }])
    expect(made.find('.said').text()).toBe('bako-timu-rela-sopi')
    expect(document.activeElement).toBe(made.find('.word').element)
    await press('Noted')
    expect(made.find('.word').exists()).toBe(false)
    expect(document.activeElement).toBe(made.find('.new input').element)
  })
  it('keeps what was typed when the name is taken', async () => {
    says['POST /api/people'] = () =>
      Response.json({ code: 'account', detail: 'A user with that username already exists.' }, { status: 400 })
    await visit('/people')
    await made.find('.new input').setValue('runa')
    await made.find('.new').trigger('submit')
    await flushPromises()
    expect(made.find('[role=alert]').text()).toContain('already exists')
    expect((made.find('.new input').element as HTMLInputElement).value).toBe('runa')
  })
  it('asks before it switches off or makes a new word, and only then does it', async () => {
    Object.assign(says, {
      'PATCH /api/people/2': everybody[1],
      'POST /api/people/2/reset': { person: everybody[1], word: 'a-b' },
    })
    await visit('/people')
    await made.find('[aria-label="switch off runa"]').trigger('click')
    await flushPromises()
    await press('Leave it on')
    expect(sentTo('PATCH /api/people/2')).toEqual([])
    await made.find('[aria-label="switch off runa"]').trigger('click')
    await flushPromises()
    await press('Switch it off')
    expect(sentTo('PATCH /api/people/2')).toEqual([{ active: false }])
    await made.find('[aria-label="new word for runa"]').trigger('click')
    await flushPromises()
    await press('Make the word')
    expect(made.find('.said').text()).toBe('a-b')
  })
  it('gives and takes rights, switches on, and says what is refused', async () => {
    Object.assign(says, {
      'PATCH /api/people/3': everybody[2],
      'PATCH /api/people/1': () =>
        Response.json({ detail: 'Somebody must be left who manages people.' }, { status: 400 }),
    })
    await visit('/people')
    await made.find('[aria-label="ilo manages people"]').trigger('click')
    await flushPromises()
    await made.find('[aria-label="switch on ilo"]').trigger('click')
    await flushPromises()
    expect(sentTo('PATCH /api/people/3')).toEqual([{ manages: true }, { active: true }])
    await made.find('[aria-label="demo manages people"]').trigger('click')
    await flushPromises()
    expect(made.find('[role=alert]').text()).toContain('Somebody must be left')
    expect((made.find('[aria-label="demo manages people"]').element as HTMLInputElement).checked).toBe(true)
  })
})

describe('one’s own account', () => {
  async function change(old: string, fresh: string, again: string): Promise<void> {
    const fields = made.findAll('[type=password]')
    for (const [k, text] of [old, fresh, again].entries()) await fields[k]!.setValue(text)
    await made.find('form').trigger('submit')
    await flushPromises()
  }
  it('takes a new password when it is the same both times', async () => {
    says['POST /api/account/password'] = { teacher: person('demo', 'Tavi'), needs_setup: false, ...VERSIONS }
    await visit('/account')
    await change('old one', 'tide-table', 'tide-tabel')
    expect(made.find('[role=alert]').text()).toBe('The new password is not the same both times.')
    expect(asked).toEqual([])
    await change('old one', 'tide-table', 'tide-table')
    expect(sentTo('POST /api/account/password')).toEqual([{ old: 'old one', new: 'tide-table' }])
    expect(made.find('[role=status]').text()).toContain('The new password counts')
    expect(made.findAll('[type=password]').map((each) => (each.element as HTMLInputElement).value)).toEqual([
      '',
      '',
      '',
    ])
  })
  it('says who has put a one-time word in place of the password', async () => {
    const reset = { who: 'demo', when: '2031-03-04T08:00:00Z' }
    useSession().take({
      teacher: person('nera', 'Nera', { new_password: true, reset }),
      needs_setup: false,
      ...VERSIONS,
    })
    await visit('/account')
    expect(made.text()).toContain('demo put that word in place of your password on 4 Mar 2031')
    expect(made.find('.factor').exists()).toBe(false)
  })
  it('says how it writes numbers and days', async () => {
    const regional = { decimal: null, dates: 'month-first', week: null }
    const in_force = { decimal: 'point', dates: 'month-first', week: 'monday' }
    says['PATCH /api/account/regional'] = {
      teacher: person('demo', 'Tavi', { regional, in_force }),
      needs_setup: false,
      ...VERSIONS,
    }
    await visit('/account')
    await made.find('[aria-label="Days"]').setValue('month-first')
    await flushPromises()
    expect(sentTo('PATCH /api/account/regional')).toEqual([{ dates: 'month-first' }])
    expect(useRegional().day('2026-03-05')).toBe('Mar 5, 2026')
    says['PATCH /api/account/regional'] = Response.json({ detail: 'no' }, { status: 400 })
    await made.find('[aria-label="Days"]').setValue('year-first')
    await flushPromises()
    expect(made.find('[aria-label="How numbers and days are written"] [role=alert]').exists()).toBe(true)
    expect(useRegional().day('2026-03-05')).toBe('Mar 5, 2026')
  })
  it('sets a second factor up by its digits, and takes it away by the password', async () => {
    const session = (second_factor: boolean) => ({
      teacher: person('demo', 'Tavi', { manages: true, second_factor }),
      needs_setup: false,
      ...VERSIONS,
    })
    Object.assign(says, {
      'POST /api/account/second-factor': { key: 'ABCD', address: 'otpauth://totp/x', code: ['10', '01'] },
      'PUT /api/account/second-factor': session(true),
      'POST /api/account/second-factor/away': session(false),
    })
    await visit('/account')
    await press('Set one up')
    expect(made.find('.factor code').text()).toBe('ABCD')
    expect(made.find('.factor svg path').attributes('d')).toBe('M4 4h1v1h-1zM5 5h1v1h-1z')
    await made.find('[autocomplete=one-time-code]').setValue('123 456')
    await made.find('.factor form').trigger('submit')
    await flushPromises()
    expect(sentTo('PUT /api/account/second-factor')).toEqual([{ digits: '123 456' }])
    expect(made.find('.factor').text()).toContain('At every log-in')
    await press('Take it away')
    await made.find('.factor [type=password]').setValue('secret')
    await made.find('.factor form').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/account/second-factor/away')).toEqual([{ password: 'secret' }])
    expect(made.find('.factor').text()).toContain('Set one up')
  })
  it('lets who came with a one-time word go on to their work', async () => {
    useSession().take({ teacher: person('nera', 'Nera', { new_password: true }), needs_setup: false, ...VERSIONS })
    Object.assign(says, {
      'POST /api/account/password': { teacher: person('nera', 'Nera'), needs_setup: false, ...VERSIONS },
      'GET /api/sheets': sheetList([]),
    })
    await visit('/account')
    expect(made.text()).toContain('You came in with a one-time word')
    expect(made.find('nav').text()).not.toContain('Sheets')
    await change('bako', 'tide-table', 'tide-table')
    expect(router.currentRoute.value.path).toBe('/')
  })
  it('keeps what was typed when it is refused', async () => {
    says['POST /api/account/password'] = () =>
      Response.json({ detail: 'This password is too common.' }, { status: 400 })
    await visit('/account')
    await change('a', 'password1', 'password1')
    expect(made.find('[role=alert]').text()).toBe('This password is too common.')
    expect((made.findAll('[type=password]')[1]!.element as HTMLInputElement).value).toBe('password1')
  })
})

describe('where one may go', () => {
  it.each([
    [{ new_password: true }, '/keys', '/account'],
    [{ teaches: false, manages: true }, '/', '/people'],
    [{ teaches: false, manages: true }, '/account', '/account'],
    [{}, '/people', '/'],
    [{ manages: true }, '/people', '/people'],
    [{}, '/log-in', '/'],
  ])('%j: from %s to %s', async (roles, to, arrives) => {
    useSession().take({ teacher: person('demo', 'Tavi', roles), needs_setup: false, ...VERSIONS })
    await whole.push(to)
    expect(whole.currentRoute.value.path).toBe(arrives)
    await whole.replace('/account')
  })
})

describe('sheets of several people', () => {
  const row = (id: number, more: object = {}) => ({
    id,
    title: `Sheet ${id}`,
    received_from: '',
    changed: '',
    problems: 0,
    sound: 0,
    faulty: 0,
    ...more,
  })
  it('says from whom a copy came, and gives one', async () => {
    Object.assign(says, {
      'GET /api/sheets': sheetList([row(1, { received_from: 'Runa Velm' })]),
      'GET /api/colleagues': [{ username: 'runa', name: 'Runa Velm' }],
      'POST /api/sheets/1/copies': () => new Response(null, { status: 204 }),
    })
    await visit('/')
    expect(made.find('.title').text()).toContain('from Runa Velm')
    await made.find('[aria-label="Give a copy of Sheet 1"]').trigger('click')
    await flushPromises()
    await made.find('select').setValue('runa')
    await made.find('.entry [type=checkbox]').setValue(false)
    await made.find('.entry').trigger('submit')
    await flushPromises()
    expect(sentTo('POST /api/sheets/1/copies')).toEqual([{ username: 'runa', workings: false }])
    expect(made.find('.given').text()).toBe('Runa Velm has a copy of “Sheet 1”.')
  })
  it('says so when there is nobody to give it to, or it is refused', async () => {
    Object.assign(says, { 'GET /api/sheets': sheetList([row(1)]), 'GET /api/colleagues': [] })
    await visit('/')
    await made.find('[aria-label="Give a copy of Sheet 1"]').trigger('click')
    await flushPromises()
    expect(made.text()).toContain('There is no other teacher here yet')
  })
  it.each([
    [[], '“week.json” is taken in.'],
    [[{ place: 2, text: 'x', why: 'No task.' }], 'Not taken: 2 (No task.). The rest is here.'],
  ])('takes a file in, and names what it could not take %#', async (left, words) => {
    Object.assign(says, { 'GET /api/sheets': sheetList([row(1)]), 'POST /api/taken': { sheet: 1, left } })
    await visit('/')
    const field = made.find('[type=file]')
    Object.defineProperty(field.element, 'files', {
      value: [{ name: 'week.json', text: () => Promise.resolve('{"problems": []}') }],
    })
    await field.trigger('change')
    await flushPromises()
    await flushPromises()
    expect(sentTo('POST /api/taken')).toEqual([{ form: 'json', text: '{"problems": []}', title: '' }])
    expect(made.find('.given').text()).toBe(words)
  })
  it('finds sheets by their title and shows further ones below', async () => {
    const many = Array.from({ length: 9 }, (_, k) => row(k + 1))
    says['GET /api/sheets'] = (_: unknown, request: Request) => {
      const query = new URL(request.url).searchParams
      if (query.get('search')) return { sheets: [], more: false, all: 10 }
      return query.get('page') === '2'
        ? { sheets: [row(10)], more: false, all: 10 }
        : { sheets: many, more: true, all: 10 }
    }
    await visit('/')
    await press('Show further ones')
    expect(made.findAll('.list li')).toHaveLength(10)
    await made.find('.search').setValue('zz')
    await flushPromises()
    expect(made.find('.empty').text()).toBe('No sheet has “zz” in its title.')
    line.down = true
    await made.find('.search').setValue('')
    await flushPromises()
    expect(made.find('[role=alert]').text()).toContain('The server does not answer.')
  })
})

import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter, RouterView } from 'vue-router'
import { defineComponent, h } from 'vue'
import BankScreen from './BankScreen.vue'
import BuildScreen from './BuildScreen.vue'
import { useSession } from '@/features/session/store'
import { asked, beginAnew, key, person, says, VERSIONS } from '@/testing/server'

const router = createRouter({
  history: createMemoryHistory(),
  routes: [
    { path: '/bank', component: BankScreen },
    { path: '/build', component: BuildScreen },
    ...['/', '/keys', '/people', '/account', '/sheets/:id', '/sheets/:id/:place'].map((path) => ({
      path,
      component: { template: '<p />' },
    })),
  ],
})
let made: VueWrapper
let wanted: URLSearchParams[] = []
let waiting = 0
const row = (id: number) => ({
  id,
  sheet: 4,
  place: id,
  title: 'Tides',
  task: 'solve',
  given: `x = ${id}`,
  given_latex: `x = ${id}`,
  variable: '',
  numbers: 'real',
  method: '',
  family: 'Linear equations',
  difficulty: id,
  slips: ['Sign lost'],
  printed: id === 1 ? '2026-03-05T08:00:00Z' : null,
  same: id === 2 ? 1 : 0,
})
async function visit(): Promise<void> {
  await router.push('/')
  await router.push('/bank')
  made = mount(
    defineComponent(() => () => h(RouterView)),
    { attachTo: document.body, global: { plugins: [router], stubs: { teleport: true, transition: true } } },
  )
  await flushPromises()
}
async function press(name: string): Promise<void> {
  ;(document.activeElement ?? document.body).dispatchEvent(new KeyboardEvent('keydown', key(name)))
  await flushPromises()
}
beforeEach(() => {
  made?.unmount()
  document.body.innerHTML = ''
  vi.useRealTimers()
  beginAnew()
  wanted = []
  waiting = 0
  useSession().take({ teacher: person('demo', 'Tavi'), needs_setup: false, ...VERSIONS })
  Object.assign(says, {
    'GET /api/bank': (_: unknown, request: Request) => {
      const query = new URL(request.url).searchParams
      wanted.push(query)
      return {
        rows: query.get('page') === '1' ? [row(1), row(2), row(3)] : [row(4)],
        found: 4,
        more: query.get('page') === '1',
        waiting,
      }
    },
    'GET /api/bank/kinds': {
      families: [{ id: 'linear', name: 'Linear equations', count: 4 }],
      methods: [],
      slips: [{ id: 'sign', name: 'Sign lost', count: 2 }],
    },
    'POST /api/bank/looked-through': () => ({ waiting }),
    'GET /api/families': { families: [], events: [] },
  })
})

describe('the bank', () => {
  it('shows what was found, when it was printed, and what is there twice', async () => {
    await visit()
    const rows = made.findAll('li').map((each) => each.text())
    expect(rows).toHaveLength(3)
    expect(rows[0]).toContain('printed 5 Mar 2026')
    expect(rows[1]).toContain('the same item once more')
    expect(made.find('[role=status]').text()).toBe('4 problems')
    await made
      .findAll('button')
      .find((each) => each.text() === 'Show more')!
      .trigger('click')
    await flushPromises()
    expect(made.findAll('li')).toHaveLength(4)
  })
  it('asks anew a moment after the last change, and keeps what is wanted', async () => {
    await visit()
    vi.useFakeTimers()
    await made.find('[type=search]').setValue('x^2')
    await made.findAll('select')[1]!.setValue('sign')
    const since = made.find<HTMLInputElement>('[aria-label="Not printed since"]')
    await since.setValue('1 Jan 2026')
    await since.trigger('change')
    await vi.advanceTimersByTimeAsync(250)
    expect(wanted).toHaveLength(2)
    expect(Object.fromEntries(wanted[1]!)).toMatchObject({ text: 'x^2', slip: 'sign', unused: '2026-01-01', page: '1' })
    expect(
      JSON.parse(localStorage.getItem(Object.keys(localStorage).find((each) => each.includes('bank.wanted'))!)!),
    ).toMatchObject({ text: 'x^2' })
  })
  it('is walked and chosen from by keys, and what is chosen goes into a new sheet', async () => {
    await visit()
    await made.find('[type=search]').trigger('keydown', key('ArrowDown'))
    await flushPromises()
    await press(' ')
    await press('ArrowDown')
    await press('ArrowDown')
    await press(' ')
    expect(made.find('.take').text()).toBe('Take 2 into a new sheet')
    await press('t')
    expect(router.currentRoute.value.path).toBe('/build')
    await flushPromises()
    expect(made.findAll('ol li .given annotation').map((each) => each.text())).toEqual(['x = 1', 'x = 3'])
    expect(document.activeElement!.getAttribute('aria-label')).toContain('from the bank')
  })
  it('opens a problem on the desk', async () => {
    await visit()
    made.findAll<HTMLElement>('li')[0]!.element.focus()
    await press('ArrowDown')
    await press('Enter')
    expect(router.currentRoute.value.path).toBe('/sheets/4/2')
  })
  it('has new problems looked through, and says until when they are found by their text only', async () => {
    waiting = 2
    await visit()
    expect(made.find('[role=status]').text()).toContain('2 are still being looked through')
    expect(asked.filter((each) => each.what === 'POST /api/bank/looked-through')).toHaveLength(1)
    waiting = 0
    await new Promise((done) => setTimeout(done, 1700))
    await flushPromises()
    expect(made.find('[role=status]').text()).toBe('4 problems')
    expect(asked.filter((each) => each.what === 'GET /api/bank/kinds')).toHaveLength(2)
  })
})

import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import OvertimeScreen from './OvertimeScreen.vue'
import { gridOf, linesOf, share, type ClassPatterns } from '@/features/marking/overtime'
import { useSession } from '@/features/session/store'
import { beginAnew, person, says, sentTo, VERSIONS } from '@/testing/server'

const charts: { option: unknown }[] = []
vi.mock('@/components/ChartView.vue', () => ({
  __esModule: true,
  default: {
    name: 'ChartView',
    props: ['option', 'height', 'label'],
    emits: ['chosen'],
    template: '<i class="chart" @click="$emit(\'chosen\', 0, 0)" />',
    mounted(this: { option: unknown }) {
      charts.push({ option: this.option })
    },
  },
}))
const router = createRouter({
  history: createMemoryHistory(),
  routes: [{ path: '/:rest(.*)*', component: { template: '<p />' } }],
})
let made: VueWrapper
const told: ClassPatterns = {
  id: 2,
  name: 'Evening B',
  students: [
    { id: 1, name: 'Ada', number: '' },
    { id: 2, name: 'Bo', number: '' },
  ],
  sets: [
    { id: 10, title: 'One', day: '2026-03-05', workings: 4, right: 1 },
    { id: 11, title: 'Two', day: '2026-03-12', workings: 3, right: 3 },
  ],
  slips: [
    {
      id: 'a',
      name: 'Sign lost',
      kind: 'care',
      counts: [
        { set: 10, could: 4, workings: [101, 102, 103] },
        { set: 11, could: 3, workings: [] },
      ],
      students: [
        { student: 1, state: 'fading', workings: [101, 102] },
        { student: 2, state: 'fading', workings: [103] },
      ],
    },
    {
      id: 'b',
      name: 'Root lost',
      kind: 'concept',
      counts: [{ set: 11, could: 2, workings: [104] }],
      students: [{ student: 2, state: 'new', workings: [104] }],
    },
  ],
  groups: [{ slip: 'b', name: 'Root lost', students: [1, 2] }],
  in_force: person('demo', '').in_force,
  alone: [],
}
beforeEach(async () => {
  made?.unmount()
  beginAnew()
  charts.length = 0
  useSession().take({ teacher: person('demo', 'Tavi'), needs_setup: false, ...VERSIONS })
  Object.assign(says, {
    'GET /api/classes/2/patterns': told,
    'GET /api/learned': {
      on: false,
      slips: [{ id: 'a', name: 'Sign lost', kind: 'care', made: 3, could: 7, declared: 2, share: 0.31, factor: 1.4 }],
    },
    'PUT /api/learned': { on: true, slips: [] },
    'POST /api/sets/11/tomorrow': { sheet: 5 },
  })
  await router.push('/')
  made = mount(OvertimeScreen, { props: { classId: 2 }, attachTo: document.body, global: { plugins: [router] } })
  await vi.dynamicImportSettled()
  await flushPromises()
})
const press = async (label: string): Promise<void> => {
  await made
    .findAll('button')
    .find((each) => each.attributes('aria-label') === label || each.text() === label)!
    .trigger('click')
  await flushPromises()
}

describe('a class over time', () => {
  it('stands in tables beside the charts', () => {
    expect(charts).toHaveLength(2)
    expect(made.findAll('table')[0]!.findAll('tbody tr')[0]!.text()).toContain('3 of 4, 75 %')
    expect(made.findAll('.who').map((each) => each.text())).toEqual(['Ada fading', 'Bo fading', 'Bo new'])
  })
  it.each([
    ['3: Sign lost on 5 Mar 2026, look at the first working', '/sets/10?working=101'],
    ['Bo, Root lost, new', '/sets/11?working=104'],
  ])('leads from %s to the working', async (label, path) => {
    await press(label)
    expect(router.currentRoute.value.fullPath).toBe(path)
  })
  it('leads from a point of the chart to a working', async () => {
    await made.find('.chart').trigger('click')
    await flushPromises()
    expect(router.currentRoute.value.fullPath).toBe('/sets/10?working=101')
  })
  it('makes a starter for a group from the last set that shows its error', async () => {
    await press('a starter against it')
    expect(router.currentRoute.value.path).toBe('/sheets/5/print')
  })
  it('hides the names', async () => {
    await press('hide the names')
    expect(made.text()).not.toContain('Ada')
    expect(made.text()).toContain('student 1')
  })
  it('has answers ordered by the own classes when that is wished', async () => {
    expect(made.text()).toContain('× 1.40')
    await made.find('input[type=checkbox]').setValue(true)
    await flushPromises()
    expect(sentTo('PUT /api/learned')).toEqual([{ on: true }])
  })
})

describe('what the charts draw', () => {
  it('is the share of workings in which an error could be made', () => {
    expect([share(told.slips[0]!, 10), share(told.slips[0]!, 11), share(told.slips[1]!, 10)]).toEqual([75, 0, null])
    const lines = linesOf(told, (text) => `on ${text}`)
    expect(lines.xAxis).toMatchObject({ data: told.sets.map((set) => `on ${set.day}`) })
    const series = lines.series as { name: string; data: unknown[] }[]
    expect(series.map((each) => [each.name, each.data])).toEqual([
      ['Sign lost', [75, 0]],
      ['Root lost', [null, 50]],
    ])
  })
  it('is who shows which, the fresher the stronger', () => {
    const [series] = gridOf(told, String).series as { data: number[][] }[]
    expect(series!.data).toEqual([
      [0, 0, 1],
      [0, 1, 1],
      [1, 1, 2],
    ])
  })
})

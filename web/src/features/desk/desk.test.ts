import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import DeskHeader from './DeskHeader.vue'
import { facesOf, isWide } from './faces'
import { useChain } from '@/features/chain/store'
import { useSheets } from '@/features/sheets/store'
import { beginAnew, problem, sheet } from '@/testing/server'

beforeEach(beginAnew)

describe('the faces of a problem', () => {
  it.each([
    [null, []],
    ['solve', ['work', 'anticipate', 'methods', 'board']],
    ['analyze', ['work', 'anticipate', 'methods', 'board', 'graph']],
  ])('are those of its task: %s', (task, names) => {
    expect(facesOf(task).map(({ name }) => name)).toEqual(names)
  })
  it('have letters of their own, and some take the whole width', () => {
    const letters = facesOf('analyze').map(({ letter }) => letter)
    expect(new Set(letters).size).toBe(letters.length)
    expect(['work', 'methods', 'anticipate', 'graph'].map(isWide)).toEqual([false, false, true, true])
  })
})

describe('the top of the desk', () => {
  function header(faces = facesOf('solve')) {
    return mount(DeskHeader, {
      props: { place: 1, faces, face: 'work' },
      global: { stubs: { RouterLink: { template: '<a><slot /></a>' } } },
    })
  }
  it('says where one is, and which face is shown', async () => {
    useSheets().sheet = sheet(1, 2) as never
    const made = header()
    expect(made.text()).toContain('problem 1 of 2')
    expect(made.find('[aria-current=page]').text()).toBe('Work')
    await made.findAll('nav button')[2]!.trigger('click')
    expect(made.emitted('show')).toEqual([['methods']])
  })
  it('says nothing of a problem where there is none', () => {
    const made = header([])
    expect(made.text()).not.toContain('problem')
    expect(made.find('nav').exists()).toBe(false)
    expect(made.find('[role=status]').text()).toBe('')
  })
  it.each([
    ['saved', 'saved'],
    ['offline', 'No connection: kept in this browser, will be sent'],
    ['conflict', 'Changed in another window'],
    ['refused', 'Not saved'],
  ] as const)('says that a working is %s', (state, words) => {
    useChain().state = state
    expect(header().find('[role=status]').text()).toBe(words)
  })
  it('counts conventions, and what is not taught yet', async () => {
    const sheets = useSheets()
    sheets.sheet = sheet(1) as never
    const made = header()
    expect(made.text()).toContain('real numbers · usual conventions')
    expect(made.text()).toContain('all taught')
    useChain().problem = { ...problem([]), numbers: 'complex' } as never
    sheets.sheet = { ...sheet(1), conventions: { product: 'cross', moves: 'carried' }, untaught: ['lcd'] } as never
    await made.vm.$nextTick()
    expect(made.text()).toContain('complex numbers · 2 conventions set')
    expect(made.text()).toContain('1 not taught yet')
    const [conventions, taught, keys] = made.findAll('.settings > button')
    for (const button of [conventions!, taught!, keys!]) await button.trigger('click')
    expect(['conventions', 'taught', 'keys'].map((name) => made.emitted(name)?.length)).toEqual([1, 1, 1])
  })
})

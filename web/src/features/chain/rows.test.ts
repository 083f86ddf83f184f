import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import ChainRail, { type Bead } from './ChainRail.vue'
import ChainRow from './ChainRow.vue'
import { echo, key, link, unread } from '@/testing/server'

const rowOf = (props: object) =>
  mount(ChainRow, {
    props: {
      number: 2,
      text: 'x = 7',
      echo: echo('x', { right: '= 7', plain: 'x = 7' }),
      link: link(2, 'holds'),
      selected: false,
      beside: false,
      ...props,
    } as never,
    attachTo: document.body,
  })

describe('ChainRow', () => {
  it('says itself in words: the line, its relation, its evidence', () => {
    const broken = rowOf({ link: link(2, 'breaks', { evidence: { text: 'x = 7 solves the line before.' } }) })
    expect(broken.attributes('aria-label')).toBe('Line 2: x = 7. breaks. x = 7 solves the line before.')
    expect(broken.classes()).toContain('breaks')
    expect(broken.find('.word').classes()).not.toContain('quiet')
    expect(rowOf({}).find('.word').classes()).toContain('quiet')
  })
  it('shows a line that can’t be read as it is typed, with the place', () => {
    const raw = rowOf({ text: 'x = (7', echo: unread('Not closed.', 5), link: null })
    expect(raw.find('.raw').text()).toBe('x = (7')
    expect(raw.find('.place').attributes('style')).toContain('4ch')
    expect(raw.attributes('aria-label')).toContain('Not closed.')
  })
  it('waits with the plain text while nothing is known of it', () => {
    expect(rowOf({ echo: null, link: null }).find('.waiting').text()).toBe('x = 7')
  })
  it('sets a line beside the chain in one piece, and calls it right or not', () => {
    const aside = rowOf({ echo: echo('x = 7', { prefix: 'check' }), link: link(2, 'breaks', { kind: 'check' }) })
    expect(aside.find('.aside-text .prefix').text()).toBe('check')
    expect(aside.find('.word').text()).toBe('not right')
  })
  it('shows the move beside it only where it belongs, and marks one that was not made', () => {
    const moved = echo('x', { move: '+ 2' })
    expect(rowOf({ echo: moved }).find('.move').text()).toBe('')
    expect(rowOf({ echo: moved, beside: true }).find('.move').text()).not.toBe('')
    const misstated = rowOf({
      echo: moved,
      beside: true,
      link: link(2, 'holds', { move: { name: 'x', text: '+3', as_stated: false } }),
    })
    expect(misstated.find('.move').classes()).toContain('misstated')
  })
  it('takes the focus when it is chosen, and hands on clicks and keys', async () => {
    const made = rowOf({})
    expect(made.attributes('tabindex')).toBe('-1')
    await made.setProps({ selected: true })
    expect(document.activeElement).toBe(made.element)
    await made.trigger('click')
    await made.trigger('dblclick')
    await made.trigger('keydown', key('Delete'))
    expect([made.emitted('select')?.length, made.emitted('edit')?.length, made.emitted('key')?.length]).toEqual([
      1, 1, 1,
    ])
  })
})

describe('ChainRail', () => {
  const beads: Bead[] = [
    { y: 20, relation: null, first: true },
    { y: 60, relation: 'widens' },
    { y: 80, relation: 'holds', side: true },
    { y: 100, relation: 'breaks', side: true },
    { y: 120, relation: 'settles', ring: 'open' },
    { y: 160, relation: null, writing: true },
  ]
  it('joins the beads of the chain and hangs side lines beside it', () => {
    const rail = mount(ChainRail, { props: { beads, height: 200, freshFrom: 1 } })
    expect(rail.findAll('.link').map((each) => each.classes()[1])).toEqual(['widens', 'settles'])
    expect(rail.findAll('.bead')).toHaveLength(4)
    expect(rail.findAll('path.stub')).toHaveLength(1)
    expect(rail.findAll('.ring.open')).toHaveLength(1)
    expect(rail.findAll('.bead.writing')).toHaveLength(1)
  })
  it('animates only what was written last', () => {
    const rail = mount(ChainRail, { props: { beads, height: 200, freshFrom: 1 } })
    expect(rail.findAll('.link').map((each) => each.classes().includes('fresh'))).toEqual([false, true])
  })
})

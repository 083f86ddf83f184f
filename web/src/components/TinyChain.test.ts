import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import MathText from './MathText.vue'
import TinyChain from './TinyChain.vue'

describe('TinyChain', () => {
  const beads = [
    { kind: 'equation', relation: 'holds' },
    { kind: 'check', relation: 'holds' },
    { kind: 'equation', relation: 'breaks' },
  ]
  it('draws one link for every line of the chain and none for side lines', () => {
    const chain = mount(TinyChain, { props: { beads, verdict: 'wrong', finished: false } })
    expect(chain.findAll('.link')).toHaveLength(2)
    expect(chain.findAll('.link.breaks')).toHaveLength(1)
  })
  it('says in words what it shows', () => {
    const chain = mount(TinyChain, { props: { beads, verdict: 'wrong', finished: false } })
    expect(chain.attributes('aria-label')).toBe('2 lines, one breaks; answer: wrong')
  })
})

describe('MathText', () => {
  it('sets LaTeX and trusts nothing but marks', () => {
    const set = mount(MathText, { props: { latex: '\\htmlClass{slip}{x}+\\href{http://a.b}{y}' } })
    expect(set.find('.slip').exists()).toBe(true)
    expect(set.find('a').exists()).toBe(false)
  })
})

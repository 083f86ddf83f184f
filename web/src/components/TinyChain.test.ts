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
  const setOf = (latex: string) => mount(MathText, { props: { latex } })
  it.each(['mark-slip', 'mark-focus', 'mark-cancel-2', 'mark-carry'])('sets the mark %s of the core', (mark) => {
    expect(setOf(`\\htmlClass{${mark}}{x}`).find(`.${mark}`).text()).toContain('x')
  })
  // all commands that are trusted only on demand, and classes that are not the core's
  it.each([
    '\\htmlClass{el-overlay}{x}',
    '\\htmlClass{mark-slip el-overlay}{x}',
    '\\htmlClass{mark-}{x}',
    '\\htmlId{app}{x}',
    '\\htmlStyle{position: fixed; inset: 0}{x}',
    '\\htmlData{test=1}{x}',
    '\\href{http://a.b}{x}',
    '\\url{http://a.b}',
    '\\includegraphics{http://a.b/c.png}',
  ])('trusts nothing of %s', (latex) => {
    const { element } = setOf(latex)
    expect(element.querySelector('a, img, [id], [data-test], .el-overlay, [style*=position]')).toBeNull()
  })
  it('sets anew what has changed, and no more than once', async () => {
    const set = setOf('x')
    await set.setProps({ latex: 'y' })
    expect(set.findAll('.katex')).toHaveLength(1)
    expect(set.text()).not.toContain('x')
  })
})

import { describe, expect, it } from 'vitest'
import { putOn, putOnAlways, setAside } from './asidestyles'

describe('styles in markup', () => {
  it.each([
    [`<b style="top: 2px">x</b>`, `<b data-style="top: 2px">x</b>`],
    [`<b class="a" style='top: 2px'>x</b><i style="left: 1px"></i>`, `<b class="a" data-style='top: 2px'>x</b><i data-style="left: 1px"></i>`],
    [`<b>a style=b</b>`, `<b>a style=b</b>`],
    [`<style>b { top: 0 }</style>`, `<style>b { top: 0 }</style>`],
  ])('are set aside in %s', (markup, aside) => expect(setAside(markup)).toBe(aside)) // prettier-ignore
  it('are put on by the script, whatever an element is given later', () => {
    const element = document.createElement('div')
    element.innerHTML = setAside('<b style="top: 2px">x</b>')
    putOnAlways(element)
    const now = () => [...element.children].map((each) => (each as HTMLElement).style.cssText)
    expect(now()).toEqual(['top: 2px;'])
    element.innerHTML = setAside('<b style="left: 3px">y</b><i>z</i>')
    expect(now()).toEqual(['left: 3px;', ''])
    expect(element.innerHTML).not.toContain('data-style')
    const other = document.createElement('div')
    other.innerHTML = setAside('<b style="top: 2px">x</b>')
    expect(other.querySelector('b')!.style.cssText).toBe('')
    putOn(other)
    expect(other.querySelector('b')!.style.cssText).toBe('top: 2px;')
  })
})

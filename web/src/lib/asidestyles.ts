/**
 * Styles in markup, for a page whose policy takes none: they are set aside in the markup and put on by the script, which
 * the policy allows.
 */
const ASIDE = 'data-style'

/** Markup with the styles of its elements set aside. */
export const setAside = (markup: string): string => markup.replace(/ style=(?=["'])/g, ` ${ASIDE}=`)

/** Puts the styles on that were set aside in the markup of these elements. */
export function putOn(within: ParentNode): void {
  for (const each of within.querySelectorAll<HTMLElement>(`[${ASIDE}]`)) {
    each.style.cssText = each.getAttribute(ASIDE) ?? ''
    each.removeAttribute(ASIDE)
  }
}

/** From now on puts on what is set aside in the markup that an element is given, before anybody can measure it. */
export function putOnAlways(element: Element): void {
  const { get, set } = Object.getOwnPropertyDescriptor(Element.prototype, 'innerHTML')!
  Object.defineProperty(element, 'innerHTML', {
    configurable: true,
    get,
    set(markup: string) {
      set!.call(element, markup)
      putOn(element)
    },
  })
  putOn(element)
}

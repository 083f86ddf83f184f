/** How an item may stand on paper, with the words for it, in the order in which one key goes through them. */
export const ITEM_FORMS = [
  ['work', 'to work'],
  ['choose', 'to choose from'],
  ['mend', 'to mend'],
  ['fill', 'to fill in'],
  ['way', 'which way'],
  ['claim', 'true or not'],
] as const
export type ItemForm = (typeof ITEM_FORMS)[number][0]

/** The form after this one; the first after the last. */
export function nextForm(form: string | undefined): ItemForm {
  const at = ITEM_FORMS.findIndex(([id]) => id === (form ?? 'work'))
  return ITEM_FORMS[(at + 1) % ITEM_FORMS.length]![0]
}
export const formWords = (form: string | undefined): string => ITEM_FORMS.find(([id]) => id === form)?.[1] ?? ''

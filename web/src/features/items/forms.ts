import type { Component } from 'vue'
import ChooseAnswer from './ChooseAnswer.vue'
import ClaimAnswer from './ClaimAnswer.vue'
import FeaturesAnswer from './FeaturesAnswer.vue'
import FillAnswer from './FillAnswer.vue'
import MendAnswer from './MendAnswer.vue'
import WayAnswer from './WayAnswer.vue'
import WorkAnswer from './WorkAnswer.vue'
import { LETTERS } from './words'
import type { Schema } from '@/api/client'

export type Shown = Schema['Shown']
export type FormName = Shown['form']

/**
 * One form of item. `answered`: an answer is given, where else lines are worked; `givenWithin`: what stands over the
 * answer is drawn by the component; `mark`: what a part of it is called by.
 */
interface ItemForm {
  component: Component
  /** What keys do in it, beside those of the whole room. */
  keys: Row[]
  answered: boolean
  givenWithin?: boolean
  mark?: (k: number) => string
}

type Row = { shown: string; what: string; keys: Record<string, never> }
const row = (shown: string, what: string): Row => ({ shown, what, keys: {} })
const LINES = [row('Enter', 'the line stands'), row('↑', 'take the last line up again (in an empty field)')]
const GIVE = row('Enter', 'this is my answer')

/** Every form there is: the type checker asks for one that the server knows and this table does not. */
export const FORMS: Record<FormName, ItemForm> = {
  work: { component: WorkAnswer, keys: LINES, answered: false },
  features: { component: FeaturesAnswer, keys: LINES, answered: false },
  choose: {
    component: ChooseAnswer,
    keys: [row('A B C …', 'choose'), GIVE],
    answered: true,
    mark: (k) => LETTERS[k] ?? '',
  },
  mend: {
    component: MendAnswer,
    keys: [row('1 2 3 …', 'the line that does not follow'), GIVE],
    answered: true,
    mark: (k) => `${k + 1}`,
  },
  fill: {
    component: FillAnswer,
    keys: [row('Enter', 'the next blank; after the last, this is my answer')],
    answered: true,
  },
  way: { component: WayAnswer, keys: [row('1 2 3 …', 'choose'), GIVE], answered: true },
  claim: { component: ClaimAnswer, keys: [row('1 · 2', 'true, or not true'), GIVE], answered: true, givenWithin: true },
}

/** The form of an item; what has none of its own is worked. */
export const formOf = (item: { form?: Shown | null } | null | undefined): ItemForm => FORMS[item?.form?.form ?? 'work']

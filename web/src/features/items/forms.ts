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
  answered: boolean
  givenWithin?: boolean
  mark?: (k: number) => string
}

/** Every form there is: the type checker asks for one that the server knows and this table does not. */
export const FORMS: Record<FormName, ItemForm> = {
  work: { component: WorkAnswer, answered: false },
  features: { component: FeaturesAnswer, answered: false },
  choose: { component: ChooseAnswer, answered: true, mark: (k) => LETTERS[k] ?? '' },
  mend: { component: MendAnswer, answered: true, mark: (k) => `${k + 1}` },
  fill: { component: FillAnswer, answered: true },
  way: { component: WayAnswer, answered: true },
  claim: { component: ClaimAnswer, answered: true, givenWithin: true },
}

/** The form of an item; what has none of its own is worked. */
export const formOf = (item: { form?: Shown | null } | null | undefined): ItemForm => FORMS[item?.form?.form ?? 'work']

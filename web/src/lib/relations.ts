import type { Schema } from '@/api/client'

export type Note = Schema['Link']['notes'][number]

/** The relations of a link, in the words that always stand beside their glyphs. */
export type Relation = 'holds' | 'widens' | 'settles' | 'narrows' | 'breaks' | 'unclear'

export const RELATION_WORDS: Record<Relation, { short: string; meaning: string }> = {
  holds: { short: 'holds', meaning: 'Same value, or the same solutions.' },
  widens: { short: 'widens', meaning: 'A legal move that added candidates; they are still to be tested.' },
  settles: { short: 'settles', meaning: 'Candidates that do not solve the original were dropped.' },
  narrows: { short: 'narrows', meaning: 'A true solution was lost.' },
  breaks: { short: 'breaks', meaning: 'Not equal, or other solutions.' },
  unclear: { short: 'unclear', meaning: 'Not decided.' },
}

/** The meaning of a relation, said of expressions, of equations, or of what is stated of a function. */
export function meaningOf(relation: Relation, kind: string, task: string): string {
  const stated = kind === 'feature' || (kind === 'statement' && (task === 'domain' || task === 'analyze'))
  if (stated && relation === 'breaks') return 'It is not so for the given.'
  if (stated && relation === 'holds') return 'It is so for the given.'
  if (ANSWER_KINDS.has(kind))
    return relation === 'holds' ? 'This part of the answer is right.' : 'This part of the answer is not right.'
  const expression = kind === 'expression'
  if (relation === 'breaks') return expression ? 'The two lines are not equal.' : 'It does not have the same solutions.'
  if (relation === 'holds') return expression ? 'The two lines are equal.' : 'It has the same solutions.'
  return RELATION_WORDS[relation].meaning
}

/** Kinds of line that stand beside the chain and claim something by themselves. */
const SIDE_KINDS = new Set(['aside', 'check', 'exclusion', 'definition', 'assumption', 'approximation', 'move', 'open'])

/** Kinds of line that answer an item in another form than a chain. */
const ANSWER_KINDS = new Set(['choice', 'place', 'answer', 'blank', 'way', 'judgement', 'numbers'])

export function isSideLine(kind: string): boolean {
  return SIDE_KINDS.has(kind)
}

/** What a side line's verdict is called: a check or an exclusion is right or not, it is no link. */
export function relationWord(relation: string | null, kind: string): string {
  if (kind === 'open') return 'open'
  if (kind === 'move') return 'move'
  if (relation === null) return 'not read'
  if (isSideLine(kind) || ANSWER_KINDS.has(kind))
    return relation === 'holds' ? 'right' : relation === 'breaks' ? 'not right' : 'unclear'
  return RELATION_WORDS[relation as Relation].short
}

/** Notes that a link may carry, in words. */
export const NOTE_WORDS: Record<Note, string> = {
  'aside-not-put-back': 'What was worked out beside the line above is not put back here.',
  'longer-road': 'Right, and a longer road: there was a shorter step from the line before.',
  'out-of-time': 'This link was not decided within the work allowed for it.',
  'method-differs': 'Right, but the task asks for another method.',
  'side-work': 'Worked beside the chain: it is judged by itself.',
  open: 'The boxes are still empty. The next line is compared with the one before.',
  'leads-there': 'Right; another way is shorter.',
  'right-place': 'The place is right, what is written for it is not.',
  lucky: 'It comes out all the same, but by accident: with other numbers this would be wrong.',
  repaired: 'Back on track: this line does not follow from the faulty one, but it is right for the given.',
  'exclusions-missing': 'What is excluded here is right; more values have to be excluded.',
  'undefined-at': 'This line is undefined at a value where the given is defined.',
  'ambiguous-slash': 'A slash takes only its two neighbours: 2/3x is read as (2/3)·x. Compare the typeset line.',
  'ambiguous-root': 'Without brackets the root sign takes the next symbol only: √x² is read as (√x)².',
  'mixed-number': 'A whole number before a fraction is read as a mixed number.',
  'equals-lost': 'The equals sign is lost: an equation has to go on as an equation.',
  undefined: 'This line has no value.',
  'given-not-read': 'The given can not be used, so nothing is said of this line.',
  'not-a-number-to-check': 'This check can not be worked out: the candidate is not a single number.',
}

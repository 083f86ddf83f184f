/** Why a teacher should look before confirming, in words. */
export const EYE_WORDS: Record<string, string> = {
  unread: 'A line could not be read.',
  undecided: 'A line could not be decided.',
  owed: 'A check is owed.',
  lucky: 'A line is right by luck.',
  'broken-right': 'The answer is right, the working is not.',
  'answer-alone': 'A right answer without working.',
  'unknown-slip': 'A line breaks, and no known error explains it.',
}
export const SCHEMES = [
  ['points', 'method and accuracy, with follow-through'],
  ['answer', 'the answer only'],
  ['steps', 'a point a right step'],
  ['levels', 'levels 0 to 4'],
] as const

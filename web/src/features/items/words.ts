/** What a student is told of a line, in words. */
export const SAYS: Record<string, string> = {
  holds: 'holds',
  look: 'look again',
  unread: 'can’t be read',
  open: 'can’t be told',
}
/** The names of options, and the keys that choose a place. */
export const LETTERS = 'ABCDEFGH'
export const DIGITS = '123456789'
/** What stands for a part that is left open before one that is given. */
export const LEFT_OPEN = '?'

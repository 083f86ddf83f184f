/** What a student is told of a line, in words. */
export const SAYS: Record<string, string> = {
  holds: 'holds',
  look: 'look again',
  unread: 'can’t be read',
  open: 'can’t be told',
}

/** What stands open over the desk; one at a time, and while one does the desk's keys rest. */
export type Opened =
  { kind: 'keys' | 'new' | 'change' | 'conventions' | 'taught' | 'remove' } | { kind: 'replace'; lines: string[] }

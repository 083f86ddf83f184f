/**
 * Every shortcut of the desk in one table: what is pressed, how it is shown, what it does. The panel of keys is drawn
 * from it, and
 * what listens asks it which action a key means, so that neither can say what the other doesn't.
 */
export interface Row<Action extends string> {
  /** As the panel shows it. */
  shown: string
  what: string
  /** Pressed key → action. */
  keys: Partial<Record<string, Action>>
}
export interface Group<Action extends string> {
  name: string
  rows: Row<Action>[]
}

export type WritingAction = 'commit' | 'cancel' | 'up' | 'down' | 'undo' | 'redo' | 'help'
export const WRITING: Group<WritingAction> = {
  name: 'While writing',
  rows: [
    { shown: 'Enter', what: 'commit the line', keys: { Enter: 'commit' } },
    { shown: 'Esc', what: 'leave it', keys: { Escape: 'cancel' } },
    { shown: '↑', what: 'go to the lines', keys: { ArrowUp: 'up', ArrowDown: 'down' } },
    {
      shown: 'Ctrl Z · Ctrl Y',
      what: 'undo, redo a line (in an empty field)',
      keys: { 'Ctrl+z': 'undo', 'Ctrl+Shift+z': 'redo', 'Ctrl+y': 'redo' },
    },
    { shown: '?', what: 'this panel (in an empty field); F1 anywhere', keys: { '?': 'help' } },
  ],
}

export type LineAction =
  | 'move-up'
  | 'move-down'
  | 'up'
  | 'down'
  | 'first'
  | 'write'
  | 'edit'
  | 'open-before'
  | 'open-after'
  | 'remove'
  | 'undo'
  | 'redo'
  | 'help'
export const ON_A_LINE: Group<LineAction> = {
  name: 'On a line',
  rows: [
    { shown: '↑ ↓ · Home', what: 'from line to line', keys: { ArrowUp: 'up', ArrowDown: 'down', Home: 'first' } },
    { shown: 'Enter', what: 'edit it', keys: { Enter: 'edit', F2: 'edit' } },
    { shown: 'Insert', what: 'open a line before it', keys: { Insert: 'open-before' } },
    { shown: 'o', what: 'open a line after it', keys: { o: 'open-after' } },
    { shown: 'Delete', what: 'remove it', keys: { Delete: 'remove', Backspace: 'remove' } },
    { shown: 'Alt ↑ · Alt ↓', what: 'move it', keys: { 'Alt+ArrowUp': 'move-up', 'Alt+ArrowDown': 'move-down' } },
    {
      shown: 'Ctrl Z · Ctrl Y',
      what: 'undo, redo',
      keys: { 'Ctrl+z': 'undo', 'Ctrl+Shift+z': 'redo', 'Ctrl+y': 'redo' },
    },
    { shown: 'Esc · End', what: 'back to writing', keys: { Escape: 'write', End: 'write', '?': 'help' } },
  ],
}

export type HelpAction =
  'next-step' | 'use-right-line' | 'other-explanation' | 'work' | 'anticipate' | 'methods' | 'board' | 'graph'
export const HELP: Group<HelpAction> = {
  name: 'Help with the working',
  rows: [
    { shown: 'Alt H', what: 'the next step: hint, rule, line', keys: { 'Alt+h': 'next-step' } },
    {
      shown: 'Alt U · Alt O',
      what: 'at a slip: use the right line, other explanations',
      keys: { 'Alt+u': 'use-right-line', 'Alt+o': 'other-explanation' },
    },
    { shown: 'Alt W', what: 'the paper', keys: { 'Alt+w': 'work' } },
    { shown: 'Alt A', what: 'the wrong answers to expect', keys: { 'Alt+a': 'anticipate' } },
    { shown: 'Alt M', what: 'the methods side by side', keys: { 'Alt+m': 'methods' } },
    { shown: 'Alt B', what: 'the board', keys: { 'Alt+b': 'board' } },
    { shown: 'Alt G', what: 'the graph (of a function)', keys: { 'Alt+g': 'graph' } },
  ],
}

export type SheetAction =
  'problem-before' | 'problem-after' | 'new' | 'change' | 'copy' | 'conventions' | 'taught' | 'next-region' | 'help'
export const SHEET: Group<SheetAction> = {
  name: 'The sheet',
  rows: [
    {
      shown: 'PgUp · PgDn',
      what: 'problem before, problem after',
      keys: { PageUp: 'problem-before', PageDown: 'problem-after' },
    },
    { shown: 'Alt N', what: 'new problem', keys: { 'Alt+n': 'new' } },
    { shown: 'Alt E', what: 'change this problem', keys: { 'Alt+e': 'change' } },
    { shown: 'Alt D', what: 'duplicate it', keys: { 'Alt+d': 'copy' } },
    { shown: 'Alt C', what: 'conventions of the sheet', keys: { 'Alt+c': 'conventions' } },
    { shown: 'Alt K', what: 'what the class knows, own words', keys: { 'Alt+k': 'taught' } },
    { shown: 'F6', what: 'problems, paper, notes in turn', keys: { F6: 'next-region' } },
    { shown: 'F1', what: 'this panel', keys: { F1: 'help' } },
  ],
}

export type BuildAction =
  | 'up'
  | 'down'
  | 'first'
  | 'last'
  | 'pin'
  | 'like'
  | 'easier'
  | 'harder'
  | 'remove'
  | 'edit'
  | 'form'
  | 'instruct'
  | 'move-up'
  | 'move-down'
  | 'undo'
  | 'redo'
/** On a problem of a ladder that is being built. */
export const BUILDING: Group<BuildAction> = {
  name: 'On a problem of the ladder',
  rows: [
    {
      shown: '↑ ↓',
      what: 'from problem to problem',
      keys: { ArrowUp: 'up', ArrowDown: 'down', Home: 'first', End: 'last' },
    },
    { shown: 'k', what: 'keep it when the rest is proposed anew', keys: { k: 'pin' } },
    { shown: 'r', what: 'another one like it', keys: { r: 'like' } },
    { shown: 'e', what: 'an easier one', keys: { e: 'easier' } },
    { shown: 'h', what: 'a harder one', keys: { h: 'harder' } },
    { shown: 'Enter', what: 'change the problem itself', keys: { Enter: 'edit', F2: 'edit' } },
    { shown: 'f', what: 'the next form: to work, to choose from, to mend …', keys: { f: 'form' } },
    { shown: 'i', what: 'words over it: a section begins', keys: { i: 'instruct' } },
    { shown: 'Delete', what: 'leave it out', keys: { Delete: 'remove', Backspace: 'remove' } },
    { shown: 'Alt ↑ · Alt ↓', what: 'move it', keys: { 'Alt+ArrowUp': 'move-up', 'Alt+ArrowDown': 'move-down' } },
    {
      shown: 'Ctrl Z · Ctrl Y',
      what: 'undo, redo',
      keys: { 'Ctrl+z': 'undo', 'Ctrl+Shift+z': 'redo', 'Ctrl+y': 'redo' },
    },
  ],
}

export type BankAction = 'up' | 'down' | 'first' | 'last' | 'choose' | 'open' | 'take'
/** On a problem that was found in the bank. */
export const IN_THE_BANK: Group<BankAction> = {
  name: 'On a problem of the bank',
  rows: [
    {
      shown: '↑ ↓',
      what: 'from problem to problem',
      keys: { ArrowUp: 'up', ArrowDown: 'down', Home: 'first', End: 'last' },
    },
    { shown: 'Space', what: 'choose it, or not', keys: { ' ': 'choose' } },
    { shown: 't', what: 'take what is chosen into a new sheet', keys: { t: 'take' } },
    { shown: 'Enter', what: 'open it on the desk', keys: { Enter: 'open' } },
  ],
}

export type MarkAction =
  | 'up'
  | 'down'
  | 'left'
  | 'right'
  | 'first'
  | 'last'
  | 'confirm'
  | 'alike'
  | 'open'
  | 'close'
  | 'undo'
  | 'redo'
  | 'half'
  | 'eye'
  | 'names'
  | 'shuffle'
  | 'write'
/** On a working in the marking table. A number gives the mark. */
export const MARKING: Group<MarkAction> = {
  name: 'In the marking table',
  rows: [
    {
      shown: '← ↑ ↓ →',
      what: 'from working to working',
      keys: { ArrowUp: 'up', ArrowDown: 'down', ArrowLeft: 'left', ArrowRight: 'right', Home: 'first', End: 'last' },
    },
    { shown: 'Space', what: 'confirm what is proposed, and go on', keys: { ' ': 'confirm' } },
    { shown: 'a', what: 'confirm it for all that are alike', keys: { a: 'alike' } },
    { shown: '0 … 9', what: 'give this mark; a dot adds a half', keys: { '.': 'half', ',': 'half' } },
    { shown: 'Enter', what: 'open it beside the key', keys: { Enter: 'open' } },
    { shown: 'e', what: 'the next that needs an eye', keys: { e: 'eye' } },
    { shown: 't', what: 'type its lines', keys: { t: 'write', F2: 'write' } },
    { shown: 'h', what: 'hide the names, or show them', keys: { h: 'names' } },
    { shown: 's', what: 'shuffle the papers, or put them by name', keys: { s: 'shuffle' } },
    {
      shown: 'Ctrl Z, Ctrl Y',
      what: 'take the last decision back, decide it again',
      keys: { 'Ctrl+z': 'undo', 'Ctrl+Shift+z': 'redo', 'Ctrl+y': 'redo' },
    },
    { shown: 'Esc', what: 'close what is open', keys: { Escape: 'close' } },
  ],
}

export type SettleAction = 'same' | 'other' | 'none' | 'write'
/** On a symbol of a page that is in doubt. Any other key that writes says what it is. */
export const SETTLING: Group<SettleAction> = {
  name: 'On a symbol in doubt',
  rows: [
    { shown: 'Space', what: 'as it was read', keys: { ' ': 'same' } },
    { shown: '↓', what: 'the other reading', keys: { ArrowDown: 'other' } },
    { shown: 'its key', what: 'what it is, typed: 7, x, -', keys: {} },
    { shown: 'Delete', what: 'nothing stands there', keys: { Delete: 'none', Backspace: 'none' } },
    { shown: 'Enter', what: 'type the whole line', keys: { Enter: 'write', F2: 'write' } },
    { shown: 'Tab', what: 'the next symbol in doubt', keys: {} },
    { shown: 'PgUp · PgDn', what: 'from page to page', keys: {} },
  ],
}

export type AdviceAction = 'up' | 'down' | 'mend' | 'undo'
/** On a sentence of the colleague. */
export const ADVICE: Group<AdviceAction> = {
  name: 'On what a colleague says',
  rows: [
    { shown: '↑ ↓', what: 'from one to the next', keys: { ArrowUp: 'up', ArrowDown: 'down' } },
    { shown: 'm', what: 'mend it', keys: { m: 'mend' } },
    { shown: 'Ctrl Z', what: 'put back what was mended last', keys: { 'Ctrl+z': 'undo' } },
  ],
}

export type RoomAction = 'before' | 'next' | 'hint' | 'later' | 'page' | 'leave'
/** A student in a practice room. */
export const IN_A_ROOM: Group<RoomAction> = {
  name: 'In a practice room',
  rows: [
    { shown: 'PgUp · PgDn', what: 'problem before, problem after', keys: { PageUp: 'before', PageDown: 'next' } },
    { shown: 'Alt H', what: 'a hint', keys: { 'Alt+h': 'hint' } },
    { shown: 'Alt S', what: 'later', keys: { 'Alt+s': 'later' } },
    { shown: 'Alt M', what: 'my page', keys: { 'Alt+m': 'page' } },
    { shown: 'Alt Q', what: 'leave', keys: { 'Alt+q': 'leave' } },
  ],
}

export type SteerAction = 'pause' | 'names' | 'end'
/** A teacher beside a practice room. */
export const STEERING: Group<SteerAction> = {
  name: 'Beside a practice room',
  rows: [
    { shown: 'Alt P', what: 'pause all with the sentence, or go on', keys: { 'Alt+p': 'pause' } },
    { shown: 'Alt N', what: 'hide the names, or show them', keys: { 'Alt+n': 'names' } },
    { shown: 'Alt X', what: 'end it', keys: { 'Alt+x': 'end' } },
  ],
}

/** The groups in the order in which the panel shows them. */
export const GROUPS: Group<string>[] = [WRITING, HELP, ON_A_LINE, SHEET]

/**
 * A pressed key as the table writes it: `Alt+h`, `Ctrl+Shift+z`, `Enter`. Command counts as Ctrl; Shift only beside a
 * letter with Ctrl.
 */
export function pressed(event: KeyboardEvent): string {
  const letter = event.key.length === 1
  const control = event.ctrlKey || event.metaKey
  return `${control ? 'Ctrl+' : ''}${event.altKey ? 'Alt+' : ''}${control && letter && event.shiftKey ? 'Shift+' : ''}${letter ? event.key.toLowerCase() : event.key}`
}

/** What a key means in a group; null where it means nothing there. */
export function actionOf<Action extends string>(group: Group<Action>, event: KeyboardEvent): Action | null {
  const key = pressed(event)
  return group.rows.map((row) => row.keys[key]).find((action) => action !== undefined) ?? null
}

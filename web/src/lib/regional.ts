import { shallowReactive } from 'vue'
import type { Schema } from '@/api/client'

/** How numbers and days are written at one place. */
export type Written = Schema['InForce']

export const DECIMALS = [
  ['point', '2.5'],
  ['comma', '2,5'],
] as const
export const DATES = [
  ['day-first', '5 Mar 2026'],
  ['month-first', 'Mar 5, 2026'],
  ['year-first', '2026-03-05'],
] as const
export const WEEKS = [
  ['monday', 'Monday'],
  ['saturday', 'Saturday'],
  ['sunday', 'Sunday'],
] as const

/** English in each order; a Swedish day is the year, the month and the day with hyphens. */
const LOCALES = { 'day-first': 'en-GB', 'month-first': 'en-US', 'year-first': 'sv' } as const
const FORMATS = { 'day-first': 'D MMM YYYY', 'month-first': 'MMM D, YYYY', 'year-first': 'YYYY-MM-DD' } as const
const FIRST_DAYS = { sunday: 7, monday: 1, saturday: 6 } as const

/** How the account that is logged in writes. */
const account = shallowReactive<Written>({ decimal: 'point', dates: 'day-first', week: 'monday' })

/** What holds for the account from now on. */
export function writeAs(found: Written): void {
  Object.assign(account, found)
}

/** The conventions in which the account's own text is read, where it belongs to no sheet yet. */
export const ownConventions = (): { decimal?: 'comma' } => (account.decimal === 'comma' ? { decimal: 'comma' } : {})

/** How numbers and days are written: as a class or a set does, where one is named, else as the account does. */
export function useRegional(own: () => Written | null | undefined = () => null) {
  const as = () => own() ?? account
  const told = (text: string, style: Intl.DateTimeFormatOptions): string =>
    // a day alone is a day here, and no midnight in Greenwich
    new Date(text.length === 10 ? `${text}T00:00` : text).toLocaleString(LOCALES[as().dates], style)
  const DAY = { day: 'numeric', month: 'short', year: 'numeric' } as const
  const BARE = { day: '2-digit', month: '2-digit', year: 'numeric' } as const
  const day = () => (as().dates === 'year-first' ? BARE : DAY)
  return {
    day: (text: string): string => told(text, day()),
    moment: (text: string): string => told(text, { ...day(), hour: '2-digit', minute: '2-digit' }),
    /** A mark; where there is none, a dash. */
    number: (value: number | null): string =>
      value === null ? '–' : String(value).replace('.', as().decimal === 'comma' ? ',' : '.'),
    /** A figure with one decimal; empty where there is none. */
    tenths: (value: number | null | undefined): string =>
      value === null || value === undefined ? '' : value.toFixed(1).replace('.', as().decimal === 'comma' ? ',' : '.'),
    /** For a calendar that asks for a day. */
    format: (): string => FORMATS[as().dates],
    /** The day on which its weeks begin, as calendars count: Sunday is 7. */
    firstDay: (): number => FIRST_DAYS[as().week],
  }
}

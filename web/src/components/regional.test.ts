import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, describe, expect, it } from 'vitest'
import DayInput from './DayInput.vue'
import RatingMark from './RatingMark.vue'
import RegionalFields from './RegionalFields.vue'
import { useRegional, writeAs, type Written } from '@/lib/regional'

const as = (more: Partial<Written> = {}): Written => ({ decimal: 'point', dates: 'day-first', week: 'monday', ...more })
afterEach(() => writeAs(as()))

describe('numbers and days', () => {
  it.each([
    ['day-first', '5 Mar 2026', '5 Mar 2026, 14:05', 'D MMM YYYY'],
    ['month-first', 'Mar 5, 2026', 'Mar 5, 2026, 02:05 PM', 'MMM D, YYYY'],
    ['year-first', '2026-03-05', '2026-03-05 14:05', 'YYYY-MM-DD'],
  ] as const)('are written %s', (dates, day, moment, format) => {
    const written = useRegional(() => as({ dates }))
    expect(written.day('2026-03-05')).toBe(day)
    expect(written.moment('2026-03-05T14:05:00').replace(/\s/g, ' ')).toBe(moment)
    expect(written.format()).toBe(format)
  })
  it.each([
    [2.5, 'point', '2.5'],
    [2.5, 'comma', '2,5'],
    [3, 'comma', '3'],
  ] as const)('%s with a %s is %s', (value, decimal, told) => {
    expect(useRegional(() => as({ decimal })).number(value)).toBe(told)
  })
  it.each([
    [4.25, 'point', '4.3'],
    [4, 'comma', '4,0'],
    [null, 'comma', ''],
  ] as const)('of a difficulty, %s with a %s is %s', (value, decimal, told) => {
    writeAs(as({ decimal }))
    expect(useRegional().tenths(value)).toBe(told)
    expect(mount(RatingMark, { props: { rating: value } }).text()).toBe(told)
  })
  it('are written as the account does where no class says more', () => {
    let own: Written | null = null
    const written = useRegional(() => own)
    writeAs(as({ dates: 'year-first', decimal: 'comma', week: 'sunday' }))
    expect([written.day('2026-03-05'), written.number(0.5), written.firstDay()]).toEqual(['2026-03-05', '0,5', 7])
    own = as({ week: 'saturday' })
    expect([written.day('2026-03-05'), written.number(0.5), written.firstDay()]).toEqual(['5 Mar 2026', '0.5', 6])
  })
})

describe('what is chosen of them', () => {
  const chosen = { decimal: 'comma', dates: null, week: null } as const
  const selected = (made: ReturnType<typeof mount>) =>
    made.findAll('select').map((each) => (each.element as HTMLSelectElement).value)

  it('is the first of each kind for an account that says nothing', async () => {
    const made = mount(RegionalFields, { props: { chosen } })
    expect(selected(made)).toEqual(['comma', 'day-first', 'monday'])
    await made.find('[aria-label="Days"]').setValue('month-first')
    expect(made.emitted('choose')).toEqual([[{ dates: 'month-first' }]])
  })
  it('can be left to the account for a class', async () => {
    const made = mount(RegionalFields, { props: { chosen, above: 'as in your account' } })
    expect(selected(made)).toEqual(['comma', '', ''])
    await made.find('[aria-label="Decimals"]').setValue('')
    expect(made.emitted('choose')).toEqual([[{ decimal: null }]])
  })
})

describe('a calendar', () => {
  it('begins its weeks as the account does, also once that has changed', async () => {
    const made = mount(DayInput, { props: { modelValue: '2026-03-05', label: 'Day' }, attachTo: document.body })
    const days = async () => {
      await made.find('input').trigger('focus')
      await made.find('input').trigger('mousedown')
      await flushPromises()
      return [...document.querySelectorAll('.el-date-table th')].slice(0, 7).map((each) => each.textContent?.trim())
    }
    expect((await days())[0]).toBe('Mon')
    writeAs(as({ week: 'saturday' }))
    await flushPromises()
    expect((await days()).at(-7)).toBe('Sat')
    made.unmount()
  })
})

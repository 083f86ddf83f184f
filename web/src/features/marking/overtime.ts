import { defineStore } from 'pinia'
import { api, unwrap, type Schema } from '@/api/client'
import { useRequest } from '@/composables/useRequest'
import type { ChartOption } from '@/components/ChartView.vue'

export type ClassPatterns = Schema['ClassPatterns']
export type TimeSlip = Schema['TimeSlip']
/** Inks for lines, told apart by their dashes too. */
const INKS = ['#b93a20', '#34639b', '#2a766d', '#9a6512', '#85427f', '#6f7590']
const DASHES = ['solid', 'dashed', 'dotted', [8, 3, 2, 3], [2, 6], [12, 4]] as const
export const MOST_LINES = 6
export const STATES: Record<string, string> = { new: 'new', steady: 'again', back: 'back again', fading: 'fading' }
/** How strong the cells of a state are drawn, from faint to full. */
const WEIGHTS: Record<string, number> = { fading: 1, new: 2, back: 3, steady: 4 }

/** Of the workings in which a slip could be made, how many show it, in percent; null where it could not. */
export function share(slip: TimeSlip, set: number): number | null {
  const found = slip.counts.find((each) => each.set === set)
  return found?.could ? Math.round((100 * found.workings.length) / found.could) : null
}
/** The slips over the days of the sets, a line each; `day` writes a day. */
export function linesOf(told: ClassPatterns, day: (text: string) => string): ChartOption {
  const slips = told.slips.slice(0, MOST_LINES)
  return {
    grid: { left: 44, right: 16, top: 34 + 20 * Math.ceil(slips.length / 3), bottom: 28 },
    legend: { top: 0, itemWidth: 34, textStyle: { color: '#1d2440' } },
    tooltip: {
      trigger: 'axis',
      valueFormatter: (value) => (value === null || value === undefined ? 'could not be made' : `${String(value)} %`),
    },
    xAxis: { type: 'category', data: told.sets.map((set) => day(set.day)), axisLabel: { color: '#636a87' } },
    yAxis: {
      type: 'value',
      min: 0,
      axisLabel: { formatter: '{value} %', color: '#636a87' },
      splitLine: { lineStyle: { color: '#e4dfd3' } },
    },
    series: slips.map((slip, k) => ({
      name: slip.name,
      type: 'line',
      connectNulls: true,
      symbol: ['circle', 'rect', 'triangle', 'diamond', 'pin', 'arrow'][k],
      symbolSize: 9,
      color: INKS[k],
      lineStyle: { type: DASHES[k] as 'solid', width: 2 },
      data: told.sets.map((set) => share(slip, set.id)),
    })),
  }
}
/** Students down, slips across: the stronger, the fresher. */
export function gridOf(told: ClassPatterns, named: (student: number) => string): ChartOption {
  const data = told.slips.flatMap((slip, x) =>
    slip.students.map((each) => [
      x,
      told.students.findIndex((student) => student.id === each.student),
      WEIGHTS[each.state] ?? 0,
    ]),
  )
  return {
    grid: { left: 118, right: 10, top: 8, bottom: 130 },
    tooltip: {
      formatter: (part) => {
        const at = (part as { value: number[] }).value
        return `${named(told.students[at[1]!]!.id)}: ${told.slips[at[0]!]!.name}, ${STATES[Object.keys(WEIGHTS).find((key) => WEIGHTS[key] === at[2]) ?? ''] ?? ''}`
      },
    },
    xAxis: {
      type: 'category',
      data: told.slips.map((slip) => slip.name),
      axisLabel: { rotate: 38, color: '#1d2440', interval: 0, width: 150, overflow: 'truncate' },
      splitArea: { show: true, areaStyle: { color: ['#ffffff', '#faf7f0'] } },
    },
    yAxis: {
      type: 'category',
      inverse: true,
      data: told.students.map((each) => named(each.id)),
      axisLabel: { color: '#1d2440' },
    },
    visualMap: {
      show: false,
      min: 0,
      max: 4,
      inRange: { color: ['#f6efe4', '#eed9c4', '#dd9f7f', '#cb6a48', '#b93a20'] },
    },
    series: [{ type: 'heatmap', data, itemStyle: { borderColor: '#faf7f0', borderWidth: 2 } }],
  }
}

/** A class over time, and what the classes say against the table of judgement. */
export const useOvertime = defineStore('overtime', {
  state: () => ({
    told: null as ClassPatterns | null,
    learned: null as Schema['LearnedOut'] | null,
    request: useRequest('The server does not answer. Try again in a moment.'),
  }),
  actions: {
    load(id: number): Promise<boolean> {
      return this.request.run(async () => {
        if (this.told?.id !== id) this.told = null
        this.told = await unwrap(api.GET('/api/classes/{class_id}/patterns', { params: { path: { class_id: id } } }))
        this.learned = await unwrap(api.GET('/api/learned'))
      })
    },
    learn(on: boolean): Promise<boolean> {
      return this.request.run(
        () => unwrap(api.PUT('/api/learned', { body: { on } })),
        (found) => (this.learned = found),
      )
    },
    /** A starter against a slip, from the last set that shows it; the number of the sheet, or null. */
    async tomorrow(slip: string): Promise<number | null> {
      const counts = this.told?.slips.find((each) => each.id === slip)?.counts ?? []
      const set = [...counts].reverse().find((each) => each.workings.length)?.set
      let made: number | null = null
      if (set === undefined) return made
      await this.request.run(
        () => unwrap(api.POST('/api/sets/{set_id}/tomorrow', { params: { path: { set_id: set }, query: { slip } } })),
        (found) => (made = found.sheet),
      )
      return made
    },
  },
})

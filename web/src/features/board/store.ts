import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, plainShape, unwrap, type Echo, type Problem, type Schema, type SideWork, type Step } from '@/api/client'
import { troubleOf, useRequest } from '@/composables/useRequest'
import { asBody, type Conventions } from '@/lib/conventions'
import { isSideLine, relationWord } from '@/lib/relations'

/** A line for the board: typeset, with the line before it marked where the step acts. */
export interface BoardLine {
  text: string
  left: string
  right: string
  beforeLeft: string
  beforeRight: string
  prefix: string
  move: string
  name: string
  reason: string
  side: boolean
  sideWork: SideWork[]
}
export interface DetourLine {
  text: string
  left: string
  right: string
  relation: string | null
  word: string
  evidence: string
}

const OWN = 'own'

/** A wrong working that was foreseen: its lines, and the one (from 1) at which it parts from the right way. */
export interface WrongWay {
  lines: string[]
  at: number
}
/** Asks a board to start with the wrong way that was foreseen. */
export const FORESEEN = 'foreseen'

/** What the board shows: the teacher's own lines or a method's, all of it held here once it is open. */
export const useBoard = defineStore('board', () => {
  const problem = shallowRef<Problem | null>(null)
  const methods = shallowRef<Schema['MethodsOut'] | null>(null)
  const source = ref(OWN)
  const detour = ref<DetourLine[]>([])
  const request = useRequest()
  const { trouble } = request
  const conventions = ref<Conventions>({})
  /** A wrong way that was foreseen, and those of its lines that are still to be shown. */
  const foreseen = shallowRef<WrongWay | null>(null)
  const waiting = shallowRef<DetourLine[]>([])

  const moves = computed(() => conventions.value.moves ?? 'below')
  const given = computed(() => problem.value?.given_echo ?? null)
  const givenLatex = computed(() =>
    problem.value ? `${problem.value.given_echo.left} ${problem.value.given_echo.right}` : '',
  )
  const sources = computed(() => {
    const found = (methods.value?.methods ?? []).map((each) => ({ id: each.method, name: each.name }))
    const own = problem.value?.lines.length ? [{ id: OWN, name: 'my lines' }] : []
    return [...own, ...found]
  })
  const lines = computed<BoardLine[]>(() => {
    if (source.value === OWN) return (problem.value?.lines ?? []).map(({ text, echo }) => ownLine(text, echo))
    const chosen = methods.value?.methods.find((each) => each.method === source.value)
    return (chosen?.steps ?? []).map(methodLine)
  })

  async function load(id: number, start: string): Promise<void> {
    detour.value = []
    const path = { problem_id: id }
    const both = (): Promise<[Problem, Schema['MethodsOut']]> =>
      Promise.all([
        unwrap(api.GET('/api/problems/{problem_id}', { params: { path } })),
        unwrap(api.GET('/api/problems/{problem_id}/methods', { params: { path, query: { grain: 'board' } } })),
      ])
    await request.run(both, ([found, worked]) => {
      problem.value = found
      methods.value = worked
      const finished = found.report.answer.verdict === 'correct' && found.report.finish.finished
      const first = worked.methods[0]?.method ?? OWN
      source.value = start === FORESEEN ? first : start || (finished ? OWN : first)
      if (!sources.value.length) trouble.value = 'There are no lines yet, and no method is known for this problem.'
    })
  }

  /** These lines judged after those that stand, ready to be shown beside the way. */
  async function judged(standing: string[], lines: string[]): Promise<DetourLine[]> {
    const known = problem.value!
    const [report, ...echoes] = await Promise.all([
      unwrap(
        api.POST('/api/check', {
          body: {
            task: known.task,
            given: known.given,
            variable: known.variable || null,
            numbers: known.numbers,
            conventions: asBody(conventions.value),
            lines: [...standing, ...lines],
            assume: [],
          },
        }),
      ),
      ...lines.map((text) =>
        unwrap(api.POST('/api/check/echo', { body: { text, decimal: conventions.value.decimal ?? 'point' } })),
      ),
    ])
    return lines.map((text, k) => {
      const link = report.links[standing.length + k]!
      const said = [link.slip?.done, link.evidence?.text, plainShape(link.evidence)]
      return {
        text,
        left: echoes[k]?.left ?? '',
        right: echoes[k]?.right ?? '',
        relation: link.relation,
        word: relationWord(link.relation, link.kind),
        evidence: link.error?.message ?? said.filter(Boolean).join(' '),
      }
    })
  }

  /** A wrong path: the line is judged after those that stand, and shown beside the way. */
  async function wander(standing: string[], line: string): Promise<void> {
    if (!problem.value) return
    const soFar = detour.value.map((each) => each.text)
    try {
      detour.value = [...detour.value, ...(await judged([...standing, ...soFar], [line]))]
    } catch (problemFound) {
      const why = troubleOf(problemFound, 'no connection, so it is not judged')
      detour.value = [
        ...detour.value,
        { text: line, left: '', right: '', relation: null, word: 'not judged:', evidence: why },
      ]
    }
  }

  /** Makes the wrong way that was foreseen ready after these lines, its first wrong line shown. */
  async function foresee(standing: string[]): Promise<void> {
    const way = foreseen.value
    if (!way || !problem.value) return
    await request.run(
      () => judged(standing, way.lines.slice(way.at - 1)),
      (found) => {
        waiting.value = found
        more()
      },
    )
  }

  /** Makes lines from the given on ready beside the way, the first one shown. */
  async function show(lines: string[]): Promise<void> {
    back()
    await request.run(
      () => judged([], lines),
      (found) => {
        waiting.value = found
        more()
      },
    )
  }

  /** Shows the next line of the wrong way; whether there was one. */
  function more(): boolean {
    const [next, ...rest] = waiting.value
    if (!next) return false
    detour.value = [...detour.value, next]
    waiting.value = rest
    return true
  }

  function back(): void {
    detour.value = []
    waiting.value = []
  }

  return {
    problem,
    source,
    sources,
    lines,
    detour,
    request,
    trouble,
    conventions,
    foreseen,
    moves,
    given,
    givenLatex,
    load,
    wander,
    foresee,
    show,
    more,
    back,
  }
})

function ownLine(text: string, echo: Echo): BoardLine {
  return {
    text,
    left: echo.left,
    right: echo.right,
    beforeLeft: '',
    beforeRight: '',
    prefix: echo.prefix,
    move: echo.move,
    name: '',
    reason: echo.remark,
    side: isSideLine(echo.kind),
    sideWork: [],
  }
}

function methodLine(step: Step): BoardLine {
  const marked = step.kind === 'line' ? step.before_echo : null
  const after = step.after_echo
  return {
    text: step.text,
    left: after.left,
    right: after.right,
    beforeLeft: marked?.left ?? '',
    beforeRight: marked?.right ?? '',
    prefix: after.prefix,
    move: after.move,
    name: step.name,
    reason: step.reason,
    side: isSideLine(after.kind),
    sideWork: step.side_work,
  }
}

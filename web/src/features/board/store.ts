import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, unwrap, type Echo, type Problem, type Schema } from '@/api/client'
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
  sideWork: Record<string, unknown>[]
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
const FORESEEN = 'foreseen'

/** What the board shows: the teacher's own lines or a method's, all of it held here once it is open. */
export const useBoard = defineStore('board', () => {
  const problem = shallowRef<Problem | null>(null)
  const methods = shallowRef<Schema['MethodsOut'] | null>(null)
  const source = ref(OWN)
  const detour = ref<DetourLine[]>([])
  const trouble = ref('')
  const conventions = ref<Record<string, string>>({})
  /** A wrong way that was foreseen, shown line by line beside the right ones. */
  const foreseen = ref<string[]>([])
  const foreseenEchoes = shallowRef<Echo[]>([])

  const moves = computed(() => conventions.value['moves'] ?? 'below')
  const given = computed(() => (problem.value ? whole(problem.value.given_echo) : null))
  const givenLatex = computed(() => (problem.value ? `${problem.value.given_echo.left} ${problem.value.given_echo.right}` : ''))
  const sources = computed(() => {
    const found = (methods.value?.methods ?? []).map((each) => ({ id: each.method, name: each.name }))
    const own = problem.value?.lines.length ? [{ id: OWN, name: 'my lines' }] : []
    const wrong = foreseen.value.length ? [{ id: FORESEEN, name: 'the wrong way' }] : []
    return [...own, ...found, ...wrong]
  })
  const lines = computed<BoardLine[]>(() => {
    if (source.value === OWN) return (problem.value?.lines ?? []).map(({ text, echo }) => ownLine(text, echo))
    if (source.value === FORESEEN) return foreseen.value.map((text, k) => ownLine(text, foreseenEchoes.value[k] ?? { right: text }))
    const chosen = methods.value?.methods.find((each) => each.method === source.value)
    return (chosen?.steps ?? []).map(methodLine)
  })

  async function load(id: number, start: string): Promise<void> {
    trouble.value = ''
    detour.value = []
    try {
      const path = { params: { path: { problem_id: id } } }
      const [found, worked] = await Promise.all([
        unwrap(api.GET('/api/problems/{problem_id}', path)),
        unwrap(api.GET('/api/problems/{problem_id}/methods', { params: { path: { problem_id: id }, query: { grain: 'board' } } })),
      ])
      foreseenEchoes.value = await Promise.all(
        foreseen.value.map((text) => unwrap(api.POST('/api/check/echo', { body: { text, decimal: 'point' } }))),
      )
      problem.value = found
      methods.value = worked
      const finished = found.report.answer.verdict === 'correct' && found.report.finish.finished
      source.value = start || (finished ? OWN : (worked.methods[0]?.method ?? OWN))
      if (!sources.value.length) trouble.value = 'There are no lines yet, and no method is known for this problem.'
    } catch (problemFound) {
      trouble.value = problemFound instanceof TypeError ? 'The server does not answer.' : (problemFound as Error).message
    }
  }

  /** A wrong path: the line is judged after those that stand, and shown beside the way. */
  async function wander(standing: string[], line: string): Promise<void> {
    const known = problem.value
    if (!known) return
    const soFar = detour.value.map((each) => each.text)
    try {
      const [report, echo] = await Promise.all([
        unwrap(
          api.POST('/api/check', {
            body: {
              task: known.task, given: known.given, variable: known.variable || null, numbers: known.numbers,
              conventions: conventions.value, lines: [...standing, ...soFar, line], assume: [],
            },
          }),
        ),
        unwrap(api.POST('/api/check/echo', { body: { text: line, decimal: 'point' } })),
      ])
      const link = report.links.at(-1)!
      detour.value = [
        ...detour.value,
        {
          text: line, left: echo.left ?? '', right: echo.right ?? '', relation: link.relation, word: relationWord(link.relation, link.kind),
          evidence: link.error?.message ?? [link.evidence?.text, link.evidence?.plain].filter(Boolean).join(' '),
        },
      ]
    } catch (problemFound) {
      const why = problemFound instanceof TypeError ? 'no connection, so it is not judged' : (problemFound as Error).message
      detour.value = [...detour.value, { text: line, left: '', right: '', relation: null, word: 'not judged:', evidence: why }]
    }
  }

  function back(): void {
    detour.value = []
  }

  return { problem, source, sources, lines, detour, trouble, conventions, foreseen, moves, given, givenLatex, load, wander, back }
})

/** An echo with every part there, so that nothing has to be asked for twice. */
function whole(echo: Echo): { kind: string; left: string; right: string; prefix: string; move: string; remark: string } {
  return { kind: '', left: '', right: '', prefix: '', move: '', remark: '', ...echo }
}

function ownLine(text: string, found: Echo): BoardLine {
  const echo = whole(found)
  return {
    text, left: echo.left, right: echo.right, beforeLeft: '', beforeRight: '', prefix: echo.prefix, move: echo.move, name: '',
    reason: echo.remark, side: isSideLine(echo.kind), sideWork: [],
  }
}

function methodLine(step: Schema['StepOut']): BoardLine {
  const marked = step.kind === 'line' ? whole(step.before_echo) : null
  const after = whole(step.after_echo)
  return {
    text: step.text, left: after.left, right: after.right, beforeLeft: marked?.left ?? '', beforeRight: marked?.right ?? '',
    prefix: after.prefix, move: after.move, name: step.name, reason: step.reason, side: isSideLine(after.kind), sideWork: step.side_work,
  }
}

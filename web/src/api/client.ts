import createClient from 'openapi-fetch'
import type { Readable } from 'openapi-typescript-helpers'
import type { components, paths } from './schema'

/** The shapes of the API as calls give them. */
export type Schema = { [Name in keyof components['schemas']]: Readable<components['schemas'][Name]> }
export type Problem = Schema['ProblemOut']
export type Report = Schema['Report']
export type Link = Schema['Link']
export type Echo = Schema['Echo']
export type Sheet = Schema['SheetOut']
export type SheetRow = Schema['SheetRow']
export type ProblemRow = Schema['ProblemRow']
export type Session = Schema['Session']
export type Step = Schema['TypesetStep']
export type SideWork = Step['side_work'][number]
export type PointEvidence = Schema['PointEvidence']
export type Evidence = NonNullable<Link['evidence']>
export type Features = Schema['FeaturesReport']
export type Graph = Schema['Graph']

/** Evidence with a point at which two lines differ; null for evidence of another kind. */
export const pointOf = (evidence: Evidence | null | undefined): PointEvidence | null =>
  evidence && 'values' in evidence ? evidence : null

/** The same shape with small whole numbers, of evidence that has one. */
export const plainShape = (evidence: Evidence | null | undefined): string => pointOf(evidence)?.plain ?? ''

/** The CSRF cookie is read for every change, because logging in rotates it. */
function csrfToken(): string {
  return /(?:^|; )uchuu_csrf=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

/**
 * What asks for the log-in over the screen when the session has ended: true once the same teacher is logged in again.
 */
let askAgain: () => Promise<boolean> = () => Promise.resolve(false)
export function whenLoggedOut(ask: () => Promise<boolean>): void {
  askAgain = ask
}

/**
 * Sends a request, and sends it again when the session had ended and was renewed: so nothing that was typed is lost.
 */
async function send(request: Request): Promise<Response> {
  const again = request.clone()
  const response = await globalThis.fetch(request)
  if (response.status !== 401 || !(await askAgain())) return response
  if (again.method !== 'GET') again.headers.set('X-CSRFToken', csrfToken())
  return globalThis.fetch(again)
}

export const api = createClient<paths>({ baseUrl: window.location.origin, credentials: 'same-origin', fetch: send })

api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
})

/** What went wrong, in a sentence. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly body: unknown = null,
  ) {
    super(message)
  }
  /** The short word by which the server tells refusals apart; empty where it gives none. */
  get code(): string {
    const code = (this.body as { code?: unknown } | null)?.code
    return typeof code === 'string' ? code : ''
  }
}

interface Outcome<T> {
  data?: T
  error?: unknown
  response: Response
}

/** The data of a call; throws ApiError for a refusal, and lets a failed connection (TypeError) through. */
export async function unwrap<T>(call: Promise<Outcome<T>>): Promise<T> {
  const { data, error, response } = await call
  if (response.ok) return data as T
  const detail = (error as { detail?: unknown } | undefined)?.detail
  const message = typeof detail === 'string' ? detail : messageOf(response.status, detail)
  throw new ApiError(response.status, message, error)
}

function messageOf(status: number, detail: unknown): string {
  if (Array.isArray(detail)) return detail.map((part: { msg?: string }) => part.msg ?? '').join(' ')
  if (status === 401) return 'You are logged out. Log in again; nothing is lost.'
  return `The server answered with an error (${status}).`
}

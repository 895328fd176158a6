/** The one way to the server: typed by its own description, with the token for writes and one kind of error. */
import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Place = Schemas['PlaceOut']
export type Check = Schemas['CheckOut']
export type Part = Schemas['PartOut']
export type WalkAroundData = Schemas['WalkAroundOut']
export type Changed = Schemas['ChangedOut']
export type NewReading = Schemas['ReadingIn']
export type NewHold = Schemas['HoldIn']
export type Hold = Schemas['HoldOut']
export type Photo = Schemas['PhotoOut']
export type Visit = Schemas['VisitOut']

let csrf = ''
export const csrfToken = (): string => csrf
export function useCsrf(token: string): void {
  csrf = token
}

/** Ask for a token again: after a start without the server there is none, and after somebody else logged in it is another. */
export async function renewCsrf(): Promise<void> {
  const session = await answer(api.GET('/api/session'))
  useCsrf(session.csrf)
  if (!session.me) throw new Refused(401, 'Log in first.', '', true)
}

/** A write; where it fails for want of a token, once more with a new one. */
export async function write<T>(call: () => Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  if (!csrf) await renewCsrf()
  try {
    return await answer(call())
  } catch (error) {
    if (!(error instanceof Refused) || error.status !== 403 || error.ours) throw error
    await renewCsrf()
    return answer(call())
  }
}

/** What the server refused, and where. status 0: it could not be reached. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly field = '',
    /** The product's own answer, and not something between here and there speaking for it. */
    readonly ours = false,
  ) {
    super(message)
  }

  /** Worth sending again as it is: the server or the way to it is at fault, not the reading. */
  get passing(): boolean {
    return !this.ours || this.status >= 500 || this.status === 429
  }
}

export const api = createClient<paths>({ baseUrl: '/' })
api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrf)
    return request
  },
})

/** The data of an answer, or a Refused. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result
  try {
    result = await call
  } catch {
    throw new Refused(0, 'No connection to the server.')
  }
  if (result.response.ok && result.data !== undefined) return result.data
  const error = (result.error as { error?: { field?: string; message?: string } } | undefined)?.error
  throw new Refused(result.response.status, error?.message ?? 'The server could not answer.', error?.field ?? '', error?.message !== undefined)
}

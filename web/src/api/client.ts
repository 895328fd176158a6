/** The one way to the server: typed by its own description, with the token for writes and one kind of error. */
import createClient from 'openapi-fetch'
import { heardClock } from './clock'
import { heard, unheard } from './connection'
import { CLOCK, MEMBER } from './headers'
import { fetchOrKept, fromBefore } from './kept'
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
let member = 0
export function useMember(id: number): void {
  member = id
}
export function useCsrf(token: string): void {
  csrf = token
}

/** Ask for a token again: after a start without the server there is none, and after somebody else logged in it is another. */
export async function renewCsrf(): Promise<void> {
  const session = await answer(api.GET('/api/session'))
  useCsrf(session.csrf)
  if (!session.csrf) throw new Refused(0, 'No connection to the server.') // kept on this device, without a token
  if (!session.me) throw new Refused(401, 'Log in first.', '', true)
}

/** What is refused at this field lacks a token that is good; nothing is wrong with what it says. */
const TOKEN = 'token'
/** A write; refused for its token, it is sent once more with a new one. */
export async function write<T>(call: () => Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  if (!csrf) await renewCsrf()
  try {
    return await answer(call())
  } catch (error) {
    if (!(error instanceof Refused) || error.status !== 403 || error.field !== TOKEN) throw error
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
    /** The figures as they would be if two of them ran together. */
    readonly figures: string[] = [],
    /** What has something believed that was doubted. */
    readonly cures: string[] = [],
  ) {
    super(message)
  }

  /** Worth sending again as it is: the server or the way to it is at fault, not the reading. */
  get passing(): boolean {
    return !this.ours || this.status >= 500 || this.status === 429
  }
}

export const api = createClient<paths>({ baseUrl: window.location.origin, fetch: fetchOrKept })
const sentAt = new Map<string, number>()
api.use({
  onRequest({ request, id }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrf)
    // Somebody else may have logged in on this device: what is asked for here is asked for this member or not at all.
    if (member && !request.headers.has(MEMBER)) request.headers.set(MEMBER, String(member))
    sentAt.set(id, Date.now())
    return request
  },
  onResponse({ response, id }) {
    if (fromBefore(response)) return void sentAt.delete(id)
    heard(response.status)
    const sent = sentAt.get(id)
    const server = Number(response.headers.get(CLOCK) ?? Number.NaN)
    if (sent !== undefined) heardClock(sent, Date.now(), server)
    sentAt.delete(id)
  },
  onError({ id, error }) {
    sentAt.delete(id)
    if (!(error instanceof DOMException && error.name === 'AbortError')) unheard()
  },
})

type PostOf<P extends keyof paths> = paths[P] extends { post: infer O } ? O : never
/** The addresses that can be written to, with what they want and what they answer. */
export type WritePath = { [P in keyof paths]: PostOf<P> extends never | undefined ? never : P }[keyof paths]
export type PathOf<P extends WritePath> = PostOf<P> extends { parameters: { path: infer Q } } ? Q : undefined
export type BodyOf<P extends WritePath> =
  PostOf<P> extends { requestBody: { content: { 'application/json': infer B } } } ? B : undefined
export type AnswerOf<P extends WritePath> =
  PostOf<P> extends { responses: { 200: { content: { 'application/json': infer R } } } } ? R : unknown

/** The data of an answer, or a Refused. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result
  try {
    result = await call
  } catch {
    throw new Refused(0, 'No connection to the server.')
  }
  if (result.response.ok && result.data !== undefined) return result.data
  const error = (
    result.error as { error?: { field?: string; message?: string; figures?: string[]; cures?: string[] } } | undefined
  )?.error
  throw new Refused(
    result.response.status,
    error?.message ?? 'The server could not answer.',
    error?.field ?? '',
    error?.message !== undefined,
    error?.figures,
    error?.cures,
  )
}

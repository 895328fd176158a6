/** What waits in the box: one write under its UUID, whose it is, and what became of it. */
import type { NewHold, NewReading, Refused, WritePath } from './client'

/** What an entry is about, in words for a list, and where it belongs. */
export interface About {
  /** "Opener disc diameter, row 4 left" */
  what: string
  /** "388.5" */
  shown?: string
  machine?: string
}

export interface Refusal {
  status: number
  field: string
  message: string
  figures: string[]
  at: string
}

export const refusalOf = ({ status, field, message, figures }: Refused): Refusal => ({
  status,
  field,
  message,
  figures,
  at: new Date().toISOString(),
})

export interface Entry {
  uuid: string
  /** Who made it: the number of the member, and the name for others who log in on this device. */
  member: number
  name: string
  path: WritePath
  params: Record<string, string | number>
  body: Record<string, unknown>
  about: About
  /** Counted up on this device: which was made before which, whatever its clock said. */
  order: number
  /** Its picture is kept in IndexedDB under its UUID. */
  blob?: boolean
  /** It goes only once the server has taken this one: the pictures of a note. */
  after?: string
  refused?: Refusal
}
export type ReadingEntry = Entry & { body: NewReading & Record<string, unknown> }
export type HoldEntry = Entry & { body: NewHold & Record<string, unknown> }

/** Beginning a walk-around: what was typed in it waits for that. */
export const BEGIN = '/api/machines/{machine_id}/walk-arounds' satisfies WritePath
export const READINGS = '/api/walk-arounds/{walk_around_id}/readings' satisfies WritePath
export const HOLDS = '/api/walk-arounds/{walk_around_id}/postures' satisfies WritePath
export const DECISIONS = '/api/walk-arounds/{walk_around_id}/decisions' satisfies WritePath
export const isReading = (entry: Entry): entry is ReadingEntry => entry.path === READINGS
export const isHold = (entry: Entry): entry is HoldEntry => entry.path === HOLDS
export const isBegin = (entry: Entry): boolean => entry.path === BEGIN
/** The walk-around an entry belongs to; '' for one that belongs to none. */
export const walkAroundOf = (entry: Entry): string => (isBegin(entry) ? entry.uuid : String(entry.params.walk_around_id ?? ''))

export interface Heard {
  /** The server has done it. */
  answered?: (entry: Entry, data: unknown) => void
  /** The server will not do it. */
  refused?: (entry: Entry, problem: Refused) => void
}

export type BoxState = 'idle' | 'sending' | 'away' | 'signed-out'
export interface Member {
  id: number
  name: string
}

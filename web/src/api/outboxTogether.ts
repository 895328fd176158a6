/** Readings that wait go together: one request for what was typed while there was no way to the server, or a slow one. */
import { api, Refused, write, type Changed } from './client'
import { FROM_BOX, MEMBER } from './headers'
import { isBegin, isReading, walkAroundOf, type Entry, type ReadingEntry } from './outboxEntry'

/** As many as the server takes in well under a second. */
const MOST = 40
const ANSWER_WITHIN_MS = 30_000

/** What became of each, in their order. Raises Refused where the request itself came to nothing. */
export type SendTogether = (entries: ReadingEntry[]) => Promise<(Changed | Refused)[]>

/**
 * What may go now, pictures after everything else. What was typed in a walk-around that has not begun there waits until it has, and a
 * note's pictures until the note is there, also where that was refused.
 */
export function inTurn(entries: Entry[]): Entry[] {
  const begins = new Set(entries.filter(isBegin).map(walkAroundOf))
  const there = new Set(entries.map((entry) => entry.uuid))
  const free = entries.filter(
    (entry) =>
      !entry.refused && (isBegin(entry) || !begins.has(walkAroundOf(entry))) && !(entry.after && there.has(entry.after)),
  )
  return [...free.filter((entry) => !entry.blob), ...free.filter((entry) => entry.blob)]
}

/**
 * What may go with the first that is ready: readings of its walk-around up to whatever else was done in between, each of another
 * place, so that none rests on the one before. Those in `apart` go by themselves.
 */
export function goingTogether(ready: Entry[], apart: ReadonlySet<string>): ReadingEntry[] {
  const places = new Set<string>()
  const group: ReadingEntry[] = []
  for (const entry of ready) {
    const alike = isReading(entry) && walkAroundOf(entry) === walkAroundOf(ready[0]!) && !apart.has(entry.uuid)
    if (!alike || group.length === MOST) break
    const place = JSON.stringify([entry.body.check, entry.body.position])
    if (places.has(place)) break
    places.add(place)
    group.push(entry)
  }
  return group
}

/** Each has its own place of what changed; the last that was taken has all of it. */
export function eachWithItsOwn(
  entries: ReadingEntry[],
  changed: Changed,
  refused: Map<string, Refused>,
): (Changed | Refused)[] {
  const last = entries.filter((entry) => !refused.has(entry.uuid)).at(-1)
  return entries.map((entry) => {
    const own = (place: { check: string; position: string }): boolean =>
      place.check === entry.body.check && place.position === entry.body.position
    const part = { places: changed.places.filter(own), gone: changed.gone.filter(own), stations: [], parts: null, last: 0 }
    return refused.get(entry.uuid) ?? (entry === last ? changed : part)
  })
}

export const togetherOverTheWire: SendTogether = async (entries) => {
  const said = await write(() =>
    api.POST('/api/walk-arounds/{walk_around_id}/readings-at-once', {
      params: { path: { walk_around_id: walkAroundOf(entries[0]!) } },
      body: { readings: entries.map((entry) => entry.body) },
      headers: { [MEMBER]: String(entries[0]!.member), [FROM_BOX]: '1' },
      signal: AbortSignal.timeout(ANSWER_WITHIN_MS),
    }),
  )
  const refused = said.refused.map(
    (one) => [one.uuid, new Refused(one.status, one.message, one.field, true, one.figures)] as const,
  )
  return eachWithItsOwn(entries, said.changed, new Map(refused))
}

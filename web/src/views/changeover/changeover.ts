/** What is chosen for a changeover, and how its list is read. */
import type { Schemas } from '@/api/client'
import { CROP_NAMES } from '@/api/vocabulary'

type Group = Schemas['ChangeoverAsked']['crop']

/** crop, then: a crop as ``group`` or ``group:name``, for several crops are of one group. */
export interface Chosen {
  crop: string
  header: number
  then: string
  /** What is typed and no number goes to the server as well, which says so. */
  days: number | null
}
const groupOf = (crop: string): Group => crop.split(':')[0] as Group

export const askedOf = (chosen: Chosen): Required<Schemas['ChangeoverAsked']> => ({
  crop: groupOf(chosen.crop),
  headers: chosen.header ? [chosen.header] : [],
  then_crop: groupOf(chosen.then),
  then_days: chosen.then ? chosen.days : null,
})

/** What the shop grows, by name; without any, the groups. */
export const cropsToChoose = (grown: Schemas['GrownOut'][]): { key: string; name: string }[] =>
  grown.length
    ? grown.map((one) => ({ key: `${one.group}:${one.name}`, name: one.name }))
    : Object.entries(CROP_NAMES).map(([key, name]) => ({ key, name }))

/** The places by name; many that are all there are from the first to the last, and a machine's only place not at all. */
function placesIn(same: Schemas['ChangePlaceOut'][], all: number): string {
  const labels = same.map((one) => one.label)
  if (labels.length === 1 && labels[0] === 'Whole machine') return ''
  return labels.length > 3 && labels.length === all ? `${labels[0]} to ${labels.at(-1)!.toLowerCase()}` : labels.join(', ')
}

interface Move {
  now: string
  nowState: string
  to: string
  toState: string
  places: string
}
/** Places that go the same way together; a machine's only place is not named. */
export function moves(places: Schemas['ChangePlaceOut'][]): Move[] {
  const by = new Map<string, Schemas['ChangePlaceOut'][]>()
  for (const one of places) {
    const key = `${one.now_state}>${one.to_state}`
    by.set(key, [...(by.get(key) ?? []), one])
  }
  return [...by.values()].map((same) => ({
    now: same[0]!.now,
    nowState: same[0]!.now_state,
    to: same[0]!.to,
    toState: same[0]!.to_state,
    places: placesIn(same, places.length),
  }))
}

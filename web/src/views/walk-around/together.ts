/** The one advice that readings of one thing come to. */
import type { Place } from '@/api/client'

/** The heaviest verdict speaks for all. */
export function adviceOf(places: { name: string; place?: Place }[]): string {
  const read = places.flatMap(({ name, place }) => (place && place.weight !== null ? [{ ...place, name }] : []))
  if (!read.length) return 'Nothing read yet.'
  const open = places.filter(({ place }) => !place || place.ask).length
  const left = open ? ` ${open} still to read.` : ''
  const heaviest = read.reduce((a, b) => (b.weight! > a.weight! ? b : a))
  if (!heaviest.weight) return `As it should be.${left}`
  return `${`${heaviest.name}: ${heaviest.reason} ${heaviest.remedy}`.trim()}${left}`
}

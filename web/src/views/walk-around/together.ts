/** The one advice that readings of one thing come to. */
import type { Place } from '@/api/client'

const RANK = ['stop', 'due', 'watch', 'sound']
const ACTIONS = ['replace', 'repair', 'adjust', 'turn', 'lubricate', 'clean', 'investigate', 'recheck', 'none']

/** The gravest verdict with the farthest-reaching action speaks for all: what is renewed need not be adjusted first. */
export function adviceOf(places: { name: string; place?: Place }[]): string {
  const read = places.flatMap(({ name, place }) =>
    place && !place.ask && RANK.includes(place.severity) ? [{ ...place, name }] : [],
  )
  if (!read.length) return 'Nothing read yet.'
  const open = places.length - read.length
  const rank = (one: Place): number =>
    ACTIONS.indexOf(one.action) +
    (one.severity === 'stop' ? -100 : one.severity === 'due' ? 0 : 100 * RANK.indexOf(one.severity))
  const worst = read.reduce((a, b) => (rank(b) < rank(a) ? b : a))
  const left = open ? ` ${open} still to read.` : ''
  if (worst.severity === 'sound') return `As it should be.${left}`
  return `${`${worst.name}: ${worst.reason} ${worst.remedy}`.trim()}${left}`
}

import { SEVERITY_WORDS } from '@/api/vocabulary'

/** The words of severities; what they mean is decided in the core, here they get a shape and an order. */
export const WORDS = SEVERITY_WORDS
export type Severity = keyof typeof SEVERITY_WORDS

export interface Tally {
  sound: number
  watch: number
  due: number
  stop: number
  not_seen: number
  does_not_apply: number
  asked: number
  open: number
  total: number
}

const WORST_FIRST = [
  ['stop', 'stop'],
  ['due', 'due'],
  ['asked', 'asked'],
  ['watch', 'watch'],
  ['not_seen', 'not-seen'],
  ['sound', 'sound'],
  ['does_not_apply', 'does-not-apply'],
  ['open', 'open'],
] as const

/** The severities that occur, worst first, with how often. */
export function tallied(tally: Tally): { severity: Severity; count: number }[] {
  return WORST_FIRST.map(([field, severity]) => ({ severity, count: tally[field] })).filter((item) => item.count > 0)
}

/** Sums over stations. */
export function summed(tallies: readonly Tally[]): Tally {
  const sum: Tally = { sound: 0, watch: 0, due: 0, stop: 0, not_seen: 0, does_not_apply: 0, asked: 0, open: 0, total: 0 }
  for (const tally of tallies) for (const key of Object.keys(sum) as (keyof Tally)[]) sum[key] += tally[key]
  return sum
}

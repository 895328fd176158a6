/** A board of many machines: which of them are asked for, and in which order they stand. */
import type { Schemas } from '@/api/client'

export type Card = Schemas['BoardMachineOut']
export interface Asked {
  search: string
  kind: string
  owner: string
  state: string
  within: string
  order: string
}
export const STATES: Record<string, { name: string; holds: (card: Card) => boolean }> = {
  stop: { name: 'Stop found', holds: (card) => card.sum.stop > 0 },
  due: { name: 'Due found', holds: (card) => card.sum.due > 0 },
  running: { name: 'Under way', holds: (card) => !!card.newest && !card.newest.finished_at },
  finished: { name: 'Finished', holds: (card) => !!card.newest?.finished_at },
  none: { name: 'Not begun', holds: (card) => !card.newest },
}
export const ORDERS: Record<string, { name: string; compare: (a: Card, b: Card) => number }> = {
  worst: { name: 'Worst first', compare: (a, b) => weight(b) - weight(a) || bySeason(a, b) },
  season: { name: 'By season date', compare: (a, b) => bySeason(a, b) },
  name: { name: 'By name', compare: (a, b) => byName(a, b) },
}

/** What is found outweighs what is open; a place that stops the machine outweighs any number that are due. */
function weight({ sum, newest }: Card): number {
  const open = newest ? (sum.total ? sum.open / sum.total : 0) : 1
  return Math.min(sum.stop, 99) * 1e6 + Math.min(sum.due, 999) * 1e3 + Math.min(sum.watch + sum.asked, 998) + open
}
const byName = (a: Card, b: Card): number => a.machine.name.localeCompare(b.machine.name, 'en', { numeric: true })
const bySeason = (a: Card, b: Card): number =>
  (a.machine.season_date ?? '9999').localeCompare(b.machine.season_date ?? '9999') || byName(a, b)

/** today: as the machines' season dates are, ``2026-11-29``. */
export function asked(cards: Card[], by: Asked, today: string): Card[] {
  const words = by.search.toLowerCase().split(/\s+/).filter(Boolean)
  const until = by.within ? new Date(Date.parse(today) + Number(by.within) * 86_400_000).toISOString().slice(0, 10) : ''
  return cards
    .filter(
      (card) =>
        words.every((word) =>
          `${card.machine.name} ${card.machine.model} ${card.machine.serial} ${card.owners.join(' ')}`
            .toLowerCase()
            .includes(word),
        ) &&
        (!by.kind || card.machine.family === by.kind) &&
        (!by.owner || card.owners.includes(by.owner)) &&
        (!by.state || !!STATES[by.state]?.holds(card)) &&
        (!until || (!!card.machine.season_date && card.machine.season_date <= until)),
    )
    .sort((ORDERS[by.order] ?? ORDERS.worst!).compare)
}

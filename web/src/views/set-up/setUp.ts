/** What of a machine's set-up stands otherwise than a crop would have it. */
import type { Schemas } from '@/api/client'

export type Item = Schemas['SetUpItemOut']

/** `right`, `change`, `ask` (wanted some way, but never recorded), or nothing where the crop asks for nothing. */
export function differs(item: Item, crop: string): '' | 'right' | 'change' | 'ask' {
  const wants = item.wants.find((one) => one.crop === crop)
  if (!wants) return ''
  if (!item.places.length) return 'ask'
  return item.places.every((place) => wants.states.includes(place.state)) ? 'right' : 'change'
}

/** The states an item stands in; where its places differ, each with its places. */
export function standing(item: Item): { shown: string; at: string }[] {
  const by = new Map<string, string[]>()
  for (const place of item.places) by.set(place.shown, [...(by.get(place.shown) ?? []), place.label])
  return [...by].map(([shown, labels]) => ({ shown, at: by.size > 1 ? labels.join(', ').toLowerCase() : '' }))
}

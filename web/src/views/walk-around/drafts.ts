/** What is typed but not entered, kept by member and position so that a reload or a look elsewhere loses nothing. */
import { keep } from '@/api/storage'

export interface Draft {
  text: string
  done: string[]
  note?: string
}

/** Whose draft, and where. */
export interface DraftPlace {
  member: number
  walkAround: string
  check: string
  position: string
}

const key = (place: DraftPlace): string => `lumvek:draft:${place.member}:${place.walkAround}:${place.check}:${place.position}`

/** Keeps it if there is room; what cannot be kept is still in its field, and the alarm says so. */
export function keepDraft(place: DraftPlace, draft: Draft): void {
  if (!draft.text && !draft.done.length && !draft.note) return localStorage.removeItem(key(place))
  try {
    keep(localStorage, key(place), JSON.stringify(draft))
  } catch {
    // The alarm is up.
  }
}

export function readDraft(place: DraftPlace): Draft {
  try {
    const found = JSON.parse(localStorage.getItem(key(place)) ?? 'null') as Draft | null
    if (found && typeof found.text === 'string' && Array.isArray(found.done)) return found
  } catch {
    // A draft that cannot be read is no draft.
  }
  return { text: '', done: [] }
}

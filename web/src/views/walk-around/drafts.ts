/** What is typed but not entered, kept by position so that a reload or a look elsewhere loses nothing. */
export interface Draft {
  text: string
  done: string[]
  note?: string
}

const key = (walkAround: string, check: string, position: string): string => `lumvek:draft:${walkAround}:${check}:${position}`

export function keepDraft(walkAround: string, check: string, position: string, draft: Draft): void {
  if (draft.text || draft.done.length || draft.note) localStorage.setItem(key(walkAround, check, position), JSON.stringify(draft))
  else localStorage.removeItem(key(walkAround, check, position))
}

export function readDraft(walkAround: string, check: string, position: string): Draft {
  try {
    const found = JSON.parse(localStorage.getItem(key(walkAround, check, position)) ?? 'null') as Draft | null
    if (found && typeof found.text === 'string' && Array.isArray(found.done)) return found
  } catch {
    // A draft that cannot be read is no draft.
  }
  return { text: '', done: [] }
}

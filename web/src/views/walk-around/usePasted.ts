/** A column from a spreadsheet, laid over the places that follow; recorded only once somebody has looked at what goes where. */
import { ref, type Ref } from 'vue'
import type { Check, NewReading, WalkAroundData } from '@/api/client'
import type { Step } from './useOrder'

/** What a pasted column would put where; over: lines for which no place is left. */
export interface Pasted {
  rows: { position: string; label: string; raw: string[] }[]
  over: string[]
}

export interface PastedOptions {
  data: Ref<WalkAroundData>
  check: Ref<Check>
  /** The places that follow in the order of work, the one in hand first. */
  following: () => Step[]
  /** Record these figures at these places of the check in hand. */
  record: (rows: { position: string; body: Partial<NewReading> }[]) => void
  cancelled: () => void
}

export interface PasteSheet {
  pasted: Ref<Pasted | null>
  /** Lay a column out; false where it is none, or nothing that is measured is in hand. */
  paste: (column: string) => boolean
  fillPasted: () => void
  dropPasted: () => void
}

export function usePasted({ data, check, following, record, cancelled }: PastedOptions): PasteSheet {
  const pasted = ref<Pasted | null>(null)

  function paste(column: string): boolean {
    const lines = column.replace(/\r/g, '').replace(/\n+$/, '').split('\n')
    if (lines.length < 2 || check.value.options.length) return false
    const places = following().filter((step) => step.check.key === check.value.key)
    const label = (position: string): string => data.value.positions.find((one) => one.key === position)?.label ?? ''
    const rows = places.slice(0, lines.length).map((step, i) => ({
      position: step.position,
      label: label(step.position),
      raw: lines[i]!.split('\t').map((cell) => cell.trim()),
    }))
    pasted.value = { rows, over: lines.slice(places.length).filter((line) => line.trim()) }
    return true
  }

  function fillPasted(): void {
    const rows = (pasted.value?.rows ?? []).filter((row) => row.raw.some(Boolean))
    pasted.value = null
    record(rows.map((row) => ({ position: row.position, body: { raw: row.raw } })))
  }

  function dropPasted(): void {
    pasted.value = null
    cancelled()
  }

  return { pasted, paste, fillPasted, dropPasted }
}

/** Time to the right: a column a day, filled by working hours; days on which nobody works are narrow. */
import type { Schemas } from '@/api/client'

export type Zoom = 'day' | 'week' | 'season'
export type Stretch = Schemas['StretchOut']

export interface Column {
  day: string
  left: number
  width: number
  works: boolean
}
export interface Axis {
  columns: Column[]
  width: number
  /** Minutes of the day that a column begins and ends with. */
  from: number
  to: number
}
/** Pixels of a working day. */
export const WIDE: Record<Zoom, number> = { day: 980, week: 190, season: 34 }
const IDLE = 12
const DAY_MS = 86_400_000

export const minutesOf = (iso: string): number => Number(iso.slice(11, 13) || 0) * 60 + Number(iso.slice(14, 16) || 0)
export const dayOf = (iso: string): string => iso.slice(0, 10)
const next = (day: string): string => new Date(Date.parse(`${day}T12:00Z`) + DAY_MS).toISOString().slice(0, 10)

/** From the day of `first` to that of `last`, with the hours in which anybody works. */
export function axisOf(shifts: Stretch[], first: string, last: string, zoom: Zoom): Axis {
  const worked = new Set(shifts.map((one) => dayOf(one.start)))
  const from = Math.min(...shifts.map((one) => minutesOf(one.start)), 8 * 60)
  const to = Math.max(...shifts.map((one) => minutesOf(one.end)), 16 * 60)
  const columns: Column[] = []
  let left = 0
  for (let day = dayOf(first); day <= dayOf(last); day = next(day)) {
    const works = worked.has(day)
    const width = works ? WIDE[zoom] : Math.min(IDLE, WIDE[zoom])
    columns.push({ day, left, width, works })
    left += width
  }
  return { columns, width: left, from, to }
}

/** Where a moment lies; before the first column at its beginning, behind the last at its end. */
export function placeOf(axis: Axis, iso: string): number {
  const column = axis.columns.find((one) => one.day === dayOf(iso))
  if (!column) return iso < (axis.columns[0]?.day ?? '') ? 0 : axis.width
  const share = (minutesOf(iso) - axis.from) / (axis.to - axis.from)
  return column.left + column.width * Math.min(1, Math.max(0, share))
}

/** The moment at a place, to the nearest slot of so many minutes. */
export function momentAt(axis: Axis, x: number, slot: number): string {
  const column = [...axis.columns].reverse().find((one) => one.left <= x) ?? axis.columns[0]!
  const share = Math.min(1, Math.max(0, (x - column.left) / column.width))
  const minutes = Math.round((axis.from + share * (axis.to - axis.from)) / slot) * slot
  return `${column.day}T${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
}

/** The next or the last slot in which somebody works, from a moment on. */
export function stepped(shifts: Stretch[], iso: string, slot: number, by: 1 | -1): string {
  let moment = Date.parse(`${iso}Z`)
  for (let tried = 0; tried < 2000; tried++) {
    moment += by * slot * 60_000
    const text = new Date(moment).toISOString().slice(0, 16)
    if (shifts.some((one) => one.start <= text && text < one.end)) return text
  }
  return iso
}

/** What lies over each other is put into lanes: the lane of each, and how many there are. */
export function lanes(spans: { left: number; right: number }[]): { lane: number[]; many: number } {
  const ends: number[] = []
  const order = spans.map((span, i) => ({ span, i })).sort((a, b) => a.span.left - b.span.left || a.i - b.i)
  const lane: number[] = []
  for (const { span, i } of order) {
    const free = ends.findIndex((end) => end <= span.left)
    lane[i] = free < 0 ? ends.length : free
    ends[lane[i]!] = span.right
  }
  return { lane, many: Math.max(1, ends.length) }
}

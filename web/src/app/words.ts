/** Words and figures for people, where the server leaves them to the device. */
import { PHASE_NAMES } from '@/api/vocabulary'
import { counted } from './counted'

/** A phase in words: "Winter", to stand before "walk-around". */
export function phaseName(phase: string): string {
  return (PHASE_NAMES as Record<string, string>)[phase] ?? phase
}

/** How the shop writes days, and where it is; set as soon as it is known who works here. */
const shop = { zone: undefined as string | undefined, form: 'words' }
export function asInShop(zone: string, form: string): void {
  Object.assign(shop, { zone, form })
}

const DAY = { day: 'numeric', month: 'short', year: 'numeric' } as const
const FIGURES = { year: 'numeric', month: '2-digit', day: '2-digit' } as const
const MOMENT = { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', hourCycle: 'h23' } as const

/** What writes days is dear to make, and a list has hundreds of days: each is made once. */
const writers = new Map<string, Intl.DateTimeFormat>()
function written(iso: string, locale: string, options: Intl.DateTimeFormatOptions): string {
  // A day without a time of day is that day everywhere.
  const timeZone = iso.length === 10 ? 'UTC' : shop.zone
  const key = JSON.stringify([locale, timeZone, options])
  const writer = writers.get(key) ?? new Intl.DateTimeFormat(locale, { ...options, timeZone })
  writers.set(key, writer)
  const day = new Date(iso)
  return Number.isNaN(day.getTime()) ? String(day) : writer.format(day)
}
const locale = (): string => (shop.form === 'month' ? 'en-US' : 'en-GB')

export function date(iso: string): string {
  return shop.form === 'figures' ? written(iso, 'sv', FIGURES) : written(iso, locale(), DAY)
}

/** "Mon 30 Nov": of a moment on the shop's clock, its day there. */
export const weekday = (at: string): string =>
  written(at.slice(0, 10), locale(), { weekday: 'short', day: 'numeric', month: 'short' })

/** "Mon 30 Nov 2026, 08:15" of a moment on the shop's clock. */
export const when = (at: string): string =>
  `${written(at.slice(0, 10), locale(), { weekday: 'short' })} ${date(at.slice(0, 10))}, ${at.slice(11, 16)}`

/** "7 Dec" */
export const dayOfMonth = (day: string): string => written(day, locale(), { day: 'numeric', month: 'short' })

/** Days from today to a day, whole; negative when it is past. */
export function daysUntil(day: string, today = new Date()): number {
  const [y, m, d] = day.split('-').map(Number) as [number, number, number]
  return Math.round((Date.UTC(y, m - 1, d) - Date.UTC(today.getFullYear(), today.getMonth(), today.getDate())) / 86_400_000)
}

export function inDays(day: string, today?: Date): string {
  const days = daysUntil(day, today)
  if (days === 0) return 'today'
  if (days === 1) return 'tomorrow'
  return days > 0 ? `in ${counted(days, 'day')}` : `${counted(-days, 'day')} ago`
}

/** "28 Nov, 14:05" */
export function moment(iso: string): string {
  return written(iso, locale(), MOMENT)
}

/** As a sentence begins. */
export const upper = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

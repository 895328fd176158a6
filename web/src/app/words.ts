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
/** A day without a time of day is that day everywhere. */
const zoneOf = (iso: string): string | undefined => (iso.length === 10 ? 'UTC' : shop.zone)

export function date(iso: string): string {
  const options = { day: 'numeric', month: 'short', year: 'numeric', timeZone: zoneOf(iso) } as const
  if (shop.form === 'figures') return new Date(iso).toLocaleDateString('sv', { timeZone: zoneOf(iso) })
  return new Date(iso).toLocaleDateString(shop.form === 'month' ? 'en-US' : 'en-GB', options)
}

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
  const locale = shop.form === 'month' ? 'en-US' : 'en-GB'
  const options = { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', hourCycle: 'h23' } as const
  return new Date(iso).toLocaleString(locale, { ...options, timeZone: zoneOf(iso) })
}

/** As a sentence begins. */
export const upper = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

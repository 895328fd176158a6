import { afterEach, describe, expect, it } from 'vitest'
import { asInShop, date, dayOfMonth, daysUntil, inDays, moment, weekday, when } from './words'

const today = new Date(2026, 10, 23, 23, 59)

describe('days to the season', () => {
  it.each([
    ['2026-11-23', 0],
    ['2026-11-24', 1],
    ['2026-12-17', 24],
    ['2026-11-22', -1],
    ['2027-03-29', 126],
  ] as const)('%s', (day, days) => expect(daysUntil(day, today)).toBe(days))
  it.each([
    ['2026-11-23', 'today'],
    ['2026-11-24', 'tomorrow'],
    ['2026-12-17', 'in 24 days'],
    ['2026-11-22', '1 day ago'],
    ['2026-11-20', '3 days ago'],
  ] as const)('%s in words', (day, words) => expect(inDays(day, today)).toBe(words))
})

describe('days and moments', () => {
  afterEach(() => asInShop('UTC', 'words'))

  it.each([
    ['words', '7 Dec 2026', 'Mon 7 Dec', 'Mon 7 Dec 2026, 08:15', '7 Dec', '7 Dec, 08:15'],
    ['month', 'Dec 7, 2026', 'Mon, Dec 7', 'Mon Dec 7, 2026, 08:15', 'Dec 7', 'Dec 7, 08:15'],
    ['figures', '2026-12-07', 'Mon 7 Dec', 'Mon 2026-12-07, 08:15', '7 Dec', '7 Dec, 08:15'],
  ] as const)('as a shop has them that writes %s', (form, day, inWeek, wall, short, at) => {
    asInShop('UTC', form)
    expect(date('2026-12-07')).toBe(day)
    expect(weekday('2026-12-07')).toBe(inWeek)
    expect(weekday('2026-12-07T23:30')).toBe(inWeek)
    expect(when('2026-12-07T08:15')).toBe(wall)
    expect(dayOfMonth('2026-12-07')).toBe(short)
    expect(moment('2026-12-07T08:15:00Z')).toBe(at)
  })

  it('are told by the clock of the shop, a day without a time being that day everywhere', () => {
    asInShop('Pacific/Kiritimati', 'words')
    expect(date('2026-12-07T20:00:00Z')).toBe('8 Dec 2026')
    expect(moment('2026-12-07T20:00:00Z')).toBe('8 Dec, 10:00')
    expect(date('2026-12-07')).toBe('7 Dec 2026')
  })

  it('are said to be none where they are none', () => expect(date('someday')).toBe('Invalid Date'))
})

import { describe, expect, it } from 'vitest'
import { daysUntil, inDays } from './words'

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

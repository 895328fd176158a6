/** A device's clock may be set back: what is typed later is later all the same. */
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { allAnswered, typedAt } from './clock'

beforeEach(() => {
  localStorage.clear()
  vi.useFakeTimers({ now: Date.parse('2026-03-05T10:00:00Z') })
})
afterEach(() => vi.useRealTimers())

it('never goes back, whatever the clock says', () => {
  const first = typedAt()
  vi.setSystemTime(Date.parse('2026-03-04T10:00:00Z'))
  const second = typedAt()
  expect([first, second]).toEqual(['2026-03-05T10:00:00.000Z', '2026-03-05T10:00:00.001Z'])
  vi.setSystemTime(Date.parse('2026-03-05T11:00:00Z'))
  expect(typedAt()).toBe('2026-03-05T11:00:00.000Z')
})

it('believes the clock again once everything typed under a wrong one has its answer', () => {
  vi.setSystemTime(Date.parse('2036-01-01T00:00:00Z'))
  typedAt()
  vi.setSystemTime(Date.parse('2026-03-05T10:00:00Z'))
  expect(typedAt()).toBe('2036-01-01T00:00:00.001Z')
  allAnswered()
  expect(typedAt()).toBe('2026-03-05T10:00:00.001Z')
  vi.setSystemTime(Date.parse('2026-03-04T10:00:00Z'))
  expect(typedAt()).toBe('2026-03-05T10:00:00.002Z')
})

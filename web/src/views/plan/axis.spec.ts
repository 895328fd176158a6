import { describe, expect, it } from 'vitest'
import { axisOf, lanes, momentAt, placeOf, stepped, WIDE } from './axis'

const day = (date: string) => ({ start: `${date}T08:00`, end: `${date}T16:00` })
const week = [day('2026-03-05'), day('2026-03-06'), day('2026-03-09')]
const axis = axisOf(week, '2026-03-05T06:00', '2026-03-09T12:00', 'week')

describe('time to the right', () => {
  it('fills a day with its working hours, and leaves days off narrow', () => {
    expect(axis.columns.map((one) => [one.day.slice(8), one.works])).toEqual([
      ['05', true],
      ['06', true],
      ['07', false],
      ['08', false],
      ['09', true],
    ])
    expect(axis.columns[1]!.left).toBe(WIDE.week)
    expect(axis.width).toBe(3 * WIDE.week + 2 * 12)
  })
  it('puts a moment where it is, and outside of the plan at its edge', () => {
    expect(placeOf(axis, '2026-03-05T12:00')).toBe(WIDE.week / 2)
    expect(placeOf(axis, '2026-03-06T08:00')).toBe(WIDE.week)
    expect(placeOf(axis, '2026-03-01T12:00')).toBe(0)
    expect(placeOf(axis, '2026-04-01T12:00')).toBe(axis.width)
  })
  it('reads a moment back to the nearest slot', () => {
    for (const iso of ['2026-03-05T08:00', '2026-03-06T10:15', '2026-03-09T15:45'])
      expect(momentAt(axis, placeOf(axis, iso) + 1, 15)).toBe(iso)
  })
  it('steps over nights and days off', () => {
    expect(stepped(week, '2026-03-05T08:00', 15, 1)).toBe('2026-03-05T08:15')
    expect(stepped(week, '2026-03-06T15:45', 15, 1)).toBe('2026-03-09T08:00')
    expect(stepped(week, '2026-03-09T08:00', 15, -1)).toBe('2026-03-06T15:45')
    expect(stepped([], '2026-03-09T08:00', 15, 1)).toBe('2026-03-09T08:00')
  })
})

describe('lanes', () => {
  it('puts what lies over each other beneath, and uses a lane again once it is free', () => {
    const spans = [
      { left: 0, right: 10 },
      { left: 5, right: 20 },
      { left: 10, right: 12 },
    ]
    expect(lanes(spans)).toEqual({ lane: [0, 1, 0], many: 2 })
    expect(lanes([])).toEqual({ lane: [], many: 1 })
  })
})

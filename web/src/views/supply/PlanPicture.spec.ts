import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { OnePlan } from './plan'
import PlanPicture from './PlanPicture.vue'

const plan: OnePlan = {
  kind: 'cheapest',
  cost: { parts: 10, trips: 32, delivery: 18, risk: 0, late: 0, total: 60 },
  p_all_in_time: 0.9,
  last_arrival: '2026-12-01',
  trips: [
    {
      supplier: 'Bridge Street Parts',
      date: '2026-11-30',
      call_at: '2026-11-30T07:30',
      leave: '2026-11-30T07:35',
      back: '2026-11-30T08:18',
      only_if_there: true,
      cost: 32,
      lines: ['a'],
    },
  ],
  deliveries: [
    {
      supplier: 'Northmere Depot',
      way: 'van',
      ordered: '2026-11-28',
      goes_out: '2026-11-30',
      arrives: '2026-12-01',
      cost: 18,
      lines: ['b'],
    },
  ],
  lines: [],
  optimal: true,
  bound: 60,
  gap_pct: 0,
}
const draw = (change: Partial<OnePlan> = {}) =>
  mount(PlanPicture, {
    props: {
      plan: { ...plan, ...change },
      start: '2026-11-28T13:10',
      suppliers: ['Bridge Street Parts', 'Northmere Depot'],
      needed: ['2026-12-01', '2026-12-24'],
    },
  })
const heights = (path: string): number[] => [...path.matchAll(/[ ,]([\d.]+)(?=[ A-Z]|$)/g)].map((one) => Number(one[1]))

describe('the picture of trips and days', () => {
  it('has a column for each day until the last arrival, with the weekend apart', () => {
    const picture = draw()
    expect(picture.findAll('rect.day')).toHaveLength(4)
    expect(picture.findAll('rect.day.rest')).toHaveLength(2)
  })

  it('draws a trip that depends on a call with a broken line and the call before it', () => {
    const picture = draw()
    expect(picture.find('.trip').classes()).toContain('maybe')
    expect(picture.findAll('.call')).toHaveLength(1)
    expect(
      draw({ trips: [{ ...plan.trips[0]!, call_at: null, only_if_there: false }] })
        .find('.trip')
        .classes(),
    ).not.toContain('maybe')
  })

  it('lets the trip reach the line of its supplier', () => {
    const picture = draw()
    const lane = Number(/M4 ([\d.]+)H/.exec(picture.findAll('.lane')[0]!.attributes('d')!)![1])
    expect(Number(picture.find('.dot').attributes('cy'))).toBe(lane)
    expect(heights(picture.find('.trip').attributes('d')!).length).toBeGreaterThan(2)
  })

  it('says in words what it shows, and marks only days that are on it as wanted', () => {
    const picture = draw()
    expect(picture.find('svg').attributes('aria-label')).toBe(
      'Trips and days: drive to Bridge Street Parts on 2026-11-30; Northmere Depot by van, here on 2026-12-01',
    )
    expect(picture.findAll('.need')).toHaveLength(1)
  })
})

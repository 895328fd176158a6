import { describe, expect, it } from 'vitest'
import TruckTray from './TruckTray.vue'
import WearFan from './WearFan.vue'
import { mount } from './spec.helpers'

const disc = {
  readings: [
    { use: 210, value: 379.2 },
    { use: 430, value: 376.1 },
  ],
  suspect: [],
  fresh: 381,
  limit: 368,
  at: 860,
  value: 371,
  low: 369,
  high: 373,
  rate: -0.0117,
}
const height = (path: string | undefined, letter: RegExp): number => Number(letter.exec(path ?? '')![1])

describe('the fan of wear ahead', () => {
  it('puts new above the limit for a part that shrinks and for a gap that grows', () => {
    for (const given of [
      disc,
      { ...disc, readings: [{ use: 300, value: 1.7 }], fresh: 1, limit: 3, value: 2.4, low: 2.2, high: 2.6, rate: 0.002 },
    ]) {
      const drawing = mount(WearFan, { props: given })
      const top = height(drawing.find('.needle').attributes('d'), /^M14 ([\d.]+)L/)
      const limit = height(drawing.find('.limit').attributes('d'), /^M14 ([\d.]+)H/)
      expect(top).toBeLessThan(limit)
    }
  })

  it('draws a reading that does not fit hollow', () => {
    const drawing = mount(WearFan, { props: { ...disc, suspect: [1] } })
    expect(drawing.findAll('circle.mark')).toHaveLength(1)
    expect(drawing.findAll('circle.missing')).toHaveLength(1)
  })

  it('opens from the last reading to the range at the end', () => {
    const fan = mount(WearFan, { props: disc }).find('.spent').attributes('d')!
    const [from, to] = [Number(/^M([\d.]+)/.exec(fan)![1]), Number(/L([\d.]+)/.exec(fan)![1])]
    expect(from).toBeCloseTo(14 + (300 * 430) / 860, 6)
    expect(to).toBeCloseTo(314, 6)
  })

  it('says in words what it shows, and stands without readings', () => {
    expect(mount(WearFan, { props: disc }).attributes('aria-label')).toBe(
      '2 readings, expected 371.0 between 369.0 and 373.0, limit 368',
    )
    expect(mount(WearFan, { props: { ...disc, readings: [] } }).html()).not.toContain('NaN')
  })
})

describe('the tray on the truck', () => {
  it('holds the pieces to carry, as many of them filled as are expected to be used', () => {
    const tray = mount(TruckTray, { props: { carry: 3, expected: 1.1 } })
    expect(tray.findAll('g')).toHaveLength(3)
    expect(tray.findAll('circle.mark')).toHaveLength(2)
    expect(tray.attributes('aria-label')).toBe('Carry 3, 1.1 expected to be used')
  })

  it('draws two dozen at most, and is empty for none', () => {
    const many = mount(TruckTray, { props: { carry: 60, expected: 40 } })
    expect(many.findAll('g')).toHaveLength(24)
    expect(many.text()).toContain('60, 24 of them drawn')
    expect(mount(TruckTray, { props: { carry: 0, expected: 0 } }).findAll('g')).toHaveLength(0)
  })
})

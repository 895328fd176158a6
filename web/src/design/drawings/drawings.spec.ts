import { describe, expect, it } from 'vitest'
import DiscWear from './DiscWear.vue'
import GaugeWheelGap from './GaugeWheelGap.vue'
import OpenerContact from './OpenerContact.vue'
import ScaleReading from './ScaleReading.vue'
import { mount } from './spec.helpers'

const disc = (reading?: number) =>
  mount(DiscWear, {
    props: { reading, shown: `${reading} mm`, fresh: 400, limit: 386, fresh_shown: '400 mm', limit_shown: '386 mm' },
  })
const radius = (reading: number) => Number(disc(reading).find('.steel').attributes('r'))

describe('drawings follow the numbers', () => {
  it('draws a disc between its size when new and its limit', () => {
    expect(radius(400)).toBe(84)
    expect(radius(386)).toBe(46)
    expect(radius(393)).toBe(65)
    expect(radius(360), 'and never off the picture').toBeGreaterThan(15)
  })

  it('keeps the labels of a disc apart whatever is read', () => {
    for (const reading of [400, 399.5, 393, 386.2, 386, 380]) {
      const at = disc(reading)
        .findAll('text')
        .slice(0, 3)
        .map((text) => Number(text.attributes('y')))
      const gaps = at.slice(1).map((y, i) => y - at[i]!)
      expect(Math.min(...gaps)).toBeGreaterThanOrEqual(22)
    }
  })

  it('shows only the limits before anything is read', () => {
    expect(disc().find('.steel').exists()).toBe(false)
    expect(disc().attributes('aria-label')).toBe('Disc: New 400 mm, Limit 386 mm')
  })

  it('brings the feelers nearer the less the discs touch', () => {
    const upper = (equivalent: number) => {
      const path = mount(OpenerContact, {
        props: { diameter: 390, overlap: 0.2, equivalent, low: 38, high: 64, band_shown: '38 to 64 mm', shown: 'x' },
      }).find('.feeler')
      return Number(/V([\d.]+)/.exec(path.attributes('d') ?? '')![1])
    }
    expect(upper(30)).toBeGreaterThan(upper(46))
  })

  it('moves the gauge wheel off its disc by the gap', () => {
    const shift = (reading: number) => mount(GaugeWheelGap, { props: { reading } }).find('g').attributes('transform')
    expect(shift(0)).toBe('translate(0 0)')
    expect(shift(2)).toBe('translate(32 0)')
    expect(shift(50)).toBe('translate(96 0)')
  })

  it('puts a reading on its scale in proportion', () => {
    const marks = [
      { value: 22, text: 'New', kind: 'new' as const },
      { value: 19, text: 'Limit', kind: 'limit' as const },
    ]
    const x = (reading: number) =>
      Number(/M([\d.]+)/.exec(mount(ScaleReading, { props: { reading, marks } }).find('.mark').attributes('d') ?? '')![1])
    expect(x(20.5)).toBeCloseTo((x(22) + x(19)) / 2)
  })
})

import { describe, expect, it } from 'vitest'
import BarLevel from './BarLevel.vue'
import BeltSheave from './BeltSheave.vue'
import CellRing from './CellRing.vue'
import ChainPitches from './ChainPitches.vue'
import ChopperEnd from './ChopperEnd.vue'
import EvenBars from './EvenBars.vue'
import HoldDowns from './HoldDowns.vue'
import KnifeRegister from './KnifeRegister.vue'
import RowMetre from './RowMetre.vue'
import SeedFurrow from './SeedFurrow.vue'
import SeedStrip from './SeedStrip.vue'
import TakeUpSlot from './TakeUpSlot.vue'
import { anchored, scale } from './scale'
import { mount } from './spec.helpers'

const number = (path: string | undefined, pattern: RegExp): number => Number(pattern.exec(path ?? '')![1])

describe('a scale', () => {
  it('puts figures in proportion and keeps them on the picture', () => {
    const x = scale(0, 60, 20, 320)
    expect([x(0), x(30), x(60), x(90), x(-5)]).toEqual([20, 170, 320, 320, 20])
    expect(scale(5, 5, 0, 10)(5), 'also where there is nothing to spread').toBe(0)
  })
  it('anchors a text inwards at the edges', () =>
    expect([10, 170, 330].map((at) => anchored(at))).toEqual(['start', 'middle', 'end']))
})

describe('drawings of what is measured follow the numbers', () => {
  it('ends the chain at its stretch, between new and limit', () => {
    const end = (used: number) =>
      number(
        mount(ChainPitches, { props: { used, shown: '', fresh_shown: '', limit_shown: '' } })
          .find('.mark')
          .attributes('d'),
        /M([\d.]+)/,
      )
    expect([end(0), end(1)]).toEqual([208, 282])
    expect(end(0.5)).toBeCloseTo(245)
    expect(end(9)).toBeLessThanOrEqual(330)
  })

  it('stands the bolt in its slot, and shows half a link out only where one comes out', () => {
    const at = (used: number, after?: number) =>
      mount(TakeUpSlot, { props: { used, total: 60, used_shown: '', total_shown: '', after } })
        .findAll('circle')
        .map((one) => Number(one.attributes('cx')))
    expect(at(30)).toEqual([170])
    expect(at(60, 0)).toEqual([306, 34])
  })

  it('moves the section to the side it stops short of', () => {
    const section = (left: number, right: number) =>
      mount(KnifeRegister, { props: { left, right, tolerance: 3, left_shown: '', right_shown: '' } })
        .findAll('.mark')
        .map((one) => number(one.attributes('d'), /M([\d.]+)/))
    expect(section(0, 0)).toEqual([86, 254])
    const [left, right] = section(3, 3)
    expect(left).toBeGreaterThan(86)
    expect(right, 'short at both ends: both stop inside').toBeLessThan(254)
  })

  it('opens each hold-down by its clearance and marks those that are out', () => {
    const drawn = mount(HoldDowns, {
      props: {
        low: 0.5,
        high: 0.75,
        low_shown: '',
        high_shown: '',
        card: 0.3,
        clearances: [
          { name: '1', state: 'right', measured: 0.6 },
          { name: '2', state: 'too-wide', measured: 1.2 },
        ],
      },
    })
    const gaps = drawn.findAll('.rubber').map((one) => 132 - number(one.attributes('d'), /M[\d.]+ ([\d.]+)/))
    expect(gaps[1]! / gaps[0]!).toBeCloseTo(2)
    expect(drawn.findAll('.out')).toHaveLength(1)
    expect(Number(drawn.find('.cardbar').attributes('height'))).toBeCloseTo(gaps[0]! / 2)
  })

  it('draws a knife as long as it is heavy and the residual towards its heavy side', () => {
    const blades = [
      { name: '1', angle: 0, mass: 205, bad: true },
      { name: '2', angle: 180, mass: 410, bad: false },
    ]
    const drawn = mount(ChopperEnd, {
      props: {
        blades,
        residuals: [
          { name: 'Now', angle: 180, share: 1, shown: '' },
          { name: 'Set', angle: null, share: 0, shown: '' },
        ],
        allowed_shown: 'x',
      },
    })
    const lengths = drawn.findAll('.blade').map((one) => {
      const [from, to] = [...(one.attributes('d') ?? '').matchAll(/(-?[\d.]+) -?[\d.]+/g)].map((found) => Number(found[1]))
      return Math.abs(to! - from!)
    })
    expect(Math.max(...lengths) / Math.min(...lengths)).toBeCloseTo(2, 1)
    expect(drawn.findAll('.vector'), 'nothing left, no arrow').toHaveLength(1)
    expect(number(drawn.find('.vector').attributes('d'), /L(-?[\d.]+)/)).toBeLessThan(-14)
  })

  it('tilts the bar the way it is pitched', () => {
    const steel = (pitch: number) =>
      mount(BarLevel, { props: { pitch, shown: '', front_shown: '', rear_shown: '' } })
        .find('.steel')
        .attributes('d')
    const ends = (pitch: number) => [...(steel(pitch) ?? '').matchAll(/ (-?[\d.]+)L/g)].map((found) => Number(found[1]))[0]!
    expect(ends(1.5), 'nose down: the front end hangs lower').toBeGreaterThan(ends(0))
    expect(ends(-1.5)).toBeLessThan(ends(0))
  })

  it('lays seeds as deep as they were dug up, and names rows that are off', () => {
    const rows = [
      { name: '1', digs: [50], shown: '50', track: false, off: false },
      { name: '2', digs: [25], shown: '25', track: true, off: true },
    ]
    const drawn = mount(SeedFurrow, { props: { rows, target: 50, tolerance: 5, target_shown: '50 mm' } })
    const depths = drawn.findAll('.seed').map((one) => Number(one.attributes('cy')) - 46)
    expect(depths[0]! / depths[1]!).toBeCloseTo(2)
    expect(drawn.findAll('.seed.off')).toHaveLength(1)
    expect(drawn.findAll('.rubber')).toHaveLength(1)
  })

  it('counts spacings into bars and draws a gap where a seed is missing', () => {
    const drawn = mount(SeedStrip, {
      props: { spacings: [165, 165, 330, 60, 165], nominal: 165, nominal_shown: '', half_shown: '', more_shown: '' },
    })
    expect(drawn.findAll('.limit')).toHaveLength(1)
    const tallest = Math.max(...drawn.findAll('.bar').map((one) => Number(one.attributes('height'))))
    expect(tallest).toBe(70)
    expect(drawn.findAll('.bar.off').filter((one) => Number(one.attributes('height')) > 0)).toHaveLength(2)
  })

  it('never hides a fault that is under one in a hundred', () => {
    const ring = mount(CellRing, { props: { skip_pct: 0.4, double_pct: 2.2, shown: '', skip_shown: '', double_shown: '' } })
    expect(ring.findAll('circle.missing')).toHaveLength(1 + 1)
    expect(ring.findAll('g.seed.off')).toHaveLength(3 + 1)
  })

  it('plants a metre to scale', () =>
    expect(mount(RowMetre, { props: { spacing: 250, cells: 30, shown: '', disc_shown: '' } }).findAll('.seed')).toHaveLength(5))

  it('lets the belt ride deeper the further its halves stand apart', () => {
    const depth = (reading: number) =>
      number(
        mount(BeltSheave, { props: { reading, low: 84.5, high: 87.5, shown: '', low_shown: '', high_shown: '' } })
          .find('.rubber')
          .attributes('d'),
        /M[\d.]+ ([\d.]+)/,
      )
    expect(depth(88)).toBeGreaterThan(depth(86))
    expect(depth(86)).toBeGreaterThan(depth(84))
  })

  it('shows each position above or below the target', () => {
    const positions = [
      { name: 'L', value: 212, shown: '', correction: '', worst: true },
      { name: 'R', value: 216, shown: '', correction: '', worst: false },
    ]
    const y = mount(EvenBars, { props: { positions, target: 214, tolerance: 2, target_shown: '' } })
      .findAll('circle')
      .map((one) => Number(one.attributes('cy')))
    expect(y[0]! - 80).toBeCloseTo(80 - y[1]!)
    expect(y[0]).toBeGreaterThan(80)
  })
})

import { describe, expect, it } from 'vitest'
import { figure, frame, money, paths, percent, shortly, steps, type Wear } from './figures'

const DISC: Wear = {
  position: '4L',
  label: 'Row 4 left',
  row: 4,
  side: 'L',
  wheels: true,
  path: [
    { counter: 2140, value: 400, low: 399.5, high: 400.5 },
    { counter: 2860, value: 388.4, low: 387.5, high: 389.3 },
    { counter: 3100, value: 384.5, low: 383.1, high: 385.9 },
  ],
  readings: [
    { counter: 2140, value: 399.8, raw: '399.8', at: '2023-11-28', by: 'Ada Quill', doubted: false, past: false },
    { counter: 2390, value: 350, raw: '350', at: '2024-11-27', by: 'Ada Quill', doubted: true, past: false },
  ],
  fitments: [{ counter: 2140, at: '2023-11-19', number: 'D12-4001' }],
}
const BOX = { left: 0, top: 0, width: 100, height: 100 }

describe('figures of wear', () => {
  it('shows no more decimals than are worth it', () =>
    expect([figure(388.40001, 1), figure(390, 1), figure(0.8, 2), figure(100, 0)]).toEqual(['388.4', '390', '0.8', '100']))
  it('never says 0 or 100 per cent of what is neither', () =>
    expect([percent(0.001), percent(0.999), percent(0.237)]).toEqual(['under 1 %', '99 %', '24 %']))
  it('rounds money, but not to nothing', () =>
    expect([money(0.2, 'EUR'), money(0, 'EUR'), money(273.6, 'EUR')]).toEqual(['under 1 EUR', '0 EUR', '274 EUR']))
  it('names a place in a narrow column', () =>
    expect(['4L', 'rotor-bar-3', 'strand-1', 'rotor-drive'].map(shortly)).toEqual(['4L', '3', '1', 'rotor drive']))
  it('steps at round figures', () => expect(steps(2140, 3100, 5)).toEqual([2200, 2400, 2600, 2800, 3000]))
})

describe('a plot', () => {
  it('has new on top and the limit below, whether the part shrinks or grows', () => {
    const shrinks = frame([DISC], 400, 386, 3100, BOX)
    expect(shrinks.y(400)).toBeLessThan(shrinks.y(386))
    const grows = frame([], 0, 3, 10, BOX)
    expect(grows.y(0)).toBeLessThan(grows.y(3))
  })
  it('is not squeezed by a slip, which stands at its edge', () => {
    const at = frame([DISC], 400, 386, 3100, BOX)
    expect(at.y(350)).toBe(100)
    expect(at.y(386)).toBeLessThan(90)
  })
  it('draws the line from the fitting to the end of the season, and the fan from today', () => {
    const at = frame([DISC], 400, 386, 3100, BOX)
    const { line, fan } = paths(DISC, 2860, at)
    expect(line.startsWith(`M${at.x(2140).toFixed(1)} `)).toBe(true)
    expect(fan.startsWith(`M${at.x(2860).toFixed(1)} `)).toBe(true)
    expect(fan.endsWith('z')).toBe(true)
  })
  it('stays empty without a history', () =>
    expect(paths({ ...DISC, path: [] }, 0, frame([], 1, 0, 1, BOX))).toEqual({ line: '', fan: '' }))
})

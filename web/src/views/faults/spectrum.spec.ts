import { expect, it } from 'vitest'
import { lineOf, offWords, peakWords, scaleOf, stepsTo } from './spectrum'

const flat = { hz: [0, 50, 100, 150, 200], amplitude: [0, 1, 0, 0, 0], level: 1 }

it('shows what is worth seeing and no more than there is', () => {
  expect(scaleOf([flat], [60]).last).toBe(75)
  expect(scaleOf([flat], [500]).last).toBe(200)
  expect(scaleOf([flat], []).last).toBe(70)
})

it('draws by turns of the engine where two speeds lie over each other', () => {
  const scale = scaleOf([flat, flat], [2], [25, 50])
  expect(scale.last).toBeCloseTo(2.8)
  const at = (per: number): number => Number(lineOf(flat, scale, per).split(' ')[1]!.split(',')[0])
  expect(at(25)).toBeCloseTo(scale.x(2), 0)
  expect(at(50)).toBeCloseTo(scale.x(1), 0)
})

it('steps roundly', () => {
  expect(stepsTo(75)).toEqual([0, 10, 20, 30, 40, 50, 60, 70])
  expect(stepsTo(2.8)).toEqual([0, 0.5, 1, 1.5, 2, 2.5])
})

it('says what a peak is', () => {
  const peak = { hz: 47.7, amplitude: 2, matches: [{ shaft: 'Chopper', order: 1, off_pct: 0.1 }] }
  expect(peakWords(peak)).toBe('Chopper, 1 × its turn')
  expect([offWords(-0.01), offWords(1.24)]).toEqual(['on the spot', '1.2 % off'])
  expect(peakWords({ ...peak, matches: [] })).toBe('no shaft')
})

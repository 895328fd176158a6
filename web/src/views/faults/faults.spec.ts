import { expect, it } from 'vitest'
import { percent, whole, type Look } from './faults'

it('says shares without rounding anything to certainty', () => {
  expect([0, 0.004, 0.27, 0.997, 1].map(percent)).toEqual(['0 %', 'under 1 %', '27 %', 'over 99 %', '100 %'])
})

it('counts the way to a look', () => {
  expect(whole({ minutes: 6, way_minutes: 4 } as Look)).toBe(10)
})

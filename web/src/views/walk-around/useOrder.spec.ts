import { describe, expect, it } from 'vitest'
import type { Check } from '@/api/client'
import { stepsOf } from './useOrder'

const check = (key: string, more: Partial<Check>): Check =>
  ({ key, station: 'row', thing: 'row', optional: false, positions: ['1', '2'], ...more }) as Check
const numberOf = (position: string): number | null => Number(/\d+/.exec(position)?.[0] ?? NaN) || null
const way = (checks: Check[], sweep: 'check' | 'row'): string[] =>
  stepsOf(checks, sweep, numberOf).map((step) => `${step.check.key} ${step.position}`)

describe('sweeps', () => {
  const discs = check('disc', { positions: ['1L', '2L', '2R', '1R'] })
  const guard = check('guard', {})

  it('check by check goes down one side and back on the other', () =>
    expect(way([discs, guard], 'check')).toEqual(['disc 1L', 'disc 2L', 'disc 2R', 'disc 1R', 'guard 1', 'guard 2']))
  it('row by row finishes a row before the next', () =>
    expect(way([discs, guard], 'row')).toEqual(['disc 1L', 'disc 1R', 'guard 1', 'disc 2L', 'disc 2R', 'guard 2']))
  it('leaves what stands elsewhere, is another thing or optional where it is', () => {
    const all = [
      guard,
      check('weld', { thing: '', positions: ['all'] }),
      check('hub', { station: 'travel' }),
      check('stand', { optional: true }),
    ]
    expect(way(all, 'row')).toEqual(['guard 1', 'guard 2', 'weld all', 'hub 1', 'hub 2', 'stand 1', 'stand 2'])
  })
  it('forgets no step and doubles none', () => {
    const all = [discs, guard, check('optional', { optional: true })]
    expect([...way(all, 'row')].sort()).toEqual([...way(all, 'check')].sort())
  })
})

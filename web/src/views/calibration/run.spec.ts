import { expect, it } from 'vitest'
import { begunRun, benchTexts, conditions, done, figures, where, workedOut, type Calibration } from './run'

const one = {
  posture: 'cab, high idle, level ground',
  lock: '',
  before: ['High idle.'],
  steps: [
    { do: 'Hold raise', watch: 'it creeps', hold_s: 20 },
    { do: 'Lower', watch: '', hold_s: null },
  ],
  save: 'Store',
  values: [{ key: 'offset', name: 'Offset', unit: '%', last: -0.8 }],
} as unknown as Calibration

it('goes from what must hold through the steps to whether it worked, and asks apart whether it is saved', () => {
  const run = begunRun('u')
  const stages = [0, 1, 2, 3, 4].map((stage) => where(one, { ...run, stage }).at)
  expect(stages).toEqual(['before', 'step', 'step', 'worked', 'saved'])
  expect([0, 1, 2, 3, 4].map((stage) => done(one, { ...run, stage }))).toEqual([0, 0, 1, 2, 2])
  expect(where({ ...one, save: '' }, { ...run, stage: 4 }).at).toBe('worked')
  expect(conditions(one)).toEqual(['High idle.'])
  expect(conditions({ ...one, before: [] })).toEqual(['cab, high idle, level ground'])
})

it('sends figures as people type them, and none that was left empty', () => {
  expect(figures({ ...begunRun('u'), values: { offset: '−0,9', width: ' ' } })).toEqual({ offset: '−0,9' })
})

it('begins the bench with what is stored and with the loads that were weighed', () => {
  const load = { machine_kg: 2080, scale_kg: 2000, shown_pct: 14.2, reference_pct: null, flow: 'low' } as never
  expect(benchTexts('moisture', one, [load])).toEqual({ stored_pct: '-0.8', pairs: [] })
  expect(benchTexts('yield', one, [load])).toEqual({ loads: [['2080', '2000', 'low']] })
  expect(benchTexts('sieves', one, [])).toEqual({ sieves: [['Chaffer'], ['Sieve']] })
})

it('leaves out loads of before it was saved: they were shown with the factor of then', () => {
  const load = (at: string) => ({ at, machine_kg: 2080, scale_kg: 2000, shown_pct: null, reference_pct: null, flow: 'low' })
  const saved = { ...one, saved_at: '2026-07-02T10:00:00+02:00' }
  const loads = [load('2026-07-02T07:59:00Z'), load('2026-07-02T08:01:00Z')] as never
  expect(benchTexts('yield', saved, loads)).toEqual({ loads: [['2080', '2000', 'low']] })
})

it('keeps an offset as it is, and a factor multiplied with the one in force', () => {
  const run = (result: object) => ({ given: {}, result }) as never
  expect(workedOut({ moisture_offset: run({ offset_pct: 0.9 }) }, one, 'mm')).toEqual({ offset: '0.9' })
  const factor = { ...one, values: [{ key: 'factor', name: '', unit: '', last: 1.1 }] } as Calibration
  expect(workedOut({ yield_factor: run({ factor: 1.03143 }) }, factor, 'mm')).toEqual({ factor: '1.1346' })
  const sieves = { sieve_zero: run({ sieves: { Chaffer: { offset_mm: -2 } } }) }
  expect(workedOut(sieves, one, 'mm')).toEqual({ chaffer: '-2.0' })
  expect(workedOut(sieves, one, 'in')).toEqual({ chaffer: '-2.0 mm' })
})

import { describe, expect, it } from 'vitest'
import { span } from '@/app/duration'
import { isLate, rowsOf, shortName, worstFirst, type Job, type Plan } from './planned'

const job = (more: Partial<Job>): Job =>
  ({
    key: 'k',
    machine: 'Heron 4',
    technicians: ['Tomas Vey'],
    place: 'Bay',
    stretches: [{ start: '2026-12-07T08:00', end: '2026-12-07T10:00' }],
    ...more,
  }) as Job
const machine = (name: string, late_h: number, due: string | null) => ({ name, late_h, due }) as Plan['machines'][number]
const plan = {
  people: [{ name: 'Ines Marrow' }, { name: 'Tomas Vey' }],
  places: [{ name: 'Bay' }, { name: 'Yard' }],
  machines: [
    machine('Heron 4', 0, '2026-12-08T16:00'),
    machine('Sill 61', 5, '2026-12-07T09:00'),
    machine('Weir 107', 9, null),
  ],
  jobs: [
    job({ key: 'a', technicians: ['Tomas Vey', 'Ines Marrow'] }),
    job({ key: 'b', machine: 'Sill 61', place: '' }),
    job({ key: 'c', stretches: [] }),
  ],
} as unknown as Plan
const keys = (by: 'people' | 'places' | 'machines') =>
  rowsOf(plan, by).map((row) => [row.name, row.jobs.map((one) => one.key).join('')])

describe('a plan in rows', () => {
  it('has work of two people in both their rows, and what has no place in none', () => {
    expect(keys('people')).toEqual([
      ['Ines Marrow', 'a'],
      ['Tomas Vey', 'ab'],
    ])
  })
  it('leaves out places where nothing is done, and has the bench', () => {
    expect(keys('places')).toEqual([
      ['Bay', 'a'],
      ['At the bench', 'b'],
    ])
  })
  it('puts the machine that is latest first', () => {
    expect(worstFirst(plan.machines).map((one) => one.name)).toEqual(['Weir 107', 'Sill 61', 'Heron 4'])
  })
  it('knows which job ends behind its machine’s day', () => {
    expect(plan.jobs.slice(0, 2).map((one) => isLate(plan, one))).toEqual([false, true])
  })
})

it('says times and names short', () => {
  expect([span(75), span(60), span(20), span(0)]).toEqual(['1 h 15 min', '1 h', '20 min', '0 min'])
  expect(['Dunmere 12', 'Heron 4', 'Weir 107'].map(shortName)).toEqual(['D12', 'H4', '107'])
})

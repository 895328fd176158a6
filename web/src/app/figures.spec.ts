import { describe, expect, it } from 'vitest'
import { Refused } from '@/api/client'
import { figure, figureIfTyped, whole, wholeIfTyped } from './figures'

const refused = (read: () => unknown): [string, string] => {
  try {
    read()
  } catch (error) {
    if (error instanceof Refused) return [error.field, error.message]
  }
  throw new Error('it was taken')
}

describe('a figure as it is typed', () => {
  it.each([
    ['12', 12],
    [' 2,5 ', 2.5],
    ['.5', 0.5],
    ['0,125', 0.125],
    ['−3.5', -3.5],
    ['+7', 7],
    ['12 860', 12860],
    ['12860,5', 12860.5],
  ])('%j is %d', (text, value) => expect(figure(text, 'counter')).toBe(value))

  it.each(['', 'ten', '12 pcs', '1.2.3', '1e3', '0x10', 'NaN', '-', '1 2'])(
    '%j is none, and said to be none at its field',
    (text) => expect(refused(() => figure(text, 'counter'))).toEqual(['counter', 'must be a figure, such as 12 or 2.5']),
  )

  it('does not guess what a comma before three digits means', () =>
    expect(refused(() => figure('2,860', 'counter'))[1]).toContain('thousands comma'))

  it('is nothing only where nothing was typed', () => {
    expect([figureIfTyped(' ', 'counter'), wholeIfTyped('', 'quantity'), figureIfTyped('0', 'counter')]).toEqual([
      null,
      null,
      0,
    ])
    expect(refused(() => figureIfTyped('ten', 'call_min'))[0]).toBe('call_min')
  })

  it('counts in whole numbers, and does not round', () => {
    expect([whole('12', 'quantity'), wholeIfTyped('3.0', 'quantity')]).toEqual([12, 3])
    expect(refused(() => whole('1.5', 'quantity'))).toEqual(['quantity', 'must be a whole number'])
  })
})

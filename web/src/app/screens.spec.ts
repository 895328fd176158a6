import { describe, expect, it } from 'vitest'
import { router } from './router'
import { screensCalled } from './screens'

const everything = (): boolean => true

describe('screens by what people call them', () => {
  it('finds them by title and by other words', () => {
    expect(screensCalled('invite', everything).map((one) => one.title)).toEqual(['People'])
    expect(screensCalled('second factor', everything).map((one) => one.title)).toEqual(['The shop', 'Your account'])
    expect(screensCalled('rul', everything).map((one) => one.path)).toEqual(['/rules'])
  })
  it('shows nobody what does not open for them', () => {
    expect(screensCalled('invite', (right) => right !== 'see people')).toEqual([])
  })
  it('answers to two letters and more', () => {
    expect(screensCalled('', everything)).toEqual([])
    expect(screensCalled('p', everything)).toEqual([])
  })
  it('leads to addresses that there are', () => {
    const words = ['machine', 'parts', 'bench', 'catalogue', 'shop', 'account', 'changes', 'stock', 'sourcing', 'own', 'rates']
    for (const word of [...words, 'zone', 'hours', 'door', 'crops', 'schools', 'feelers'])
      for (const one of screensCalled(word, everything)) expect(router.resolve(one.path).name, one.path).not.toBe('lost')
  })
})

import { describe, expect, it } from 'vitest'
import type { Place } from '@/api/client'
import { adviceOf } from './together'

const read = (name: string, weight: number | null, reason: string, ask = '') => ({
  name,
  place: { weight, reason, remedy: '', ask } as unknown as Place,
})

describe('the one advice for a chain', () => {
  it('is that of the heaviest verdict, and names its reading', () => {
    const all = [read('Sag', 24, '60 mm.'), read('Stretch', 26, '3.2 %.'), read('Slats', 0, 'Fine.')]
    expect(adviceOf(all)).toBe('Stretch: 3.2 %.')
    expect(adviceOf([...all].reverse())).toBe('Stretch: 3.2 %.')
  })
  it('says what is still to read', () => {
    expect(adviceOf([read('Sag', 0, 'Fine.'), { name: 'Stretch' }])).toBe('As it should be. 1 still to read.')
    expect(adviceOf([{ name: 'Sag' }])).toBe('Nothing read yet.')
  })
  it('counts a figure that waits for its question as not read', () => {
    expect(adviceOf([read('Sag', 0, 'Fine.'), read('Stretch', null, '', '1010 mm?')])).toBe('As it should be. 1 still to read.')
  })
  it('asks no more for what somebody could not see', () => {
    expect(adviceOf([read('Sag', 0, 'Fine.'), read('Slats', null, '')])).toBe('As it should be.')
  })
})

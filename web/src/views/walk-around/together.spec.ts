import { describe, expect, it } from 'vitest'
import type { Place } from '@/api/client'
import { adviceOf } from './together'

const place = (severity: string, action: string, reason: string): Place =>
  ({ severity, action, reason, remedy: '', ask: '' }) as unknown as Place

describe('the one advice for a chain', () => {
  it('is to renew where anything says so, whatever else would be adjusted', () => {
    const read = [
      place('due', 'adjust', 'Sag 60 mm.'),
      place('due', 'replace', '3.2 % stretch.'),
      place('sound', 'none', 'Fine.'),
    ]
    expect(adviceOf(read)).toBe('3.2 % stretch.')
  })
  it('says what is still to read', () => {
    expect(adviceOf([place('sound', 'none', 'Fine.'), undefined])).toBe('As it should be. 1 still to read.')
    expect(adviceOf([undefined])).toBe('Nothing read yet.')
  })
  it('puts what is due before what is watched', () => {
    expect(adviceOf([place('watch', 'recheck', 'Look again.'), place('due', 'adjust', 'Tighten.')])).toBe('Tighten.')
  })
})

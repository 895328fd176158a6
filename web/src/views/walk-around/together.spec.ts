import { describe, expect, it } from 'vitest'
import type { Place } from '@/api/client'
import { adviceOf } from './together'

const read = (name: string, severity: string, action: string, reason: string) => ({
  name,
  place: { severity, action, reason, remedy: '', ask: '' } as unknown as Place,
})

describe('the one advice for a chain', () => {
  it('is to renew where anything says so, whatever else would be adjusted', () => {
    const all = [
      read('Sag', 'due', 'adjust', '60 mm.'),
      read('Stretch', 'due', 'replace', '3.2 %.'),
      read('Slats', 'sound', 'none', 'Fine.'),
    ]
    expect(adviceOf(all)).toBe('Stretch: 3.2 %.')
  })
  it('says what is still to read', () => {
    expect(adviceOf([read('Sag', 'sound', 'none', 'Fine.'), { name: 'Stretch' }])).toBe('As it should be. 1 still to read.')
    expect(adviceOf([{ name: 'Sag' }])).toBe('Nothing read yet.')
  })
  it('puts what is due before what is watched', () => {
    const all = [read('Stretch', 'watch', 'recheck', 'Look again.'), read('Sag', 'due', 'adjust', 'Tighten.')]
    expect(adviceOf(all)).toBe('Sag: Tighten.')
  })
})

import { describe, expect, it } from 'vitest'
import { differs, standing, type Item } from './setUp'

const place = (label: string, state: string) => ({
  label,
  state,
  shown: state[0]!.toUpperCase() + state.slice(1),
  day: '2026-03-05',
  by: 'Tomas',
  walk_around: 'w',
})
const drum = (...states: string[]): Item => ({
  check: 'drum-position',
  name: 'Feeder drum fitted',
  station: 'Feeder house',
  how: '',
  places: states.map((state, i) => place(i ? 'Right' : 'Left', state)),
  wants: [
    { crop: 'ear', states: ['up'], names: ['Up'] },
    { crop: 'pod', states: ['down'], names: ['Down'] },
  ],
  changes: [],
})

describe('what a crop would have otherwise', () => {
  it('is one side that stands wrong, both, or none', () => {
    expect(differs(drum('up', 'down'), 'ear')).toBe('change')
    expect(differs(drum('down', 'down'), 'ear')).toBe('change')
    expect(differs(drum('up', 'up'), 'ear')).toBe('right')
  })
  it('is asked first where it was never recorded, and nothing where the crop asks for nothing', () => {
    expect(differs(drum(), 'ear')).toBe('ask')
    expect(differs(drum('up', 'up'), 'fine-seed')).toBe('')
    expect(differs(drum('up', 'up'), '')).toBe('')
  })
  it('names the places only where they differ', () => {
    expect(standing(drum('up', 'up'))).toEqual([{ shown: 'Up', at: '' }])
    expect(standing(drum('up', 'down'))).toEqual([
      { shown: 'Up', at: 'left' },
      { shown: 'Down', at: 'right' },
    ])
  })
})

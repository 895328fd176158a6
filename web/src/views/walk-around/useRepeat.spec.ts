/** What the key for "the same again" gives. */
import { describe, expect, it } from 'vitest'
import { ref } from 'vue'
import type { Check, NewReading } from '@/api/client'
import { useRepeat } from './useRepeat'
import type { WalkAroundState } from './useWalkAround'

type Had = { state: string; ask: string; raw: string[]; feeler: string; units: string }
const had = (raw: string, more: Partial<Had> = {}): Had => ({
  state: 'seen',
  ask: '',
  raw: [raw],
  feeler: '',
  units: 'mm',
  ...more,
})
const repeatAt = (at: string, places: Record<string, Had>): ReturnType<typeof useRepeat> =>
  useRepeat(
    { places: new Map(Object.entries(places)) } as unknown as WalkAroundState,
    ref({ key: 'disc', positions: ['1', '2', '3'] } as Check),
    ref(at),
  )
const reading = (more: Partial<NewReading>): NewReading =>
  ({ check: 'disc', position: '1', state: 'seen', raw: ['391'], feeler: '', units: 'mm', ...more }) as NewReading

describe('what was typed last', () => {
  it('is given again for the same check, in the units it was typed in', () => {
    const { remember, last } = repeatAt('2', {})
    remember(reading({ raw: ['15 1/4'], units: 'in' }))
    remember(reading({ check: 'bearing', raw: ['2'] }))
    expect(last()).toMatchObject({ raw: ['15 1/4'], units: 'in' })
  })

  it('is no place that was not seen, and no figure that somebody had to stand by', () => {
    const { remember, last } = repeatAt('2', {})
    remember(reading({ state: 'not-seen', raw: [] }))
    remember(reading({ raw: ['14'], confirmed: true }))
    expect(last()).toBeUndefined()
  })

  it('is what stands nearest before this place after a reload, questions passed over', () => {
    const places = { 'disc|1': had('390'), 'disc|2': had('14', { ask: '14 mm?' }), 'disc|3': had('388') }
    expect(repeatAt('3', places).last()).toMatchObject({ raw: ['390'] })
    expect(repeatAt('1', places).last()).toBeUndefined()
  })
})

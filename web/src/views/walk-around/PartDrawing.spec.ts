import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Check, Place } from '@/api/client'
import PartDrawing from './PartDrawing.vue'

const place = (more: Partial<Place>): Place => ({ state: 'seen', ask: '', severity: 'sound', choice: '', short: '', shown: '', contact_shown: '', reason: '', action: 'none', facts: {}, advice: null, ...more }) as Place
function draw(drawing: string, limits: Record<string, number>, read: Partial<Place> | undefined, sisters: Partial<Place>[] = [], figures: { name: string; shown: string }[] = []) {
  const check = { drawing, limits, figures, unit: 'mm' } as unknown as Check
  const beside = sisters.map((one, i) => ({ label: String(i + 1), place: place(one) }))
  const made = mount(PartDrawing, { props: { check, place: read && place(read), sisters: beside, units: 'mm' } })
  return { made, label: made.find('svg').exists() ? made.find('svg').attributes('aria-label') : '' }
}

describe('the drawing beside the field', () => {
  it('shows the bolt in its slot with half a link out only where that is advised', () => {
    const read = { short: '52 · 60', facts: { reading: 52, limit: 60 } }
    expect(draw('take-up', {}, read).made.findAll('circle')).toHaveLength(1)
    expect(draw('take-up', {}, { ...read, facts: { ...read.facts, after: 31.3 } }).made.findAll('circle')).toHaveLength(2)
    expect(draw('take-up', {}, read).label).toBe('Take-up 52 mm used of 60 mm')
  })

  it('says short and past at both ends of the stroke', () => {
    expect(draw('register', { tolerance: 3 }, { short: '3 · -1', facts: { left: 3, right: -1 } }).label).toBe('Knife section at its left end 3 mm short, at its right end 1 mm past')
  })

  it('stands all positions beside each other where they are compared', () => {
    const sides = [{ short: '212', facts: { reading: 212, target: 213.75, correction: 1.75 }, severity: 'due' as const }, { short: '215.5', facts: { reading: 215.5, target: 213.75, correction: -1.75 }, severity: 'due' as const }]
    expect(draw('even', { tolerance: 2 }, sides[0], sides).label).toContain('1 212, +1.75. 2 215.5, −1.75')
  })

  it('draws the seeds of every row that was dug', () => {
    const rows: Partial<Place>[] = [{ contact_shown: '50 mm', facts: { dig_0: 49, dig_1: 51, mean: 50, off: 0 } }, { contact_shown: '39 mm', facts: { dig_0: 39, mean: 39, off: 1 } }]
    const { made, label } = draw('furrow', { target: 50, tolerance: 5 }, rows[0], rows, [{ name: 'Aim for', shown: '50 mm' }])
    expect(made.findAll('.seed')).toHaveLength(3)
    expect(label).toBe('Wanted 50 mm. Row 1: 50. Row 2: 39, off')
  })

  it('puts every hold-down between its feelers with the shop’s card', () => {
    const { made, label } = draw('hold-downs', { go: 0.5, no_go: 0.75 }, { facts: { card: 0.3 } }, [{ choice: 'right' }, { choice: 'too-wide' }], [{ name: 'Go', shown: '0.5 mm' }, { name: 'No-go', shown: '0.75 mm' }])
    expect(label).toBe('1 right, 2 too wide')
    expect(made.find('.cardbar').exists()).toBe(true)
  })

  it('names what each school leaves of a broken rotor', () => {
    const rows = [['Unbalance now', '26 kg·mm'], ['Allowed', '5058 g·mm (grade G 16)'], ['Balanced set', '4 knives, leaves 0 g·mm'], ['Each with its opposite', '2 knives, leaves 0 g·mm, fewest within the grade'], ['Only the bad ones', '1 knife, leaves 13 kg·mm']]
    const bad = { action: 'replace', facts: { mass: 0, angle: 0, permissible: 5058, unbalance: 26000, left_single: 13000, angle_single: 0 }, advice: { rows: rows.map(([name, shown]) => ({ name: name!, shown: shown!, mark: '' as const })), done: '', then: [] } }
    const { label, made } = draw('chopper', {}, bad, [bad, { facts: { mass: 410, angle: 180 } }])
    expect(label).toBe('Chopper from its end, allowed 5058 g·mm: Now 26 kg·mm, Set 0 g·mm, Pair 0 g·mm, Single 13 kg·mm')
    expect(made.findAll('.blade')).toHaveLength(1)
  })

  it('draws nothing it has no reading for', () => {
    for (const drawing of ['take-up', 'register', 'bar', 'chain', 'even', 'furrow', 'chopper', 'hold-downs']) expect(draw(drawing, {}, undefined).made.find('svg').exists()).toBe(false)
  })
})

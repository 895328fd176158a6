import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import type { Check, Place } from '@/api/client'
import DrawingOf from '@/design/drawings/DrawingOf.vue'
import { drawingOf, kindsOf } from './drawingOf'

/** A place with only those facts that a test is about. */
type Read = Omit<Partial<Place>, 'facts'> & { facts?: { kind: string; [name: string]: unknown } }
const place = (more: Read): Place =>
  ({
    state: 'seen',
    ask: '',
    severity: 'sound',
    choice: '',
    short: '',
    shown: '',
    contact_shown: '',
    reason: '',
    action: 'none',
    facts: null,
    advice: null,
    ...more,
  }) as unknown as Place
const check = (
  drawing: string,
  limits: Record<string, number> = {},
  figures: { key: string; shown: string; brief: string }[] = [],
): Check => ({ drawing, limits, figures, unit: 'mm' }) as unknown as Check

async function draw(one: Check, read: Read | undefined, sisters: Read[] = []) {
  const drawing = drawingOf(
    one,
    read && place(read),
    sisters.map((told, i) => ({ label: String(i + 1), place: place(told) })),
  )
  if (!drawing) return { made: undefined, label: '' }
  const made = mount(DrawingOf, { props: { drawing } })
  await vi.dynamicImportSettled()
  await flushPromises()
  return { made, label: made.find('svg').attributes('aria-label') }
}

describe('the drawing beside the field', () => {
  it('shows the bolt in its slot with half a link out only where that is advised', async () => {
    const facts = {
      kind: 'travel' as const,
      used: 52,
      total: 60,
      used_shown: '52 mm',
      total_shown: '60 mm',
      after: null,
      after_shown: '',
    }
    const slot = await draw(check('take-up'), { facts })
    expect(slot.label).toBe('Take-up 52 mm used of 60 mm')
    expect(slot.made!.findAll('circle')).toHaveLength(1)
    expect((await draw(check('take-up'), { facts: { ...facts, after: 31.3 } })).made!.findAll('circle')).toHaveLength(2)
  })

  it('says short and past at both ends of the stroke', async () => {
    const facts = {
      kind: 'register' as const,
      left: 3,
      right: -1,
      left_shown: '3 mm short',
      right_shown: '1 mm past',
      tolerance: 3,
    }
    expect((await draw(check('register', { tolerance: 3 }), { facts })).label).toBe(
      'Knife section at its left end 3 mm short, at its right end 1 mm past',
    )
  })

  it('stands all positions beside each other where they are compared', async () => {
    const side = (reading: number, short: string, correction: string): Read => ({
      short,
      severity: 'due',
      facts: { kind: 'even', reading, target: 213.75, correction_shown: correction },
    })
    const sides = [side(212, '212', '+1.75 mm'), side(215.5, '215.5', '−1.75 mm')]
    expect((await draw(check('even', { tolerance: 2 }), sides[0], sides)).label).toContain('1 212, +1.75 mm. 2 215.5, −1.75 mm')
  })

  it('draws the seeds of every row that was dug', async () => {
    const rows: Read[] = [
      { short: '50', facts: { kind: 'depth', digs: [49, 51], mean: 50, off: false } },
      { short: '39', facts: { kind: 'depth', digs: [39], mean: 39, off: true } },
    ]
    const { made, label } = await draw(
      check('furrow', { target: 50, tolerance: 5 }, [{ key: 'target', shown: '50 mm', brief: '50 mm' }]),
      rows[0],
      rows,
    )
    expect(made!.findAll('.seed')).toHaveLength(3)
    expect(label).toBe('Wanted 50 mm. Row 1: 50. Row 2: 39, off')
  })

  it('puts every hold-down between its feelers with the shop’s card', async () => {
    const figures = [
      { key: 'go', shown: '0.5 mm', brief: '0.5 mm' },
      { key: 'no_go', shown: '0.75 mm', brief: '0.75 mm' },
    ]
    const felt = (state: 'right' | 'too-wide', card?: number): Read => ({
      facts: { kind: 'gauge', state, low: 0.5, high: 0.75, card },
    })
    const { made, label } = await draw(check('hold-downs', { go: 0.5, no_go: 0.75 }, figures), felt('right', 0.3), [
      felt('right'),
      felt('too-wide'),
    ])
    expect(label).toBe('1 right, 2 too wide')
    expect(made!.find('.cardbar').exists()).toBe(true)
  })

  it('names what each school leaves of a broken rotor', async () => {
    const unbalances = [
      { name: 'Now', angle: 180, share: 5.1, shown: '26 kg·mm' },
      { name: 'Set', angle: null, share: 0, shown: '0 g·mm' },
      { name: 'Single', angle: 0, share: 2.6, shown: '13 kg·mm' },
    ]
    const bad: Read = { facts: { kind: 'knives', mass: 0, angle: 0, bad: true, unbalances, allowed_shown: '5058 g·mm' } }
    const { label, made } = await draw(check('chopper'), bad, [
      bad,
      { facts: { kind: 'knives', mass: 410, angle: 180, bad: false } },
    ])
    expect(label).toBe('Chopper from its end, allowed 5058 g·mm: Now 26 kg·mm, Set 0 g·mm, Single 13 kg·mm')
    expect(made!.findAll('.blade')).toHaveLength(1)
  })

  it('draws nothing it has no reading for, and nothing that is asked about', async () => {
    for (const drawing of ['take-up', 'register', 'bar', 'chain', 'even', 'furrow', 'chopper', 'hold-downs'])
      expect((await draw(check(drawing), undefined)).made).toBeUndefined()
    const asked: Read = { ask: 'Really?', facts: { kind: 'wear', reading: 390 } }
    expect(drawingOf(check('disc', { new: 400, limit: 386 }), place(asked), [])).toMatchObject({
      kind: 'disc',
      reading: undefined,
    })
  })

  it('knows before which drawings a walk-around needs', () => {
    expect(kindsOf([check('disc'), check(''), check('hold-downs')])).toEqual(['disc', 'clearances'])
  })
})

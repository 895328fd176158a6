/** Nothing but the technician moves the hand: after any sweep every place holds what was meant for it. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Refused, type Check } from '@/api/client'
import { placeOf, check, dice, fresh, hand, send, server, sound, standing, STATES, type Judge } from './hand.spec.helpers'
import { at } from './useWalkAround'

vi.mock('@/api/outbox', async (original) => {
  const real = await original<typeof import('@/api/outbox')>()
  return { ...real, outbox: real.makeOutbox((entry) => send(entry)) }
})

const ROWS = Array.from({ length: 12 }, (_, i) => String(i + 1))
const DISCS = [...ROWS.map((row) => `${row}L`), ...[...ROWS].reverse().map((row) => `${row}R`)]
const PACES = [200, 1000, 2500]
const notALength = new Refused(422, 'is not a length', 'raw.0', true)

/** As the core: a figure of six digits is two that ran together, a letter is no length, 14.x is asked about. */
const core: Judge = (body) => {
  const raw = body.raw ?? []
  const long = raw.findIndex((one) => /^\d{6}$/.test(one))
  if (raw.includes('x')) return notALength
  if (long >= 0 && !body.confirmed)
    return {
      severity: 'watch',
      ask: 'Did two figures run together?',
      split: [...raw.slice(0, long), raw[long]!.slice(0, 3), raw[long]!.slice(3), ...raw.slice(long + 1)],
    }
  if (raw[0]?.startsWith('14') && !body.confirmed) return { severity: 'watch', ask: `${raw[0]} mm?` }
  return { severity: 'sound' }
}

/** Every kind of rule as the hand meets it: what is typed for a place, and what must stand there. */
const KINDS: Record<string, { more: Partial<Check>; keys: (i: number) => string[]; raw: (i: number) => string }> = {
  wear: { more: {}, keys: (i) => [...String(380 + i), 'Enter'], raw: (i) => String(380 + i) },
  'several figures': {
    more: { values: ['a', 'b', 'c'], feelers: ['card'] },
    keys: (i) => [30, 40, 50].flatMap((tens) => [...String(tens + (i % 9)), 'Enter']),
    raw: (i) => [30, 40, 50].map((tens) => tens + (i % 9)).join(' '),
  },
  choice: { more: { kind: 'choice', options: STATES }, keys: (i) => [String((i % 3) + 1)], raw: (i) => STATES[i % 3]!.key },
  'yes or no': {
    more: {
      kind: 'yes-no',
      options: [
        { key: 'yes', name: 'Yes', severity: 'sound', right: true },
        { key: 'no', name: 'No', severity: 'due' },
      ] as Check['options'],
    },
    keys: (i) => [i % 4 ? 'y' : 'n'],
    raw: (i) => (i % 4 ? 'yes' : 'no'),
  },
  count: { more: { kind: 'count', unit: '' }, keys: (i) => [...String(i), 'Enter'], raw: (i) => String(i) },
  interval: { more: { kind: 'interval', unit: '' }, keys: (i) => [...`${1800 + i} h`, 'Enter'], raw: (i) => `${1800 + i} h` },
  note: { more: { kind: 'note', unit: '' }, keys: (i) => [...`seen ${i}`, 'Enter'], raw: (i) => `seen ${i}` },
}

describe('the hand goes on in its order', () => {
  beforeEach(() => {
    fresh()
    vi.useFakeTimers()
    server.judge = core
  })
  afterEach(async () => {
    await vi.advanceTimersByTimeAsync(300_000)
    vi.useRealTimers()
    vi.restoreAllMocks()
  })

  describe.each(PACES)('at %i ms a figure, with answers up to five seconds late', (pace) => {
    it.each(Object.keys(KINDS))('%s', async (name) => {
      const { more, keys, raw } = KINDS[name]!
      const roll = dice(pace + name.length)
      server.delay = () => roll() * 5000
      const { press, state, entry, unmount } = await hand(
        [check('first', { ...more, positions: DISCS }), check('next', { positions: ['all'] })],
        { positions: DISCS },
      )
      for (let i = 0; i < DISCS.length; i++) {
        press(...keys(i))
        await vi.advanceTimersByTimeAsync(pace)
      }
      expect(entry.check.value.key).toBe('next')
      await vi.advanceTimersByTimeAsync(200_000)
      expect(standing(state)).toEqual(Object.fromEntries(DISCS.map((place, i) => [`first ${place}`, raw(i)])))
      unmount()
    })

    it('with questions and refusals on the way', async () => {
      const roll = dice(pace)
      server.delay = () => roll() * 5000
      const meant = DISCS.map((_, i) => (i % 5 === 2 ? `14.${i}` : i % 7 === 3 ? 'x' : String(380 + i)))
      const { type, press, state, entry, unmount } = await hand(
        [check('disc', { positions: DISCS }), check('axle', { positions: ['all'] })],
        { positions: DISCS },
      )
      for (const figure of meant) {
        type(figure)
        press('Enter')
        await vi.advanceTimersByTimeAsync(pace)
      }
      expect(entry.check.value.key).toBe('axle')
      await vi.advanceTimersByTimeAsync(200_000)
      expect(standing(state)).toEqual(Object.fromEntries(DISCS.map((place, i) => [`disc ${place}`, meant[i]])))
      expect(entry.questions.all.value).toHaveLength(meant.filter((one) => one === 'x' || one.startsWith('14')).length)
      unmount()
    })

    it('with an Enter that was swallowed: one key puts all of them right', async () => {
      const roll = dice(pace + 3)
      server.delay = () => roll() * 5000
      const { type, press, state, where, unmount } = await hand([check('disc', { positions: DISCS })], { positions: DISCS })
      for (let i = 0; i < 20; i++) {
        type(String(380 + i))
        if (i !== 6) press('Enter')
        await vi.advanceTimersByTimeAsync(pace)
      }
      await vi.advanceTimersByTimeAsync(200_000)
      expect(where()).toBe(`disc ${DISCS[19]}`)
      press('F2')
      expect(where()).toBe(`disc ${DISCS[6]}`)
      press('s')
      expect(where()).toBe(`disc ${DISCS[20]}`)
      await vi.advanceTimersByTimeAsync(200_000)
      expect(standing(state)).toEqual(
        Object.fromEntries(DISCS.slice(0, 20).map((place, i) => [`disc ${place}`, String(380 + i)])),
      )
      unmount()
    })
  })

  it('with an Enter that was swallowed among several figures a place', async () => {
    const { press, type, state, where, entry, unmount } = await hand(
      [check('contact', { values: ['a', 'b', 'c'], positions: ['1', '2', '3', '4'] })],
      { positions: ['1', '2', '3', '4'] },
    )
    const figures = [311, 312, 313, 321, 322, 323, 331, 332, 333]
    for (const figure of figures) {
      type(String(figure))
      if (figure !== 312) press('Enter')
      await vi.advanceTimersByTimeAsync(100)
    }
    expect([where(), entry.done.value]).toEqual(['contact 3', ['332', '333']])
    press('F2', 's')
    await vi.advanceTimersByTimeAsync(1000)
    expect(standing(state)).toEqual({ 'contact 1': '311 312 313', 'contact 2': '321 322 323', 'contact 3': '331 332 333' })
    expect(where()).toBe('contact 4')
    unmount()
  })

  it('takes what was split back as one', async () => {
    const { press, type, state, entry, unmount } = await hand([check('disc', {})])
    type('375374')
    press('Enter')
    await vi.advanceTimersByTimeAsync(100)
    press('F2', 's')
    await vi.advanceTimersByTimeAsync(100)
    expect(standing(state)).toEqual({ 'disc 1': '375', 'disc 2': '374' })
    entry.undo()
    await vi.advanceTimersByTimeAsync(100)
    expect(standing(state)).toEqual({ 'disc 1': '375374' })
    unmount()
  })

  it('never takes the second Enter of a gauge for anything', async () => {
    const { press, type, state, where, unmount } = await hand([check('disc', {}), check('axle', { positions: ['all'] })])
    // A second sweep over what is read: the case in which an Enter by itself used to go on.
    for (const figure of ['380', '381', '382']) {
      type(figure)
      press('Enter', 'Enter')
    }
    await vi.advanceTimersByTimeAsync(1000)
    press('PageUp', 'ArrowLeft', 'ArrowLeft')
    expect(where()).toBe('disc 1')
    for (const figure of ['390', '391', '392']) {
      type(figure)
      press('Enter', 'Enter', 'Enter')
    }
    await vi.advanceTimersByTimeAsync(1000)
    expect(standing(state)).toEqual({ 'disc 1': '390', 'disc 2': '391', 'disc 3': '392' })
    unmount()
  })

  it('never answers a question by an Enter, nor by the next figure', async () => {
    const { press, type, state, where, unmount } = await hand([check('disc', {})])
    type('14.3')
    press('Enter')
    await vi.advanceTimersByTimeAsync(100)
    expect(where()).toBe('disc 2')
    press('F2')
    expect(where()).toBe('disc 1')
    press('Enter')
    await vi.advanceTimersByTimeAsync(100)
    expect(state.places.get(at('disc', '1'))!.ask).not.toBe('')
    press('y')
    expect(where()).toBe('disc 2')
    await vi.advanceTimersByTimeAsync(100)
    expect(server.recorded.at(-1)).toMatchObject({ raw: ['14.3'], confirmed: true })
    unmount()
  })

  it('answers a question by the figure again, and comes back to where the hand was, with what was begun there', async () => {
    const { press, type, state, where, entry, unmount } = await hand([check('disc', { positions: ROWS })], { positions: ROWS })
    type('14.3')
    press('Enter')
    type('381')
    press('Enter')
    type('38')
    await vi.advanceTimersByTimeAsync(100)
    press('F2')
    expect([where(), entry.text.value]).toEqual(['disc 1', ''])
    type('385')
    press('Enter')
    expect([where(), entry.text.value]).toEqual(['disc 3', '38'])
    await vi.advanceTimersByTimeAsync(100)
    expect(standing(state)).toEqual({ 'disc 1': '385', 'disc 2': '381' })
    unmount()
  })

  it.each(['Enter', '=', '.', '1', '-', '*', 'Backspace', 'y'])(
    'does the work of %s once when it is held down',
    async (held) => {
      const { press, type, where, unmount } = await hand([check('disc', { positions: ROWS })], { positions: ROWS })
      type('380')
      press('Enter')
      type('381')
      press('Enter')
      press(held, ...Array<string>(20).fill(`repeat ${held}`))
      await vi.advanceTimersByTimeAsync(1000)
      expect(['disc 3', 'disc 4', 'disc 2']).toContain(where())
      expect(server.recorded.length).toBeLessThanOrEqual(3)
      unmount()
    },
  )

  it('types a digit once however long it is held', async () => {
    const { press, entry, unmount } = await hand([check('disc', {})])
    press('3', '8', '0', ...Array<string>(9).fill('repeat 0'))
    expect(entry.text.value).toBe('380')
    unmount()
  })

  it('keeps its order when a partner reads the places ahead', async () => {
    const { press, type, state, where, unmount } = await hand([check('disc', { positions: ROWS })], { positions: ROWS })
    type('380')
    press('Enter')
    state.places.set(
      at('disc', '3'),
      placeOf({ check: 'disc', position: '3', raw: ['370'], state: 'seen' } as never, { by: 'Ines Marrow' }),
    )
    for (const figure of ['381', '382', '383']) {
      type(figure)
      press('Enter')
    }
    expect(where()).toBe('disc 5')
    await vi.advanceTimersByTimeAsync(1000)
    expect(standing(state)).toMatchObject({ 'disc 2': '381', 'disc 3': '382', 'disc 4': '383' })
    unmount()
  })

  it('skips at the next check what a partner has read by then', async () => {
    server.judge = sound
    const { press, type, state, where, unmount } = await hand([check('disc', {}), check('hub', {})])
    state.places.set(
      at('hub', '1'),
      placeOf({ check: 'hub', position: '1', raw: ['1'], state: 'seen' } as never, { by: 'Ines Marrow' }),
    )
    for (const figure of ['1', '2', '3']) {
      type(figure)
      press('Enter')
    }
    expect(where()).toBe('hub 2')
    unmount()
  })

  it('row by row keeps its order too, with late answers and refusals', async () => {
    const roll = dice(11)
    server.delay = () => roll() * 5000
    const { press, type, state, unmount } = await hand(
      [check('disc', { positions: ROWS }), check('guard', { positions: ROWS })],
      { positions: ROWS, sweep: 'row' },
    )
    for (let i = 0; i < 24; i++) {
      type(i === 5 ? 'x' : i === 8 ? '14.1' : String(300 + i))
      press('Enter')
      await vi.advanceTimersByTimeAsync(200)
    }
    await vi.advanceTimersByTimeAsync(200_000)
    const meant = (i: number): string => (i === 5 ? 'x' : i === 8 ? '14.1' : String(300 + i))
    expect(standing(state)).toEqual(
      Object.fromEntries(
        ROWS.flatMap((row, r) => [
          [`disc ${row}`, meant(2 * r)],
          [`guard ${row}`, meant(2 * r + 1)],
        ]),
      ),
    )
    unmount()
  })
})

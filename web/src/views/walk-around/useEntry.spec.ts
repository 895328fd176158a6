import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, reactive, ref } from 'vue'
import { Refused, type Check, type NewReading, type Place, type WalkAroundData } from '@/api/client'
import { outbox } from '@/api/outbox'
import { useEntry } from './useEntry'
import { useOrder } from './useOrder'
import { at, type At, type WalkAroundState } from './useWalkAround'

const check = (key: string, more: Partial<Check>): Check =>
  ({ key, name: key, options: [], values: [], feelers: [], positions: ['1', '2', '3'], optional: false, station: 'row', thing: 'row', bulk: false, posture: 'raised', ...more }) as Check
const STATES = [{ key: 'smooth', name: 'Smooth', severity: 'sound' }, { key: 'rough', name: 'Rough', severity: 'due' }] as Check['options']

let sent: NewReading[]
let units: 'mm' | 'in' = 'mm'
function hand(...checks: Check[]) {
  const places = reactive(new Map<At, Place>())
  const data = ref({ checks, positions: ['1', '2', '3'].map((key) => ({ key, label: `Row ${key}`, thing: 'row', number: Number(key), side: null })), plan: { visits: [{ posture: 'raised', via: [], minutes: 0, checks: checks.map((one) => one.key) }], minutes: 0, minutes_station_order: 0 } } as unknown as WalkAroundData)
  const isOpen = (one: Check, position: string) => !places.has(at(one.key, position)) && !sent.some((body) => body.check === one.key && body.position === position)
  const holds = ref([{ posture: 'raised', by: 'Tomas', at: '' }])
  const state = { data, places, isOpen, holds, openCount: (one: Check) => one.positions.filter((position) => isOpen(one, position)).length } as unknown as WalkAroundState
  const order = useOrder(data)
  const entry = useEntry('w', state, order, ref(checks[0]!.key), units, () => undefined)
  entry.select(checks[0]!.key)
  const press = (...keys: string[]) => {
    for (const key of keys) {
      const event = new KeyboardEvent('keydown', { key, cancelable: true })
      entry.key(event)
      if (!event.defaultPrevented && key.length === 1) entry.text.value += key
    }
  }
  return { entry, places, press, order }
}

describe('the hand on the keyboard', () => {
  beforeEach(() => {
    localStorage.clear()
    sent = []
    vi.spyOn(outbox, 'put').mockImplementation((_, body) => void sent.push(body))
  })

  it('types, enters, and is at the next position', () => {
    const { entry, press } = hand(check('disc', {}))
    press('3', '9', '0', 'Enter')
    expect(sent[0]).toMatchObject({ check: 'disc', position: '1', raw: ['390'], state: 'seen' })
    expect([entry.position.value, entry.text.value]).toEqual(['2', ''])
  })

  it('goes from the last position to the next check with anything open', () => {
    const { entry, press } = hand(check('disc', {}), check('measured', { optional: true }), check('axle', {}))
    press('1', 'Enter', '2', 'Enter', '3', 'Enter')
    expect(entry.check.value.key).toBe('axle')
  })

  it('takes several figures for one position before it sends', () => {
    const { press } = hand(check('contact', { values: ['a', 'b', 'c'], feelers: ['card'] }))
    press('3', 'Enter', '4', 'Enter')
    expect(sent).toHaveLength(0)
    press('Backspace', 'Enter', '5', 'Enter')
    expect(sent[0]).toMatchObject({ raw: ['3', '4', '5'], feeler: 'card' })
  })

  it('repeats the last value with =', () => {
    const { press } = hand(check('disc', {}))
    press('7', 'Enter', '=')
    expect(sent.map((body) => body.raw)).toEqual([['7'], ['7']])
    expect(sent[0]!.uuid).not.toBe(sent[1]!.uuid)
  })

  it('chooses a state with its digit and the sound one with a point', () => {
    const { press } = hand(check('bearing', { options: STATES }))
    press('2', '.')
    expect(sent.map((body) => body.raw)).toEqual([['rough'], ['smooth']])
  })

  it('never marks a measured check in bulk', () => {
    const { entry, press } = hand(check('disc', {}))
    press('.', 'Enter')
    expect(sent).toEqual([])
    expect(entry.hint.value).toContain('never marked in bulk')
  })

  it('lets a point begin a decimal and a dash stand inside a length', () => {
    const { press } = hand(check('disc', {}))
    press('.', '5', 'Enter', '1', '4', '-', '5', '/', '8', 'Enter')
    expect(sent.map((body) => body.raw)).toEqual([['.5'], ['14-5/8']])
  })

  it('asks why after a dash, and takes no for no answer', () => {
    const { entry, press } = hand(check('disc', {}))
    press('-', 'Enter')
    expect(sent).toEqual([])
    press('2')
    expect(sent[0]).toMatchObject({ state: 'not-seen', reason: 'Part is off the machine' })
    press('-', 'Escape')
    expect(entry.notSeen.value).toBe(false)
  })

  it('keeps what was typed at a position while looking elsewhere', async () => {
    const { entry, press } = hand(check('disc', {}))
    press('3', '9')
    await nextTick()
    entry.select('disc', '2')
    expect(entry.text.value).toBe('')
    entry.select('disc', '1')
    expect(entry.text.value).toBe('39')
  })

  it('brings back what was refused, to its field', () => {
    const { entry, press } = hand(check('disc', {}))
    press('x', 'Enter')
    entry.refused('disc', '1', sent[0]!, new Refused(422, 'is not a length', 'raw.0', true))
    expect([entry.position.value, entry.text.value, entry.problem.value]).toEqual(['1', 'x', 'x – is not a length'])
  })

  it('does not tear the hand away while it types', () => {
    const { entry, press } = hand(check('disc', {}))
    press('x', 'Enter', '3')
    entry.refused('disc', '1', sent[0]!, new Refused(422, 'is not a length', 'raw.0', true))
    expect([entry.position.value, entry.text.value]).toEqual(['2', '3'])
    expect(entry.problems.size).toBe(1)
  })

  it('keeps an asked figure when Enter is pressed again', () => {
    const { entry, places, press } = hand(check('disc', {}))
    places.set(at('disc', '1'), { check: 'disc', position: '1', ask: '14.3 mm?', raw: ['14.3'], feeler: '', state: 'seen' } as unknown as Place)
    entry.select('disc', '1')
    press('Enter')
    expect(sent[0]).toMatchObject({ raw: ['14.3'], confirmed: true })
  })

  it('says in which units a bare number was typed, and keeps that when it is sent again', () => {
    units = 'in'
    const { entry, places, press } = hand(check('disc', {}))
    units = 'mm'
    press('1', '5', 'Enter')
    expect(sent[0]).toMatchObject({ raw: ['15'], units: 'in' })
    places.set(at('disc', '2'), { check: 'disc', position: '2', raw: ['390'], units: 'mm', feeler: '', state: 'seen', ask: '', reason: '', confirmed: false, note: '', at: '' } as unknown as Place)
    entry.select('disc', '2')
    press('1', '4', 'Enter')
    entry.undo()
    expect(sent[2]).toMatchObject({ raw: ['390'], units: 'mm' })
  })

  it('undoes by a new reading, never by erasing', () => {
    const { places, press, entry } = hand(check('disc', {}))
    press('7', 'Enter')
    entry.undo()
    expect(sent[1]).toMatchObject({ state: 'withdrawn', position: '1' })
    places.set(at('disc', '2'), { check: 'disc', position: '2', raw: ['5'], feeler: '', state: 'seen', ask: '', reason: '', confirmed: false, note: '', at: '' } as unknown as Place)
    entry.select('disc', '2')
    press('6', 'Enter')
    entry.undo()
    expect(sent[3]).toMatchObject({ state: 'seen', position: '2', raw: ['5'] })
  })

  it('goes row by row where that is chosen', () => {
    const { entry, press, order } = hand(check('disc', {}), check('guard', {}))
    order.sweep.value = 'row'
    const way: string[] = []
    for (let i = 0; i < 4; i++) {
      way.push(`${entry.check.value.key} ${entry.position.value}`)
      press('9', 'Enter')
    }
    expect(way).toEqual(['disc 1', 'guard 1', 'disc 2', 'guard 2'])
  })

  it('marks the rest of a station right in one key, each by itself, and never what is measured', () => {
    const { press } = hand(check('disc', {}), check('axle', { options: STATES, bulk: true }), check('tyre', { options: STATES, bulk: true }), check('elsewhere', { options: STATES, bulk: true, station: 'other' }))
    vi.useFakeTimers()
    press('+')
    vi.advanceTimersByTime(60)
    vi.useRealTimers()
    expect(sent.map((body) => [body.check, body.position, body.raw, body.bulk, body.posture])).toEqual(
      ['axle', 'tyre'].flatMap((key) => ['1', '2', '3'].map((position) => [key, position, ['smooth'], true, 'raised'])),
    )
    expect(new Set(sent.map((body) => body.uuid)).size).toBe(6)
  })

  it('takes a bulk mark back as one', () => {
    const { entry, press } = hand(check('axle', { options: STATES, bulk: true }))
    press('+')
    entry.undo()
    expect(sent.slice(3).map((body) => [body.position, body.state])).toEqual([['1', 'withdrawn'], ['2', 'withdrawn'], ['3', 'withdrawn']])
  })

  it('takes the sign of a gauge for a sign, and a key pressed by hand for the key', () => {
    vi.useFakeTimers()
    const { entry, press } = hand(check('disc', {}), check('axle', { options: STATES, bulk: true }))
    press('+', '0', '3', '8', '7', '.', '4', 'Enter')
    expect(sent.map((body) => [body.check, body.raw])).toEqual([['disc', ['+0387.4']]])
    press('-', '0', '.', '5')
    expect([entry.text.value, entry.notSeen.value]).toEqual(['-0.5', false])
    entry.text.value = ''
    press('-')
    vi.advanceTimersByTime(60)
    expect(entry.notSeen.value).toBe(true)
    vi.useRealTimers()
  })

  it('records what was done as advised, comes back, and takes it back as one', () => {
    const { entry, places, press } = hand(check('washers', {}), check('contact', { values: ['a', 'b', 'c'] }))
    const place = { check: 'contact', position: '2', state: 'seen', raw: ['29', '29', '29'], ask: '', advice: { rows: [], done: 'Moved', then: [{ check: 'washers', position: '2', raw: ['0', '3'] }] } } as unknown as Place
    places.set(at('contact', '2'), place)
    places.set(at('washers', '2'), { check: 'washers', position: '2', state: 'seen', raw: ['1', '2'], feeler: '', units: 'mm', reason: '', note: '', ask: '' } as unknown as Place)
    entry.followed(place)
    expect(sent[0]).toMatchObject({ check: 'washers', position: '2', raw: ['0', '3'], state: 'seen' })
    expect([entry.check.value.key, entry.position.value]).toEqual(['contact', '2'])
    entry.undo()
    expect(sent[1]).toMatchObject({ check: 'washers', position: '2', raw: ['1', '2'] })
    expect(sent[1]!.uuid).not.toBe(sent[0]!.uuid)
    press('Escape')
  })

  it('says that something does not apply, with one key', () => {
    const { press } = hand(check('disc', {}))
    press('/')
    expect(sent[0]).toMatchObject({ state: 'does-not-apply', raw: [] })
  })

  it('keeps a note that has no reading yet while looking elsewhere', async () => {
    const { entry } = hand(check('disc', {}))
    entry.note.value = 'chipped'
    await nextTick()
    entry.select('disc', '2')
    expect(entry.note.value).toBe('')
    entry.select('disc', '1')
    expect(entry.note.value).toBe('chipped')
  })

  it('sends a note along with the next reading', () => {
    const { entry, press } = hand(check('disc', {}))
    entry.note.value = ' left edge chipped '
    press('9', 'Enter')
    expect(sent[0]!.note).toBe('left edge chipped')
    expect(entry.note.value).toBe('')
  })
})

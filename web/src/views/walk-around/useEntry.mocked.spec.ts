/** What each key makes of what is typed. How the hand moves is in useHand.spec.ts. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { Refused, type Check, type NewReading, type Place } from '@/api/client'
import { outbox } from '@/api/outbox'
import { check, fresh, hand as begin, placeOf, send, server, STATES } from './hand.spec.helpers'
import { at } from './useWalkAround'

vi.mock('@/api/outbox', async (original) => {
  const real = await original<typeof import('@/api/outbox')>()
  return { ...real, outbox: real.makeOutbox((entry) => send(entry)) }
})

let sent: NewReading[]
const hand = (...checks: Check[]) => begin(checks)
const settled = () => vi.advanceTimersByTimeAsync(60_000)

describe('the hand on the keyboard', () => {
  beforeEach(() => {
    fresh()
    vi.useFakeTimers()
    // Nothing is answered unless a test lets time pass: what is sent can be looked at.
    server.delay = () => 1000
    sent = []
    const put = outbox.put
    vi.spyOn(outbox, 'put').mockImplementation((walkAround, body, about) => (sent.push(body), put(walkAround, body, about)))
  })
  afterEach(async () => {
    await settled()
    vi.useRealTimers()
    vi.restoreAllMocks()
  })

  it('types, enters, and is at the next position', async () => {
    const { entry, press } = await hand(check('disc', {}))
    press('3', '9', '0', 'Enter')
    expect(sent[0]).toMatchObject({ check: 'disc', position: '1', raw: ['390'], state: 'seen' })
    expect([entry.position.value, entry.text.value]).toEqual(['2', ''])
  })

  it('goes from the last position to the next check with anything open', async () => {
    const { entry, press } = await hand(check('disc', {}), check('measured', { optional: true }), check('axle', {}))
    press('1', 'Enter', '2', 'Enter', '3', 'Enter')
    expect(entry.check.value.key).toBe('axle')
  })

  it('takes several figures for one position before it sends', async () => {
    const { press } = await hand(check('contact', { values: ['a', 'b', 'c'], feelers: ['card'] }))
    press('3', 'Enter', '4', 'Enter')
    expect(sent).toHaveLength(0)
    press('Backspace', 'Enter', '5', 'Enter')
    expect(sent[0]).toMatchObject({ raw: ['3', '4', '5'], feeler: 'card' })
  })

  it('repeats the last value with =', async () => {
    const { press } = await hand(check('disc', {}))
    press('7', 'Enter', '=')
    expect(sent.map((body) => body.raw)).toEqual([['7'], ['7']])
    expect(sent[0]!.uuid).not.toBe(sent[1]!.uuid)
  })

  it('chooses a state with its digit and the sound one with a point', async () => {
    const { press } = await hand(check('bearing', { options: STATES }))
    press('2', '.')
    expect(sent.map((body) => body.raw)).toEqual([['dry'], ['smooth']])
  })

  it('never marks a measured check in bulk', async () => {
    const { entry, press } = await hand(check('disc', {}))
    press('.', 'Enter')
    expect(sent).toEqual([])
    expect(entry.hint.value).toContain('never marked in bulk')
  })

  it('lets a point begin a decimal and a dash stand inside a length', async () => {
    const { press } = await hand(check('disc', {}))
    press('.', '5', 'Enter', '1', '4', '-', '5', '/', '8', 'Enter')
    expect(sent.map((body) => body.raw)).toEqual([['.5'], ['14-5/8']])
  })

  it('asks why after a dash, and takes no for no answer', async () => {
    const { entry, press } = await hand(check('disc', {}))
    press('-', 'Enter')
    expect(sent).toEqual([])
    press('2')
    expect(sent[0]).toMatchObject({ state: 'not-seen', reason: 'Part is off the machine' })
    press('-', 'Escape')
    expect(entry.notSeen.value).toBe(false)
  })

  it('keeps what was typed at a position while looking elsewhere', async () => {
    const { entry, press } = await hand(check('disc', {}))
    press('3', '9')
    await nextTick()
    entry.select('disc', '2')
    expect(entry.text.value).toBe('')
    entry.select('disc', '1')
    expect(entry.text.value).toBe('39')
  })

  it('brings back what was refused when somebody goes there, to be corrected or typed over', async () => {
    server.judge = (body) => (body.raw?.[0] === 'x' ? new Refused(422, 'is not a length', 'raw.0', true) : {})
    const { entry, press, state } = await hand(check('disc', {}))
    press('x', 'Enter', '3')
    await settled()
    expect([entry.position.value, entry.text.value, entry.problem.value]).toEqual(['2', '3', ''])
    expect(entry.questions.all.value).toMatchObject([{ kind: 'refused', position: '1', text: '“x” is not a length' }])
    expect(state.cell(entry.check.value, '1').severity).toBe('asked')
    entry.select('disc', '1')
    expect([entry.text.value, entry.problem.value]).toEqual(['x', '“x” is not a length'])
    entry.text.value = '7'
    press('Enter')
    await settled()
    expect(entry.questions.all.value).toEqual([])
    expect(outbox.box.entries).toEqual([])
  })

  it('brings back the figure of several that was refused, with those before it', async () => {
    server.judge = () => new Refused(422, 'is not a length', 'raw.1', true)
    const { entry, press } = await hand(check('contact', { values: ['a', 'b', 'c'] }))
    press('3', 'Enter', 'x', 'Enter', '5', 'Enter')
    await settled()
    entry.select('contact', '1')
    expect([entry.done.value, entry.text.value]).toEqual([['3'], 'x'])
  })

  it('says in which units a bare number was typed, and keeps that when it is sent again', async () => {
    const {
      entry,
      state: { places },
      press,
    } = await begin([check('disc', {})], { units: 'in' })
    press('1', '5', 'Enter')
    expect(sent[0]).toMatchObject({ raw: ['15'], units: 'in' })
    places.set(
      at('disc', '2'),
      placeOf({ check: 'disc', position: '2', raw: ['390'], units: 'mm', state: 'seen' } as NewReading),
    )
    entry.select('disc', '2')
    press('1', '4', 'Enter')
    entry.undo()
    expect(sent[2]).toMatchObject({ raw: ['390'], units: 'mm' })
  })

  it('undoes by a new reading, never by erasing', async () => {
    const {
      state: { places },
      press,
      entry,
    } = await hand(check('disc', {}))
    press('7', 'Enter')
    entry.undo()
    expect(sent[1]).toMatchObject({ state: 'withdrawn', position: '1' })
    places.set(at('disc', '2'), placeOf({ check: 'disc', position: '2', raw: ['5'], units: 'mm', state: 'seen' } as NewReading))
    entry.select('disc', '2')
    press('6', 'Enter')
    entry.undo()
    expect(sent[3]).toMatchObject({ state: 'seen', position: '2', raw: ['5'] })
  })

  it('goes row by row where that is chosen', async () => {
    const { entry, press } = await begin([check('disc', {}), check('guard', {})], { sweep: 'row' })
    const way: string[] = []
    for (let i = 0; i < 4; i++) {
      way.push(`${entry.check.value.key} ${entry.position.value}`)
      press('9', 'Enter')
    }
    expect(way).toEqual(['disc 1', 'guard 1', 'disc 2', 'guard 2'])
  })

  it('says what it will mark, and marks the rest of a station right, each by itself, and never what is measured', async () => {
    const { entry, press } = await hand(
      check('disc', {}),
      check('axle', { options: STATES, bulk: true }),
      check('tyre', { options: STATES, bulk: true }),
      check('elsewhere', { options: STATES, bulk: true, station: 'other' }),
    )
    press('+')
    vi.advanceTimersByTime(60)
    expect(sent).toEqual([])
    expect(entry.hint.value).toBe('+ again: 6 places looked at in passing and right: axle (3), tyre (3). Esc leaves it.')
    press('+')
    vi.advanceTimersByTime(60)
    expect(sent.map((body) => [body.check, body.position, body.raw, body.bulk, body.posture])).toEqual(
      ['axle', 'tyre'].flatMap((key) => ['1', '2', '3'].map((position) => [key, position, ['smooth'], true, 'raised'])),
    )
    expect(new Set(sent.map((body) => body.uuid)).size).toBe(6)
  })

  it('takes a bulk mark back as one', async () => {
    const { entry, press } = await hand(check('axle', { options: STATES, bulk: true }))
    press('+')
    press('Escape', '+', '+')
    entry.undo()
    expect(sent.slice(3).map((body) => [body.position, body.state])).toEqual([
      ['1', 'withdrawn'],
      ['2', 'withdrawn'],
      ['3', 'withdrawn'],
    ])
  })

  it('takes the sign of a gauge for a sign, and a key pressed by hand for the key', async () => {
    const { entry, press } = await hand(check('disc', {}), check('axle', { options: STATES, bulk: true }))
    press('+', '0', '3', '8', '7', '.', '4', 'Enter')
    expect(sent.map((body) => [body.check, body.raw])).toEqual([['disc', ['+0387.4']]])
    press('-', '0', '.', '5')
    expect([entry.text.value, entry.notSeen.value]).toEqual(['-0.5', false])
    entry.text.value = ''
    press('-')
    vi.advanceTimersByTime(60)
    expect(entry.notSeen.value).toBe(true)
  })

  it('records what was done as advised, comes back, and takes it back as one', async () => {
    const {
      entry,
      state: { places },
      press,
    } = await hand(check('washers', {}), check('contact', { values: ['a', 'b', 'c'] }))
    const place = {
      check: 'contact',
      position: '2',
      state: 'seen',
      raw: ['29', '29', '29'],
      ask: '',
      advice: { rows: [], done: 'Moved', then: [{ check: 'washers', position: '2', raw: ['0', '3'] }] },
    } as unknown as Place
    places.set(at('contact', '2'), place)
    places.set(at('washers', '2'), {
      check: 'washers',
      position: '2',
      state: 'seen',
      raw: ['1', '2'],
      feeler: '',
      units: 'mm',
      reason: '',
      note: '',
      ask: '',
    } as unknown as Place)
    entry.followed(place)
    expect(sent[0]).toMatchObject({ check: 'washers', position: '2', raw: ['0', '3'], state: 'seen' })
    expect([entry.check.value.key, entry.position.value]).toEqual(['contact', '2'])
    entry.undo()
    expect(sent[1]).toMatchObject({ check: 'washers', position: '2', raw: ['1', '2'] })
    expect(sent[1]!.uuid).not.toBe(sent[0]!.uuid)
    press('Escape')
  })

  it('says that something does not apply, with one key', async () => {
    const { press } = await hand(check('disc', {}))
    press('*')
    expect(sent[0]).toMatchObject({ state: 'does-not-apply', raw: [] })
  })

  it('asks before it says so of a place where a reading stands', async () => {
    const { entry, state, press } = await hand(check('disc', {}))
    state.places.set(at('disc', '1'), {
      check: 'disc',
      position: '1',
      state: 'seen',
      raw: ['391'],
      shown: '391 mm',
      ask: '',
    } as unknown as Place)
    press('*')
    expect([sent.length, entry.hint.value]).toEqual([0, '391 mm stands here. * again: it does not apply here.'])
    press('ArrowRight', 'ArrowLeft', '*')
    expect(sent.length).toBe(0)
    press('*')
    expect(sent[0]).toMatchObject({ state: 'does-not-apply', position: '1' })
  })

  it('keeps a note that has no reading yet while looking elsewhere', async () => {
    const { entry } = await hand(check('disc', {}))
    entry.note.value = 'chipped'
    await nextTick()
    entry.select('disc', '2')
    expect(entry.note.value).toBe('')
    entry.select('disc', '1')
    expect(entry.note.value).toBe('chipped')
  })

  it('sends a note along with the next reading', async () => {
    const { entry, press } = await hand(check('disc', {}))
    entry.note.value = ' left edge chipped '
    press('9', 'Enter')
    expect(sent[0]!.note).toBe('left edge chipped')
    expect(entry.note.value).toBe('')
  })

  it('lays a pasted column over the places that follow, and records it only after a look', async () => {
    const { entry, press } = await hand(check('disc', {}))
    press('7', 'Enter')
    expect(entry.paste('388')).toBe(false)
    expect(entry.paste('388\r\n389,5\r\n390\r\n')).toBe(true)
    expect(sent).toHaveLength(1)
    expect(entry.pasted.value).toEqual({
      rows: [
        { position: '2', label: 'Row 2', raw: ['388'] },
        { position: '3', label: 'Row 3', raw: ['389,5'] },
      ],
      over: ['390'],
    })
    entry.fillPasted()
    expect(sent.slice(1).map((body) => [body.position, body.raw])).toEqual([
      ['2', ['388']],
      ['3', ['389,5']],
    ])
    entry.undo()
    expect(sent.slice(3).map((body) => [body.position, body.state])).toEqual([
      ['2', 'withdrawn'],
      ['3', 'withdrawn'],
    ])
  })

  it('takes several figures a place from the columns of a table, and leaves a place with none', async () => {
    const { entry } = await hand(check('contact', { values: ['a', 'b'] }))
    entry.paste('30\t31\n\t\n32\t33')
    entry.fillPasted()
    expect(sent.map((body) => [body.position, body.raw])).toEqual([
      ['1', ['30', '31']],
      ['3', ['32', '33']],
    ])
  })
})

/** Readings that waited go in one request, and each of them is answered, refused or kept by itself all the same. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Refused, type Changed, type NewReading } from './client'
import { makeOutbox, type Entry, type ReadingEntry } from './outbox'
import { eachWithItsOwn, goingTogether, type SendTogether } from './outboxTogether'

vi.mock('./blobs', () => ({ blobs: { put: vi.fn(), get: vi.fn(), remove: vi.fn() } }))

const CHANGED: Changed = { last: 0, places: [], gone: [], stations: [], parts: null }
const TOMAS = { id: 7, name: 'Tomas Vey' }
const ABOUT = { what: 'Opener disc diameter' }
const kept = (): string[] => Object.keys(localStorage).filter((key) => key.startsWith('lumvek:outbox:'))
const reading = (uuid: string, position = uuid): NewReading =>
  ({ uuid, check: 'opener-disc-diameter', position, raw: ['390'] }) as NewReading
const waits = (uuid: string, position = uuid, walk = 'w', path = '/api/walk-arounds/{walk_around_id}/readings'): Entry =>
  ({ uuid, path, params: { walk_around_id: walk }, body: reading(uuid, position) }) as never
const names = (entries: Entry[]): string => entries.map((entry) => entry.uuid).join('')

describe('what goes together', () => {
  it('is all that was typed at one machine', () =>
    expect(names(goingTogether([waits('a'), waits('b'), waits('c')], new Set()))).toBe('abc'))
  it('is no more than the server takes at once', () =>
    expect(
      goingTogether(
        [...Array(99).keys()].map((n) => waits(`${n}`)),
        new Set(),
      ),
    ).toHaveLength(40))
  it('ends where a place comes again', () =>
    expect(names(goingTogether([waits('a', '1L'), waits('b', '1R'), waits('c', '1L')], new Set()))).toBe('ab'))
  it('ends at another machine', () =>
    expect(names(goingTogether([waits('a'), waits('b'), waits('c', 'c', 'other')], new Set()))).toBe('ab'))
  it('ends at a lock that was confirmed in between', () => {
    const lock = waits('x', 'x', 'w', '/api/walk-arounds/{walk_around_id}/postures')
    expect(names(goingTogether([waits('a'), lock, waits('b')], new Set()))).toBe('a')
    expect(goingTogether([lock, waits('b')], new Set())).toEqual([])
  })
  it('ends at one that is to go by itself', () =>
    expect(names(goingTogether([waits('a'), waits('b'), waits('c')], new Set(['b'])))).toBe('a'))
})

it('gives each its own place of what changed, and the last that was taken all of it', () => {
  const place = (position: string) => ({ check: 'opener-disc-diameter', position }) as never
  const changed = { ...CHANGED, places: [place('a'), place('b'), place('c')], parts: [] } as Changed
  const no = new Refused(422, 'no', 'raw.0', true)
  const said = eachWithItsOwn([waits('a'), waits('b'), waits('c')] as ReadingEntry[], changed, new Map([['c', no]]))
  expect(said).toEqual([{ ...CHANGED, places: [place('a')] }, changed, no])
})

describe('outbox that sends together', () => {
  let away = true
  const one = vi.fn(async (): Promise<unknown> => CHANGED)
  const together = vi.fn<SendTogether>(async (entries) => {
    if (away) throw new Refused(0, 'No connection to the server.')
    return entries.map(() => CHANGED)
  })
  function boxWith(...uuids: string[]) {
    const box = makeOutbox(one, localStorage, null, together)
    box.as(TOMAS)
    for (const uuid of uuids) box.put('w', reading(uuid), ABOUT)
    return box
  }
  const asked = (): string[] => together.mock.calls.map(([entries]) => names(entries))

  beforeEach(() => {
    localStorage.clear()
    vi.useFakeTimers()
    away = true
    one.mockReset().mockImplementation(async () => {
      if (away) throw new Refused(0, 'No connection to the server.')
      return CHANGED
    })
    together.mockClear()
  })
  afterEach(() => {
    vi.useRealTimers()
  })

  it('keeps all while nobody answers, and forgets each when it was answered', async () => {
    const box = boxWith('a', 'b', 'c')
    const answered: string[] = []
    box.on({ answered: (entry) => answered.push(entry.uuid) })
    await vi.advanceTimersByTimeAsync(100)
    expect([box.box.state, kept().length]).toEqual(['away', 3])
    away = false
    await vi.advanceTimersByTimeAsync(10_000)
    expect([box.box.state, kept().length, answered.join('')]).toEqual(['idle', 0, 'abc'])
    expect(asked().at(-1)).toBe('abc')
  })

  it('keeps the one that was refused, with its reason, and takes the others', async () => {
    away = false
    together.mockImplementationOnce(async (entries) =>
      entries.map((entry) => (entry.uuid === 'c' ? new Refused(422, 'too long', 'raw.0', true) : CHANGED)),
    )
    const box = boxWith('a', 'b', 'c', 'd')
    await vi.runAllTimersAsync()
    expect(box.refused.value).toMatchObject([{ uuid: 'c', refused: { status: 422, message: 'too long', field: 'raw.0' } }])
    expect(kept()).toEqual(['lumvek:outbox:c'])
  })

  it.each([422, 500, 413])('sends each by itself where all of them together get a %i', async (status) => {
    away = false
    together.mockImplementationOnce(async () => {
      throw new Refused(status, 'no', '', true)
    })
    boxWith('a', 'b', 'c')
    await vi.runAllTimersAsync()
    expect(kept()).toEqual([])
    expect(one.mock.calls.length).toBeGreaterThanOrEqual(3)
  })

  it('asks for a log-in, and then goes on with all of them', async () => {
    away = false
    together.mockRejectedValueOnce(new Refused(401, 'Log in first.', '', true))
    const box = boxWith('a', 'b')
    await vi.runAllTimersAsync()
    expect([box.box.state, kept().length]).toEqual(['signed-out', 2])
    box.as(TOMAS)
    await vi.runAllTimersAsync()
    expect(kept()).toEqual([])
  })

  it('sends what is typed while an answer is awaited after it, in order', async () => {
    away = false
    const box = boxWith('a')
    box.put('w', reading('b'), ABOUT)
    box.hold('w', { uuid: 'lock', posture: 'folded' } as never, ABOUT)
    box.put('w', reading('c'), ABOUT)
    box.put('w', reading('d'), ABOUT)
    await vi.runAllTimersAsync()
    expect(asked().at(-1)).toBe('cd')
    expect(kept()).toEqual([])
  })
})

import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Refused, type Changed, type NewReading } from './client'
import { makeOutbox, type Sending } from './outbox'

const CHANGED: Changed = { last: 0, places: [], gone: [], stations: [], parts: null }
const reading = (uuid: string, raw = '390'): NewReading => ({ uuid, check: 'opener-disc-diameter', position: '1L', raw: [raw] }) as NewReading
const ours = (status: number) => new Refused(status, 'no', 'raw.0', true)
const kept = () => Object.keys(localStorage).filter((key) => key.startsWith('lumvek:outbox:'))

describe('outbox', () => {
  beforeEach(() => {
    localStorage.clear()
    vi.useFakeTimers()
  })

  it('writes a reading down before it is sent, and forgets it only after the answer', async () => {
    let answered: (changed: Changed) => void = () => undefined
    const box = makeOutbox(() => new Promise((resolve) => (answered = resolve)))
    box.put('w', reading('a'))
    expect(kept()).toHaveLength(1)
    answered(CHANGED)
    await vi.runAllTimersAsync()
    expect(kept()).toHaveLength(0)
    expect(box.box.state).toBe('idle')
  })

  it('sends in the order of typing, one at a time', async () => {
    const sent: string[] = []
    const box = makeOutbox(async (item: Sending) => (sent.push(item.body.uuid), CHANGED))
    for (const uuid of ['a', 'b', 'c']) box.put('w', reading(uuid))
    await vi.runAllTimersAsync()
    expect(sent).toEqual(['a', 'b', 'c'])
  })

  it('keeps what cannot be sent, says so, and tries again until it can', async () => {
    let away = true
    const send = vi.fn(async () => {
      if (away) throw new Refused(0, 'no connection')
      return CHANGED
    })
    const box = makeOutbox(send)
    box.put('w', reading('a'))
    box.put('w', reading('b'))
    await vi.advanceTimersByTimeAsync(10)
    expect(box.box.state).toBe('away')
    expect(kept()).toHaveLength(2)
    away = false
    await vi.advanceTimersByTimeAsync(60_000)
    expect(kept()).toHaveLength(0)
    expect(send).toHaveBeenCalledTimes(3)
  })

  it('finds after a reload what an earlier page left, oldest first', async () => {
    const never = makeOutbox(() => new Promise(() => undefined))
    never.put('w', reading('a'))
    vi.advanceTimersByTime(5)
    never.put('w', reading('b'))
    const sent: string[] = []
    const after = makeOutbox(async (item) => (sent.push(item.body.uuid), CHANGED))
    expect(after.of('w').map((item) => item.body.uuid)).toEqual(['a', 'b'])
    expect(after.of('other')).toEqual([])
    await after.flush()
    expect(sent).toEqual(['a', 'b'])
  })

  it('hands a refused reading back and goes on with the next', async () => {
    const refused = vi.fn()
    const recorded = vi.fn()
    const box = makeOutbox(async (item) => {
      if (item.body.uuid === 'a') throw ours(422)
      return CHANGED
    })
    box.listen({ held: vi.fn(), refused, recorded })
    box.put('w', reading('a', '14 8/5'))
    box.put('w', reading('b'))
    await vi.runAllTimersAsync()
    expect(refused.mock.calls[0]![0].body.raw).toEqual(['14 8/5'])
    expect(recorded).toHaveBeenCalledTimes(1)
    expect(kept()).toHaveLength(0)
  })

  it('waits for a new login and keeps everything', async () => {
    const box = makeOutbox(async () => {
      throw ours(401)
    })
    box.put('w', reading('a'))
    await vi.runAllTimersAsync()
    expect(box.box.state).toBe('signed-out')
    expect(kept()).toHaveLength(1)
  })

  it.each([502, 503, 429])('takes %i for a passing trouble', (status) => expect(ours(status).passing).toBe(true))
  it.each([409, 422, 403, 404])('takes our own %i for an answer', (status) => expect(ours(status).passing).toBe(false))
  it('takes what a proxy says for a passing trouble', () => expect(new Refused(404, 'not found').passing).toBe(true))

  it('leaves alone what it cannot read', () => {
    localStorage.setItem('lumvek:outbox:x', 'not json')
    expect(makeOutbox().box.waiting).toEqual([])
    expect(kept()).toHaveLength(1)
  })
})

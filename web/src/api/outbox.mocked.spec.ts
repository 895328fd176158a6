/** What was typed is kept until the server has answered for it or a person has dealt with it, and goes out under its own name only. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Refused, type Changed } from './client'
import { BEGIN, HOLDS, makeOutbox, type Entry } from './outbox'
import { ABOUT, boxOf, CHANGED, INES, kept, ours, reading, TOMAS } from './outbox.spec.helpers'
import { storageAlarm, StorageFull } from './storage'

vi.mock('./blobs', () => ({ blobs: { put: vi.fn(), get: vi.fn(), remove: vi.fn() } }))

describe('outbox', () => {
  beforeEach(() => {
    localStorage.clear()
    storageAlarm.full = false
    vi.useFakeTimers()
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.restoreAllMocks()
  })

  it('keeps what is refused after whoever posted it waits no longer', async () => {
    let refuse: (problem: Refused) => void = () => undefined
    const box = boxOf(() => new Promise((_, no) => (refuse = no)))
    const settled = vi.fn()
    const sent = box.post(HOLDS, { walk_around_id: 'w' }, { uuid: 'lock', posture: 'raised', at: 'then' }, ABOUT, () => true)
    sent.then(settled, settled)
    await vi.advanceTimersByTimeAsync(1)
    box.letGo('lock')
    refuse(ours(422))
    await vi.advanceTimersByTimeAsync(1)
    expect(settled).not.toHaveBeenCalled()
    expect([box.refused.value.map((entry) => entry.uuid), kept()]).toEqual([['lock'], ['lumvek:outbox:lock']])
  })

  it('takes what was typed in a walk-around that cannot begin into another one, locks aside, and sends it there', async () => {
    const sent: string[] = []
    const box = boxOf((entry) => {
      sent.push(`${entry.uuid} ${String(entry.params.walk_around_id)}`)
      return Promise.reject(ours(422))
    })
    const begin = box.add(BEGIN, { machine_id: 4 }, {} as never, { what: 'Winter walk-around begun' }, { uuid: 'w' })
    box.hold('w', { uuid: 'lock', posture: 'raised', at: 'then' }, { what: 'Locks confirmed' })
    box.put('w', reading('a'), ABOUT)
    box.put('other', reading('b'), ABOUT)
    await vi.advanceTimersByTimeAsync(1)
    expect([box.refused.value.map((entry) => entry.uuid), sent]).toEqual([
      ['w', 'b'],
      ['w undefined', 'b other'],
    ])
    expect(box.typedIn(begin).map((entry) => entry.uuid)).toEqual(['lock', 'a'])
    box.instead(begin, 'under way')
    await vi.advanceTimersByTimeAsync(1)
    expect(sent.slice(2)).toEqual(['a under way'])
    expect(kept().sort()).toEqual(['lumvek:outbox:a', 'lumvek:outbox:b'])
    const stored = JSON.parse(localStorage.getItem('lumvek:outbox:a')!) as Entry
    expect(stored.params.walk_around_id).toBe('under way')
  })

  it('writes a reading down before it is sent, and forgets it only after the answer', async () => {
    let answered: (changed: Changed) => void = () => undefined
    const box = boxOf(() => new Promise((resolve) => (answered = resolve)))
    box.put('w', reading('a'), ABOUT)
    expect(kept()).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(1)
    answered(CHANGED)
    await vi.runAllTimersAsync()
    expect(kept()).toHaveLength(0)
    expect(box.box.state).toBe('idle')
  })

  it('sends in the order of typing, one at a time, and pictures after everything else', async () => {
    const sent: string[] = []
    const box = boxOf(async (entry) => (sent.push(entry.uuid), CHANGED))
    box.put('w', reading('a'), ABOUT)
    box.add('/api/walk-arounds/{walk_around_id}/photos', { walk_around_id: 'w' }, {} as never, ABOUT, {
      uuid: 'picture',
      blob: true,
    })
    for (const uuid of ['b', 'c']) box.put('w', reading(uuid, '390', uuid), ABOUT)
    await vi.runAllTimersAsync()
    expect(sent).toEqual(['a', 'b', 'c', 'picture'])
  })

  it('keeps what cannot be sent, says so, and tries again until it can', async () => {
    let away = true
    const send = vi.fn(async () => {
      if (away) throw new Refused(0, 'no connection')
      return CHANGED
    })
    const box = boxOf(send)
    box.put('w', reading('a'), ABOUT)
    box.put('w', reading('b', '391', '2L'), ABOUT)
    await vi.advanceTimersByTimeAsync(10)
    expect(box.box.state).toBe('away')
    expect(kept()).toHaveLength(2)
    away = false
    await vi.advanceTimersByTimeAsync(60_000)
    expect(kept()).toHaveLength(0)
  })

  it('sends what was typed in a walk-around only when that has begun on the server, whatever becomes of it', async () => {
    const sent: string[] = []
    let begins: () => unknown = () => ({})
    const box = boxOf(async (entry) => {
      sent.push(entry.uuid)
      return entry.uuid === 'w' ? begins() : CHANGED
    })
    const begin = (): void =>
      void box.add('/api/machines/{machine_id}/walk-arounds', { machine_id: 4 }, { id: 'w' } as never, ABOUT, { uuid: 'w' })
    const refuse = (status: number) => () => {
      throw status === 500 ? new Refused(500, 'fault') : ours(status)
    }
    // The server stumbles: another walk-around's reading goes, its own wait.
    begins = refuse(500)
    begin()
    box.put('w', reading('a'), ABOUT)
    box.put('other', reading('b'), ABOUT)
    await vi.advanceTimersByTimeAsync(10)
    expect(sent).toEqual(['w', 'b'])
    expect([...box.begun.value]).toEqual([[4, 'w']])
    expect([box.begins('w'), box.begins('other')]).toEqual([true, false])
    // It will not begin it: they wait on, until somebody has dealt with that.
    begins = refuse(422)
    await vi.advanceTimersByTimeAsync(60_000)
    expect(sent).toEqual(['w', 'b', 'w'])
    expect(box.waiting.value.map((entry) => entry.uuid)).toEqual(['a'])
    begins = () => ({})
    box.retry('w')
    await vi.runAllTimersAsync()
    expect(sent).toEqual(['w', 'b', 'w', 'w', 'a'])
    expect(kept()).toHaveLength(0)
    expect(box.begun.value.size).toBe(0)
    // Dropped by a person: what waited for it hears from the server.
    begins = refuse(422)
    begin()
    box.put('w', reading('c'), ABOUT)
    await vi.advanceTimersByTimeAsync(10)
    box.drop('w')
    await vi.runAllTimersAsync()
    expect(sent.slice(-2)).toEqual(['w', 'c'])
  })

  it('does not let one that the server stumbles over stop all the others', async () => {
    const box = boxOf(async (entry) => {
      if (entry.uuid === 'a') throw new Refused(500, 'fault')
      return CHANGED
    })
    box.put('w', reading('a'), ABOUT)
    box.put('w', reading('b', '391', '2L'), ABOUT)
    await vi.advanceTimersByTimeAsync(10)
    expect(box.waiting.value.map((entry) => entry.uuid)).toEqual(['a'])
  })

  it('finds after a reload what an earlier page left, oldest first', async () => {
    const never = boxOf(() => new Promise(() => undefined))
    never.put('w', reading('a'), ABOUT)
    never.put('w', reading('b', '391', '2L'), ABOUT)
    const sent: string[] = []
    const after = makeOutbox(async (entry) => (sent.push(entry.uuid), CHANGED))
    after.as(TOMAS)
    expect(after.of('w').map((entry) => entry.uuid)).toEqual(['a', 'b'])
    expect(after.of('other')).toEqual([])
    await vi.advanceTimersByTimeAsync(10)
    expect(sent).toEqual(['a', 'b'])
  })

  it('keeps what was refused, with the reason, over a reload, until a person has dealt with it', async () => {
    const send = async (entry: Entry): Promise<unknown> => {
      if (entry.uuid === 'a') throw ours(409)
      return CHANGED
    }
    const refused = vi.fn()
    const box = boxOf(send)
    box.on({ refused })
    box.put('w', reading('a', '14 8/5'), ABOUT)
    box.put('w', reading('b', '391', '2L'), ABOUT)
    await vi.runAllTimersAsync()
    expect(refused).toHaveBeenCalledTimes(1)
    expect(kept()).toHaveLength(1)
    const after = boxOf(send)
    await vi.runAllTimersAsync()
    expect(after.refused.value).toMatchObject([{ uuid: 'a', refused: { status: 409, message: 'no' }, about: ABOUT }])
    after.drop('a')
    expect(kept()).toHaveLength(0)
  })

  it('takes a figure typed again at the place of a refused one for the answer to it', async () => {
    const box = boxOf(async (entry) => {
      if (entry.uuid === 'a' || entry.uuid === 'elsewhere') throw ours(422)
      return CHANGED
    })
    box.put('w', reading('a', 'x'), ABOUT)
    box.put('w', reading('elsewhere', 'x', '2L'), ABOUT)
    await vi.runAllTimersAsync()
    box.put('w', reading('b', '390'), ABOUT)
    expect(box.refused.value.map((entry) => entry.uuid)).toEqual(['elsewhere'])
  })

  it('waits for a new login and keeps everything', async () => {
    let out = true
    const box = boxOf(async () => {
      if (out) throw ours(401)
      return CHANGED
    })
    box.put('w', reading('a'), ABOUT)
    await vi.runAllTimersAsync()
    expect(box.box.state).toBe('signed-out')
    expect(kept()).toHaveLength(1)
    out = false
    box.as(TOMAS)
    await vi.runAllTimersAsync()
    expect(kept()).toHaveLength(0)
  })

  it('sends for nobody but who typed it: a colleague who logs in sees that it waits, and cannot send it', async () => {
    const away = boxOf(async () => {
      throw new Refused(0, 'no connection')
    })
    away.put('w', reading('a'), ABOUT)
    const sent: Entry[] = []
    const later = makeOutbox(async (entry) => (sent.push(entry), CHANGED))
    later.as(INES)
    await vi.advanceTimersByTimeAsync(60_000)
    expect(sent).toEqual([])
    expect(later.waiting.value).toEqual([])
    expect(later.others.value.map((entry) => entry.name)).toEqual(['Tomas Vey'])
    later.as(TOMAS)
    await vi.advanceTimersByTimeAsync(10)
    expect(sent.map((entry) => [entry.uuid, entry.member])).toEqual([['a', 7]])
  })

  it('raises the alarm where the device is full, and keeps nothing half', () => {
    const send = vi.fn(async () => CHANGED)
    const box = boxOf(send)
    vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    expect(() => box.put('w', reading('a'), ABOUT)).toThrow(StorageFull)
    expect([storageAlarm.full, box.box.entries.length]).toEqual([true, 0])
    expect(send).not.toHaveBeenCalled()
    vi.restoreAllMocks()
    box.put('w', reading('b'), ABOUT)
    expect(storageAlarm.full).toBe(false)
  })

  it('gives a refusal to the form it was typed into while that is there, and keeps it once it is gone', async () => {
    const box = boxOf(async () => {
      throw ours(422)
    })
    let here = true
    const path = '/api/walk-arounds/{walk_around_id}/decisions' as const
    const body = (uuid: string) => ({ uuid, check: 'c', positions: ['1'], choice: 'wait', until: '', reason: '' }) as never
    const first = box
      .post(path, { walk_around_id: 'w' }, body('a'), { what: 'Wait' }, () => here)
      .catch((error: unknown) => error)
    await vi.runAllTimersAsync()
    expect(await first).toBeInstanceOf(Refused)
    expect(kept()).toHaveLength(0)
    void box.post(path, { walk_around_id: 'w' }, body('b'), { what: 'Wait' }, () => here)
    here = false
    await vi.runAllTimersAsync()
    expect(box.refused.value.map((entry) => entry.about.what)).toEqual(['Wait'])
  })

  it('answers in every tab, whichever of them has sent it', async () => {
    const tabs: { onmessage: ((event: MessageEvent) => void) | null; postMessage: (data: unknown) => void }[] = []
    const tab = () => {
      const made = {
        onmessage: null,
        postMessage: (data: unknown) => {
          for (const other of tabs) if (other !== made) other.onmessage?.({ data } as MessageEvent)
        },
      } as (typeof tabs)[number]
      tabs.push(made)
      return made
    }
    const sent: string[] = []
    let away = true
    const typedIn = boxOf(
      async () => {
        throw new Refused(0, 'this tab sleeps')
      },
      TOMAS,
      tab(),
    )
    const other = boxOf(
      async (entry) => {
        if (away) throw new Refused(0, 'no connection')
        return (sent.push(entry.uuid), CHANGED)
      },
      TOMAS,
      tab(),
    )
    const answered = vi.fn()
    typedIn.on({ answered })
    typedIn.put('w', reading('a'), ABOUT)
    other.look()
    away = false
    void other.flush()
    await vi.advanceTimersByTimeAsync(10)
    expect(sent).toEqual(['a'])
    expect(answered).toHaveBeenCalledTimes(1)
    expect(typedIn.box.entries).toEqual([])
  })

  it('keeps what an earlier version wrote down without a name until somebody says it is theirs', async () => {
    localStorage.setItem('lumvek:outbox:old', JSON.stringify({ walkAround: 'w', order: 1, body: reading('old') }))
    const sent: Entry[] = []
    const box = boxOf(async (entry) => (sent.push(entry), CHANGED))
    await vi.runAllTimersAsync()
    expect(sent).toEqual([])
    expect(box.others.value).toMatchObject([{ uuid: 'old', name: '', about: { shown: '390' } }])
    box.retry('old')
    await vi.runAllTimersAsync()
    expect(sent.map((entry) => entry.member)).toEqual([7])
  })

  it.each([502, 503, 429])('takes %i for a passing trouble', (status) => expect(ours(status).passing).toBe(true))
  it.each([409, 422, 403, 404])('takes our own %i for an answer', (status) => expect(ours(status).passing).toBe(false))
  it('takes what a proxy says for a passing trouble', () => expect(new Refused(404, 'not found').passing).toBe(true))

  it('leaves alone what it cannot read', () => {
    localStorage.setItem('lumvek:outbox:x', 'not json')
    expect(makeOutbox().box.entries).toEqual([])
    expect(kept()).toHaveLength(1)
  })
})

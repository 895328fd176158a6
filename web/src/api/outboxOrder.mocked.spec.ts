/** What goes before what: by the order of typing, a note before its pictures; and what a device without room makes of a refusal. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { blobs } from './blobs'
import { Refused } from './client'
import { ABOUT, boxOf, CHANGED, kept, ours, reading } from './outbox.spec.helpers'
import { storageAlarm } from './storage'

vi.mock('./blobs', () => ({ blobs: { put: vi.fn(), get: vi.fn(), remove: vi.fn() } }))

describe('the order of the outbox', () => {
  beforeEach(() => {
    localStorage.clear()
    storageAlarm.full = false
    vi.useFakeTimers()
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.restoreAllMocks()
  })

  it('keeps the order of typing where the clock was set back, also over a reload', async () => {
    vi.setSystemTime(Date.parse('2026-03-05T10:00:00Z'))
    boxOf(() => Promise.reject(new Refused(0, 'No connection'))).put('w', reading('first', '391'), ABOUT)
    vi.setSystemTime(Date.parse('2026-03-04T10:00:00Z'))
    const sent: string[] = []
    const box = boxOf((entry) => (sent.push(entry.uuid), Promise.resolve(CHANGED)))
    box.put('w', reading('second', '388'), ABOUT)
    await vi.runAllTimersAsync()
    expect(sent).toEqual(['first', 'second'])
  })

  it('sends the pictures of a note once the server has the note, and drops them with it', async () => {
    const NOTES = '/api/machines/{machine_id}/notes'
    const sent: string[] = []
    let taken = false
    const box = boxOf((entry) => {
      sent.push(entry.uuid)
      return taken || entry.path !== NOTES ? Promise.resolve([]) : Promise.reject(ours(422))
    })
    const note = { uuid: 'note', text: 'rattles', station: '' }
    box.add(NOTES, { machine_id: 4 }, note, ABOUT)
    const params = { machine_id: 4, note_id: 'note' }
    box.add(`${NOTES}/{note_id}/photos`, params, {} as never, ABOUT, { uuid: 'picture', blob: true, after: 'note' })
    await vi.advanceTimersByTimeAsync(1)
    expect([sent, box.refused.value.map((entry) => entry.uuid), kept().length]).toEqual([['note'], ['note'], 2])
    taken = true
    box.retry('note')
    await vi.advanceTimersByTimeAsync(1)
    expect([sent, kept()]).toEqual([['note', 'note', 'picture'], []])
    taken = false
    box.add(NOTES, { machine_id: 4 }, note, ABOUT)
    box.add(`${NOTES}/{note_id}/photos`, params, {} as never, ABOUT, { uuid: 'picture', blob: true, after: 'note' })
    await vi.advanceTimersByTimeAsync(1)
    box.drop('note')
    await vi.advanceTimersByTimeAsync(1)
    expect([sent.length, kept()]).toEqual([4, []])
  })

  it('gives the pictures back to the form with the note that was refused there', async () => {
    const NOTES = '/api/machines/{machine_id}/notes'
    const sent: string[] = []
    const box = boxOf((entry) => (sent.push(entry.uuid), Promise.reject(ours(422))))
    const note = { uuid: 'note', text: 'rattles', station: '' }
    vi.mocked(blobs.remove).mockClear()
    const posted = box.post(NOTES, { machine_id: 4 }, note, ABOUT, () => true).catch((problem: Refused) => problem.status)
    const params = { machine_id: 4, note_id: 'note' }
    box.add(`${NOTES}/{note_id}/photos`, params, {} as never, ABOUT, { uuid: 'picture', blob: true, after: 'note' })
    await vi.advanceTimersByTimeAsync(1)
    expect([await posted, sent, kept()]).toEqual([422, ['note'], []])
    expect(blobs.remove).not.toHaveBeenCalled()
  })

  it('says so where there is no room to write down why it was refused, and goes on', async () => {
    const box = boxOf((entry) => (entry.uuid === 'a' ? Promise.reject(ours(422)) : Promise.resolve(CHANGED)))
    box.put('w', reading('a'), ABOUT)
    box.put('w', reading('b', '388', '1R'), ABOUT)
    vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    await vi.advanceTimersByTimeAsync(1)
    expect([box.refused.value.map((entry) => entry.uuid), box.box.state, storageAlarm.full]).toEqual([['a'], 'idle', true])
  })
})

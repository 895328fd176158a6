import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { storageAlarm } from '@/api/storage'
import { useDraft } from './useDraft'

const empty = () => ({ name: '', rows: 12 })
const begin = () => useDraft('lumvek:draft', empty, (draft) => !!draft.name)

describe('what is typed on a long form', () => {
  beforeEach(() => localStorage.clear())

  it('is there again for whoever comes back, with what was added to the form since', async () => {
    begin().draft.name = 'Dunmere 8'
    await nextTick()
    localStorage.setItem('lumvek:draft', JSON.stringify({ name: 'Dunmere 8' }))
    const again = begin()
    expect(again.draft).toEqual({ name: 'Dunmere 8', rows: 12 })
    expect(again.takenUp.value).toBe(true)
  })

  it('begins empty once it was sent, and where nothing worth keeping was typed', async () => {
    const first = begin()
    first.draft.rows = 6
    await nextTick()
    expect(begin().takenUp.value).toBe(false)
    first.draft.name = 'Dunmere 8'
    await nextTick()
    first.forget()
    await nextTick()
    expect(begin().draft).toEqual(empty())
  })

  it('keeps what was typed while the answer to what was sent was on its way', async () => {
    const first = begin()
    Object.assign(first.draft, { name: 'Dunmere 8', rows: 6 })
    const sent = { ...first.draft }
    first.draft.rows = 8
    await nextTick()
    first.forget(sent)
    await nextTick()
    expect(first.draft).toEqual({ ...empty(), rows: 8 })
    expect(begin().draft.rows).toBe(8)
  })

  it('is nobody’s to take up while the outbox keeps it, and stands there again after a refusal', async () => {
    const first = begin()
    first.draft.name = 'Dunmere 8'
    await nextTick()
    first.handedOver.value = true
    await nextTick()
    expect([begin().takenUp.value, first.draft.name]).toEqual([false, 'Dunmere 8'])
    first.handedOver.value = false
    await nextTick()
    expect(begin().draft.name).toBe('Dunmere 8')
  })

  it('alarms where the device has no room to keep it', async () => {
    const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    begin().draft.name = 'Dunmere 8'
    await nextTick()
    expect(storageAlarm.full).toBe(true)
    full.mockRestore()
    storageAlarm.full = false
  })

  it('does not stumble over what is no draft', () => {
    localStorage.setItem('lumvek:draft', '{')
    expect(begin().draft).toEqual(empty())
  })
})

/** What was confirmed of the machine's posture holds as long as one hears of it when the machine is moved. */
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, expect, it, vi } from 'vitest'
import { KEPT_AT } from '@/api/headers'
import { shown } from '@/api/kept'
import { useWalkAround } from './useWalkAround'

const waiting = vi.hoisted(() => ({ entries: [] as object[] }))
vi.mock('@/api/outbox', () => ({
  isHold: () => true,
  isReading: () => false,
  walkAroundOf: () => 'w',
  outbox: { begins: () => false, of: () => waiting.entries, refusedAt: () => [], on: () => () => undefined, hold: vi.fn() },
}))

const RAISED = { posture: 'raised', by: 'Ines Marrow', at: '2026-11-30T08:00:00Z' }
const POSTURES = ['raised', 'lowered'].map((name) => ({ name, off_machine: false }))
const DATA = {
  walk_around: { finished_at: 'then' },
  machine: { name: 'Dunmere 12' },
  places: [],
  checks: [],
  positions: [],
  postures: POSTURES,
  holds: [RAISED],
}

async function opened(): Promise<ReturnType<typeof useWalkAround>> {
  let state: ReturnType<typeof useWalkAround>
  mount({ template: '<i />', setup: () => void (state = useWalkAround('w', () => 'Tomas Vey', () => undefined)) }) // prettier-ignore
  await state!.load()
  await flushPromises()
  return state!
}

const inReach = () => vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(DATA))))
/** No server: what the device keeps is shown. */
function outOfReach(): void {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')))
  const headers = { [KEPT_AT]: new Date().toISOString() }
  vi.stubGlobal('caches', { match: () => Promise.resolve(new Response(JSON.stringify(DATA), { headers })) })
}

beforeEach(() => {
  shown.clear()
  waiting.entries = []
  inReach()
  return () => vi.unstubAllGlobals()
})

it('holds where the server says so', async () => {
  const { holds, doubted } = await opened()
  expect([holds.value, doubted.value]).toEqual([[RAISED], []])
})

it('holds no longer where a copy says so: it is asked for again, and who confirmed it is said', async () => {
  outOfReach()
  const { holds, doubted, confirm, load } = await opened()
  expect([holds.value, doubted.value]).toEqual([[], [RAISED]])
  confirm('raised', 'Tomas Vey')
  expect(holds.value.map((hold) => hold.by)).toEqual(['Tomas Vey'])
  inReach()
  await load()
  expect([holds.value, doubted.value]).toEqual([[RAISED], []])
})

it('holds where it was confirmed on this device since the copy was made', async () => {
  outOfReach()
  waiting.entries = [{ body: { posture: 'lowered', at: '2026-11-30T09:30:00Z' } }]
  const { holds } = await opened()
  expect(holds.value).toEqual([{ posture: 'lowered', by: 'Tomas Vey', at: '2026-11-30T09:30:00Z' }])
})

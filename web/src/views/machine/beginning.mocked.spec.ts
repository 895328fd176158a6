import { beforeEach, expect, it, vi } from 'vitest'
import { keptAnswer, remember } from '@/api/kept'
import { BEGIN, outbox } from '@/api/outbox'
import { beforehandOf, beginHere, type Start } from './beginning'

vi.mock('@/api/kept', () => ({ keptAnswer: vi.fn(), remember: vi.fn() }))
vi.mock('@/api/outbox', () => ({ BEGIN: 'begin', outbox: { add: vi.fn() } }))

const wanted = { id: 'w', phase: 'winter', crop: '', headers: [], people: [2], take_in: false } as unknown as Start
const machine = { id: 4, name: 'Dunmere 12' } as Parameters<typeof beginHere>[0]

beforeEach(() => vi.mocked(outbox.add).mockReset())

it.each([
  ['nothing chosen', {}, ''],
  ['what is usual', { phase: 'everything' }, ''],
  ['another round', { phase: 'winter' }, '?phase=winter'],
  ['headers in whatever order', { headers: [9, 3] }, '?headers=3&headers=9'],
  ['all of it', { phase: 'winter', crop: 'ear', headers: [3], take_in: true }, '?phase=winter&crop=ear&headers=3&take_in=true'],
])('is read under one address for one choice: %s', (_what, chosen, query) => {
  expect(beforehandOf(4, chosen as Partial<Start>, 'everything')).toBe(`/api/machines/4/beforehand${query}`)
})

it('shows what it would be under its own UUID, and sends that it has begun, and when', async () => {
  const whole = { walk_around: { id: 'x', phase: 'winter', started_at: 'then' }, checks: ['disc'] }
  vi.mocked(keptAnswer).mockResolvedValue({ walk_around: whole })
  expect(await beginHere(machine, wanted, '/address')).toBe(true)
  const [path, params, body, about, more] = vi.mocked(outbox.add).mock.calls[0]!
  expect([path, params, more]).toEqual([BEGIN, { machine_id: 4 }, { uuid: 'w' }])
  expect(about).toEqual({ what: 'Winter walk-around begun', machine: 'Dunmere 12' })
  const { at } = body as unknown as Start
  expect(body).toEqual({ ...wanted, at })
  const [address, copy] = vi.mocked(remember).mock.calls[0]!
  expect(address).toBe('/api/walk-arounds/w')
  expect(JSON.parse(copy)).toEqual({ walk_around: { id: 'w', phase: 'winter', started_at: at }, checks: ['disc'] })
})

it('begins nothing where it was never read what it would be', async () => {
  vi.mocked(keptAnswer).mockResolvedValue(undefined)
  expect(await beginHere(machine, wanted, '/address')).toBe(false)
  expect(outbox.add).not.toHaveBeenCalled()
})

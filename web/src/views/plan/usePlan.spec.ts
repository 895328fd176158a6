import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { outbox } from '@/api/outbox'
import type { Job } from './planned'
import { usePlan } from './usePlan'

type Answer = (request: Request) => Promise<Response>
const json = (body: unknown): Response => new Response(JSON.stringify(body), { status: 200 })
const PLAN = { uuid: 'the plan people work by', jobs: [], moved: [] }
const JOB = { key: 'weld', name: 'Weld the step' } as Job

beforeEach(() => outbox.as({ id: 1, name: 'Ada Quill' }))
afterEach(() => {
  outbox.as(null)
  vi.unstubAllGlobals()
})

/** The plan's screen with a server of one's own; what it does not answer is answered with the season as it is. */
async function opened(answers: Record<string, Answer> = {}) {
  const asked: string[] = []
  vi.stubGlobal('fetch', async (request: Request) => {
    const path = new URL(request.url).pathname.replace('/api/season', '')
    if (path === '/api/session') return json({ csrf: 'x', me: {} })
    if (request.method === 'POST') asked.push(path)
    if (answers[path]) return answers[path](request)
    if (path === '/plans') return request.method === 'POST' ? new Response('{"done":true}\n') : json([])
    return json(path.startsWith('/plans/') && !path.endsWith('/take') ? PLAN : { plan: PLAN, under_way: false, stale: [] })
  })
  const known: ReturnType<typeof usePlan>[] = []
  const screen = mount({ template: '<i />', setup: () => void known.push(usePlan()) }, { global: { plugins: [createPinia()] } })
  await flushPromises()
  return { ...known[0]!, asked, leave: () => screen.unmount() }
}
const made = (asked: string[]): number => asked.filter((path) => path === '/plans').length

it('says where earlier plans could not be read, and shows what can be', async () => {
  const { season, at, earlier, listing, leave } = await opened({
    '/plans': () => Promise.reject(new TypeError('Failed to fetch')),
  })
  expect([season.value?.plan?.uuid, at.problem, earlier.value]).toEqual([PLAN.uuid, '', []])
  expect(listing.problem).toBe('No connection to the server.')
  leave()
})

it('is busy from the moment a job is moved until a plan has it, also while the server has not heard of it', async () => {
  let heard: (answer: Response) => void
  const { move, busy, asked, leave } = await opened({ '/marks': () => new Promise((answered) => (heard = answered)) })
  const moving = move(JOB, '2026-12-07T08:00', ['Tomas Vey'])
  await vi.waitFor(() => expect(asked).toContain('/marks'))
  expect([busy.value, made(asked)]).toEqual([true, 0])
  heard!(json({ plan: PLAN, under_way: false, stale: [] }))
  await moving
  await vi.waitFor(() => expect(busy.value).toBe(false))
  expect(made(asked)).toBe(1)
  leave()
})

it('plans what was moved while another plan was looked at', async () => {
  let looked: (answer: Response) => void
  const { look, move, busy, asked, leave } = await opened({
    '/plans/another': () => new Promise((answered) => (looked = answered)),
  })
  void look('another')
  await move(JOB, '2026-12-07T08:00', ['Tomas Vey'])
  expect(made(asked)).toBe(0)
  looked!(json({ ...PLAN, uuid: 'another' }))
  await vi.waitFor(() => expect(made(asked)).toBe(1))
  await vi.waitFor(() => expect(busy.value).toBe(false))
  leave()
})

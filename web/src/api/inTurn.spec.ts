/** A file that somebody asked for waits in line, says where, and comes by itself. */
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { fetchInTurn, placeInLine } from './inTurn'

const wait = (place: number): Response =>
  new Response('{}', { status: 429, headers: { 'X-Lumvek-Place': String(place), 'Retry-After': '1' } })
let answers: Response[]
let bodies: string[]
const plan = (signal?: AbortSignal): Request =>
  new Request('http://x/api/supply/plans', { method: 'POST', body: '{"uuid": "u"}', signal })

beforeEach(() => {
  vi.useFakeTimers()
  bodies = []
  vi.stubGlobal('fetch', async (request: Request) => {
    bodies.push(await request.text())
    return answers.shift()!
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('asks again until it is its turn, with all of what it asked', async () => {
  answers = [wait(3), wait(1), new Response('done')]
  const asked = fetchInTurn(plan())
  await vi.advanceTimersByTimeAsync(1)
  expect(placeInLine.value).toBe(3)
  await vi.advanceTimersByTimeAsync(1000)
  expect(placeInLine.value).toBe(1)
  await vi.advanceTimersByTimeAsync(1000)
  expect(await (await asked).text()).toBe('done')
  expect([placeInLine.value, bodies]).toEqual([0, Array(3).fill('{"uuid": "u"}')])
})

it('goes out of the line when nobody wants it any more', async () => {
  answers = [wait(2), wait(2)]
  const ending = new AbortController()
  const asked = fetchInTurn(plan(ending.signal)).catch((error: Error) => error.name)
  await vi.advanceTimersByTimeAsync(1)
  ending.abort()
  await vi.advanceTimersByTimeAsync(1000)
  expect([await asked, placeInLine.value, bodies.length]).toEqual(['AbortError', 0, 1])
})

it('leaves every other refusal to whoever asked', async () => {
  answers = [new Response('{}', { status: 429, headers: { 'Retry-After': '30' } })]
  expect((await fetchInTurn(plan())).status).toBe(429)
})

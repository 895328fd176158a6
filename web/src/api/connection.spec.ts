import { nextTick } from 'vue'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { api } from './client'
import { connection, keepLooking } from './connection'

let answers: (number | 'lost')[] = []
let end: () => void
beforeEach(() => {
  vi.useFakeTimers()
  connection.lost = false
  answers = []
  vi.stubGlobal('fetch', () => {
    const next = answers.shift() ?? 200
    return next === 'lost'
      ? Promise.reject(new TypeError('Failed to fetch'))
      : Promise.resolve(new Response('{}', { status: next }))
  })
  end = keepLooking()
})
afterEach(() => {
  end()
  vi.unstubAllGlobals()
  vi.useRealTimers()
})
const ask = (): Promise<unknown> => api.GET('/api/session').catch(() => undefined)

it('is lost with any request that gets no answer, and found with any that does', async () => {
  answers = ['lost', 200, 403, 502, 404]
  const seen: boolean[] = []
  for (let i = 0; i < 5; i++) {
    await ask()
    seen.push(connection.lost)
  }
  expect(seen).toEqual([true, false, false, true, false])
})

it('is looked for while it is lost, and no longer', async () => {
  answers = ['lost', 'lost', 503, 200]
  await ask()
  await nextTick()
  await vi.advanceTimersByTimeAsync(20_000)
  expect([connection.lost, answers.length]).toEqual([true, 1])
  await vi.advanceTimersByTimeAsync(10_000)
  expect(connection.lost).toBe(false)
  answers = ['lost']
  await vi.advanceTimersByTimeAsync(60_000)
  expect(answers).toEqual(['lost'])
})

it('believes the device that says it is offline, and asks when it says it is not', async () => {
  window.dispatchEvent(new Event('offline'))
  expect(connection.lost).toBe(true)
  window.dispatchEvent(new Event('online'))
  await vi.advanceTimersByTimeAsync(0)
  expect(connection.lost).toBe(false)
})

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Refused, useCsrf } from '@/api/client'
import { time, workOut } from './plan'
import type { Step } from '@/api/steps'

/** A server that says its lines in the pieces given, however they are cut. */
function says(pieces: string[], status = 200): void {
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      for (const piece of pieces) controller.enqueue(new TextEncoder().encode(piece))
      controller.close()
    },
  })
  vi.stubGlobal(
    'fetch',
    vi.fn(() => Promise.resolve(new Response(body, { status }))),
  )
}

describe('working out a plan', () => {
  beforeEach(() => useCsrf('token'))
  afterEach(() => vi.unstubAllGlobals())

  it('tells each step, wherever the network cuts the lines', async () => {
    says([
      '{"what":"cheapest","steps":1,"of":3,"done":false}\n{"what":"sur',
      'est","steps":2,"of":3,"done":false}\n',
      '{"what":"","steps":1,"of":1,"done":true}\n',
    ])
    const steps: Step[] = []
    await workOut('u', [], (step) => steps.push(step))
    expect(steps.map((step) => step.what)).toEqual(['cheapest', 'surest'])
  })

  it('sends the token and what was set by hand', async () => {
    says(['{"done":true}\n'])
    await workOut('u', [{ line: 'D', supplier: 's', way: 'van', date: null }], () => undefined)
    const sent = vi.mocked(fetch).mock.calls[0]![0] as Request
    expect(sent.headers.get('X-CSRFToken')).toBe('token')
    expect(await sent.json()).toEqual({ uuid: 'u', pinned: [{ line: 'D', supplier: 's', way: 'van', date: null }] })
  })

  it('names the field that the plan stops at', async () => {
    says(['{"error":{"field":"pinned.0","message":"cannot be done"}}\n'])
    await expect(workOut('u', [], () => undefined)).rejects.toMatchObject({ field: 'pinned.0', message: 'cannot be done' })
  })

  it('says so when the connection breaks before the end', async () => {
    says(['{"what":"cheapest","steps":1,"of":3,"done":false}\n'])
    await expect(workOut('u', [], () => undefined)).rejects.toThrow('The connection broke')
  })

  it('passes on what the server refuses at once', async () => {
    says(['{"error":{"field":"lines","message":"there is nothing to order"}}'], 422)
    const refused = await workOut('u', [], () => undefined).catch((error: unknown) => error)
    expect(refused).toBeInstanceOf(Refused)
    expect(refused).toMatchObject({ status: 422, message: 'there is nothing to order', ours: true })
  })

  it('knows when there is no server', async () => {
    vi.stubGlobal(
      'fetch',
      vi.fn(() => Promise.reject(new TypeError('failed'))),
    )
    await expect(workOut('u', [], () => undefined)).rejects.toThrow('No connection')
  })
})

describe('days and times', () => {
  it('takes the time of a moment', () => {
    expect(time('2026-11-28T13:10')).toBe('13:10')
  })
})

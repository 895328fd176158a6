import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { afterEach, expect, it, vi } from 'vitest'
import { usePlan } from './usePlan'

afterEach(() => vi.unstubAllGlobals())

it('says where earlier plans could not be read, and shows what can be', async () => {
  vi.stubGlobal('fetch', (request: Request) =>
    request.url.endsWith('/plans')
      ? Promise.reject(new TypeError('Failed to fetch'))
      : Promise.resolve(new Response(JSON.stringify({ plan: null, under_way: false }), { status: 200 })),
  )
  const known: ReturnType<typeof usePlan>[] = []
  const screen = mount({ template: '<i />', setup: () => void known.push(usePlan()) }, { global: { plugins: [createPinia()] } })
  await flushPromises()
  const { season, at, earlier, listing } = known[0]!
  expect([season.value?.plan, at.problem, earlier.value]).toEqual([null, '', []])
  expect(listing.problem).toBe('No connection to the server.')
  screen.unmount()
})

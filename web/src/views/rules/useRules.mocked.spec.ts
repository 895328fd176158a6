import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { reactive } from 'vue'
import { useRules } from './useRules'

const route = reactive({ query: {} as Record<string, string> })
vi.mock('vue-router', () => ({ useRoute: () => route, useRouter: () => ({ replace: vi.fn() }) }))

const MODELS = [
  { id: 1, name: 'Dunmere 12', kind: 'Row-crop planter' },
  { id: 2, name: 'Corvane 90', kind: 'Air seeder' },
]
type Told = (answer: object, status?: number) => void
/** What the server was asked and has not answered yet, by address. */
const open: Record<string, Told[]> = {}
async function tell(path: string, answer: object, status = 200): Promise<void> {
  await flushPromises()
  open[path]!.shift()!(answer, status)
  await flushPromises()
}

let rules: ReturnType<typeof useRules>
beforeEach(async () => {
  route.query = {}
  for (const path of Object.keys(open)) delete open[path]
  vi.stubGlobal('fetch', (request: Request) => {
    const path = new URL(request.url).pathname.replace('/api/rules', '')
    if (request.url.endsWith('/api/session')) return Promise.resolve(new Response('{"csrf": "x", "me": {}}'))
    return new Promise<Response>((resolve) =>
      (open[path] ??= []).push((answer, status) => resolve(new Response(JSON.stringify(answer), { status }))),
    )
  })
  mount({ template: '<i />', setup: () => void (rules = useRules()) })
  await tell('', { models: MODELS })
})
afterEach(() => vi.unstubAllGlobals())

const model = (id: number, meters: number) => ({
  model: MODELS[id - 1],
  checks: [],
  counts: [{ thing: 'meter', name: 'Meter', count: meters, shipped: 4 }],
})

it('shows the model that was chosen last, whichever answer comes last', async () => {
  route.query = { model: '2' }
  await tell('/models/2', model(2, 4))
  await tell('/models/1', model(1, 12))
  expect(rules.model.value?.model.name).toBe('Corvane 90')
})

it('keeps a count that is refused where it was typed, beside another that is taken', async () => {
  await tell('/models/1', model(1, 12))
  rules.typeCount('meter', 'about 8' as unknown as number)
  void rules.setCount('meter')
  await flushPromises()
  rules.typeCount('blower', 2)
  void rules.setCount('blower')
  await tell('/models/1/counts', { error: { field: 'count', message: 'must be a whole number' } }, 422)
  await tell('/models/1/counts', model(1, 12))
  expect(rules.counting).toEqual({ meter: { count: 'about 8', problem: 'must be a whole number' } })
})

it('does not hold a refusal against what was typed since', async () => {
  await tell('/models/1', model(1, 12))
  rules.typeCount('meter', 0)
  void rules.setCount('meter')
  await flushPromises()
  rules.typeCount('meter', 8)
  await tell('/models/1/counts', { error: { field: 'count', message: 'must be more' } }, 422)
  expect(rules.counting).toEqual({ meter: { count: 8, problem: '' } })
})

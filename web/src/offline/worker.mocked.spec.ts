import { afterEach, beforeEach, expect, it, vi } from 'vitest'

type Asked = { request: Request; url: URL }
type Handler = (asked: Asked) => Promise<Response>
const laid = new Map<string, Response>()
const listed: { url: string; revision: string | null }[] = []
const routes: { matches?: (asked: Asked) => boolean; handler: Handler }[] = []
vi.mock('workbox-precaching', () => ({
  precache: (files: typeof listed) => listed.push(...files),
  matchPrecache: (request: Request | string) =>
    Promise.resolve(laid.get(typeof request === 'string' ? request : new URL(request.url).pathname)),
}))
vi.mock('workbox-routing', () => ({
  NavigationRoute: class {
    constructor(readonly handler: Handler) {}
  },
  registerRoute: (first: ((asked: Asked) => boolean) | { handler: Handler }, handler?: Handler) =>
    routes.push(handler ? { matches: first as (asked: Asked) => boolean, handler } : (first as { handler: Handler })),
}))

let network: () => Promise<Response>
const away = (): Promise<Response> => Promise.reject(new TypeError('Failed to fetch'))
const says =
  (text: string, status = 200) =>
  (): Promise<Response> =>
    Promise.resolve(new Response(text, { status }))
const asked = (path: string): Asked => {
  const url = new URL(path, location.origin)
  return { request: new Request(url), url }
}
const opened = async (path: string): Promise<string> => (await routes[1]!.handler(asked(path))).text()

beforeEach(async () => {
  for (const list of [listed, routes]) list.length = 0
  laid.clear()
  laid.set('/', new Response('the page laid here'))
  vi.stubGlobal('BUILT', { files: ['/static/assets/index-a1.js'], build: 'b1' })
  vi.stubGlobal('fetch', () => network())
  vi.resetModules()
  await import('./worker' as string)
})
afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

it('lays every file of the build, and its page anew with each build', () => {
  expect(listed).toEqual([
    { url: '/static/assets/index-a1.js', revision: null },
    { url: '/', revision: 'b1' },
  ])
})

it('gives files from the device, and asks for what is not there', async () => {
  const files = routes[0]!
  expect(files.matches!(asked('/static/assets/index-a1.js'))).toBe(true)
  expect(files.matches!(asked('/api/machines'))).toBe(false)
  expect(files.matches!(asked('https://elsewhere.invalid/static/a.js'))).toBe(false)
  laid.set('/static/assets/index-a1.js', new Response('laid'))
  network = says('asked for')
  expect(await (await files.handler(asked('/static/assets/index-a1.js'))).text()).toBe('laid')
  expect(await (await files.handler(asked('/static/assets/index-b2.js'))).text()).toBe('asked for')
})

it.each(['/', '/walk-arounds/w', '/people', '/plan.pdf'])(
  'opens %s from the server, and without one from the device',
  async (path) => {
    network = says('from the server')
    expect(await opened(path)).toBe('from the server')
    network = away
    expect(await opened(path)).toBe('the page laid here')
  },
)

it.each([
  ['/', 'the page laid here'],
  ['/walk-arounds/w/findings', 'the page laid here'],
  ['/machines/4', 'the page laid here'],
  ['/walk-arounds/w/report', 'between here and there'],
])('opens %s where somebody else answers for the server: %s', async (path, text) => {
  network = says('between here and there', 502)
  expect(await opened(path)).toBe(text)
})

it('waits for a report as long as it takes, and not long for a screen beside a machine', async () => {
  vi.useFakeTimers()
  network = () => new Promise((go) => setTimeout(go, 60_000, new Response('late')))
  const both = Promise.all([opened('/walk-arounds/w/report.pdf'), opened('/plan/mine')])
  await vi.advanceTimersByTimeAsync(60_000)
  expect(await both).toEqual(['late', 'the page laid here'])
})

it('waits for the server where nothing is laid here', async () => {
  laid.clear()
  network = says('from the server', 503)
  expect(await opened('/')).toBe('from the server')
})

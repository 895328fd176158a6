import { afterEach, beforeEach, expect, it, vi } from 'vitest'

/** The browser's store of answers, as far as it is asked. */
function fakeCaches() {
  const shelves = new Map<string, Map<string, Response>>()
  const found = (answer?: Response): Promise<Response | undefined> => Promise.resolve(answer?.clone())
  return {
    shelves,
    keys: () => Promise.resolve([...shelves.keys()]),
    delete: (name: string) => Promise.resolve(shelves.delete(name)),
    match: (url: string, { cacheName }: { cacheName?: string }) =>
      found(
        [...shelves]
          .filter(([name]) => !cacheName || name === cacheName)
          .find(([, shelf]) => shelf.has(url))?.[1]
          .get(url),
      ),
    open: (name: string) => {
      const shelf = shelves.get(name) ?? new Map<string, Response>()
      shelves.set(name, shelf)
      return Promise.resolve({
        put: (url: string, answer: Response) => {
          shelf.delete(url)
          shelf.set(url, answer)
          return Promise.resolve()
        },
        keys: () => Promise.resolve([...shelf.keys()].map((url) => ({ url: new URL(url, location.origin).href }))),
        delete: (one: string | { url: string }) =>
          Promise.resolve(shelf.delete(typeof one === 'string' ? one : new URL(one.url).pathname)),
      })
    },
  }
}

let caches: ReturnType<typeof fakeCaches>
let answers: Map<string, () => Promise<Response>>
let kept: typeof import('./kept')
let connection: typeof import('./connection').connection

const away = (): Promise<Response> => Promise.reject(new TypeError('Failed to fetch'))
const says =
  (body: string, status = 200) =>
  (): Promise<Response> =>
    Promise.resolve(new Response(body, { status }))
const ask = (url: string): Promise<Response> => kept.fetchOrKept(new Request(location.origin + url))
const read = async (url: string): Promise<string> => (await ask(url)).text()
const settled = (): Promise<void> => new Promise((go) => setTimeout(go))

/** As after opening the page anew: the same device, nothing in memory. */
async function open(member = 5): Promise<void> {
  vi.resetModules()
  kept = await import('./kept')
  connection = (await import('./connection')).connection
  await kept.keepOn(true)
  if (member) await kept.keepFor(member)
}

beforeEach(async () => {
  caches = fakeCaches()
  answers = new Map()
  vi.stubGlobal('caches', caches)
  vi.stubGlobal('fetch', (request: Request) => (answers.get(new URL(request.url).pathname) ?? away)())
  await open()
})
afterEach(() => vi.unstubAllGlobals())

it('gives what the server said last where it does not answer, with the moment it was so', async () => {
  answers.set('/api/machines', says('"the board"'))
  expect(await read('/api/machines')).toBe('"the board"')
  expect(kept.shown.size).toBe(0)
  await settled()
  for (const nobody of [away, says('', 502), says('', 503)]) {
    connection.lost = false
    answers.set('/api/machines', nobody)
    const answer = await ask('/api/machines')
    expect([await answer.text(), answer.status, kept.fromBefore(answer)]).toEqual(['"the board"', 200, true])
    expect(Date.parse(kept.shown.get('/api/machines')!)).toBeCloseTo(Date.now(), -4)
    expect(connection.lost).toBe(true)
  }
  answers.set('/api/machines', says('"another"'))
  expect(await read('/api/machines')).toBe('"another"')
  expect(kept.shown.size).toBe(0)
})

it('keeps another search for itself, and nothing of what is not wanted beside a machine', async () => {
  for (const path of ['/api/machines', '/api/people']) answers.set(path, says(`"${path}"`))
  for (const url of ['/api/machines?kind=planter', '/api/people']) await read(url)
  await settled()
  answers.clear()
  expect(await read('/api/machines?kind=planter')).toBe('"/api/machines"')
  await expect(ask('/api/machines')).rejects.toThrow('Failed to fetch')
  await expect(ask('/api/people')).rejects.toThrow('Failed to fetch')
})

it('does not wait long for an answer that it has, and as long as it takes for one that it has not', async () => {
  answers.set('/api/season', says('"early"'))
  await read('/api/season')
  await settled()
  vi.useFakeTimers()
  try {
    const slow = (): Promise<Response> => new Promise((go) => setTimeout(go, 60_000, new Response('"late"')))
    answers.set('/api/season', slow).set('/api/field/daily', slow)
    const both = Promise.all([read('/api/season'), read('/api/field/daily')])
    await vi.advanceTimersByTimeAsync(60_000)
    expect(await both).toEqual(['"early"', '"late"'])
  } finally {
    vi.useRealTimers()
  }
})

it('knows who worked here last, and shows what they read, when it is opened anew', async () => {
  await kept.remember(kept.SESSION, '"me"')
  await kept.remember('/api/machines', '"mine"')
  await open(0)
  expect(await read('/api/session')).toBe('"me"')
  await kept.keepFor(5)
  expect(kept.shown.has(kept.SESSION)).toBe(true)
  expect(await read('/api/machines')).toBe('"mine"')
})

it.each([
  ['somebody else logs in', () => kept.keepFor(6)],
  ['they read in other units', () => kept.keepFor(5, 'in')],
  ['they log out', () => kept.keepFor(0)],
  [
    'the server no longer knows them',
    async () => {
      answers.set('/api/season', says('{}', 401))
      await read('/api/season')
      answers.delete('/api/season')
      await settled()
    },
  ],
])('has nothing left of a member when %s', async (_what, happens) => {
  await kept.remember('/api/machines', '"mine"')
  await happens()
  expect(caches.shelves.size).toBe(0)
  await expect(ask('/api/machines')).rejects.toThrow('Failed to fetch')
})

it('leaves nothing of who logged out while it was being kept', async () => {
  const keeping = kept.remember('/api/machines', '"mine"')
  await kept.keepFor(0)
  await keeping
  expect(caches.shelves.size).toBe(0)
})

it.each([403, 404])('has no longer what the server answers with %s', async (status) => {
  await kept.remember('/api/season', '"plan"')
  answers.set('/api/season', says('{}', status))
  await read('/api/season')
  await settled()
  answers.clear()
  await expect(ask('/api/season')).rejects.toThrow('Failed to fetch')
})

it('keeps the newest hundred, and who works here', async () => {
  await kept.remember(kept.SESSION, '"me"')
  for (let i = 0; i < 105; i++) await kept.remember(`/api/walk-arounds/${i}`, `"${i}"`)
  expect(await read('/api/session')).toBe('"me"')
  await expect(ask('/api/walk-arounds/4')).rejects.toThrow('Failed to fetch')
  expect(await read('/api/walk-arounds/5')).toBe('"5"')
})

it('does not show what is older than a login lasts', async () => {
  await kept.remember('/api/machines', '"old"')
  vi.useFakeTimers({ toFake: ['Date'] })
  vi.setSystemTime(Date.now() + 15 * 24 * 60 * 60_000)
  await expect(ask('/api/machines')).rejects.toThrow('Failed to fetch')
  vi.useRealTimers()
})

it('keeps what was read before the product lay on the device, and nothing where it never does', async () => {
  for (const device of [true, false]) {
    vi.resetModules()
    kept = await import('./kept')
    await kept.keepFor(7)
    await kept.remember('/api/machines', '"early"')
    expect(caches.shelves.size).toBe(0)
    await kept.keepOn(device)
    await kept.remember('/api/season', '"later"')
    expect(caches.shelves.get('lumvek-answers-7-')?.size ?? 0).toBe(device ? 2 : 0)
    caches.shelves.clear()
  }
})

it('takes along what is not there yet or is old, while the way is good', async () => {
  const asked: string[] = []
  vi.stubGlobal('fetch', (url: string) => {
    asked.push(url)
    if (url === '/api/walk-arounds/3') return away()
    return Promise.resolve(new Response(`"${url}"`, { status: url === '/api/walk-arounds/0' ? 409 : 200 }))
  })
  await kept.remember('/api/walk-arounds/1', '"fresh"')
  const wanted = [1, 0, 2, 3, 4].map((id) => `/api/walk-arounds/${id}`)
  await Promise.all([kept.takeAlong(wanted), kept.takeAlong(wanted)]) // the board, asked for twice
  // The third is out of reach: what comes after it is not asked for.
  expect(asked.filter((url) => url !== '/api/walk-arounds/3')).toEqual(['/api/walk-arounds/0', '/api/walk-arounds/2'])
  expect(asked).toContain('/api/walk-arounds/3')
  expect(asked).not.toContain('/api/walk-arounds/4')
  expect([...caches.shelves.get('lumvek-answers-5-')!.keys()]).toEqual(['/api/walk-arounds/1', '/api/walk-arounds/2'])
  asked.length = 0
  connection.lost = true
  await kept.takeAlong(wanted)
  expect(asked).toEqual([])
  connection.lost = false
  vi.useFakeTimers({ toFake: ['Date'] })
  vi.setSystemTime(Date.now() + 2 * 60 * 60_000)
  await kept.takeAlong(['/api/walk-arounds/1'])
  vi.useRealTimers()
  expect(asked).toEqual(['/api/walk-arounds/1'])
})

/** A write belongs to the product's own page: it carries a token, and what is refused for want of one is not refused for what it says. */
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { api, useCsrf, write, type Refused } from './client'

const FORGED = { error: { field: 'token', message: 'This did not come from Lumvek’s own page.' } }
const session = vi.fn<() => Response>()
/** Answers to the writes, one after the other. */
let answers: Response[]
let tokens: (string | null)[]

const json = (body: object, status = 200): Response => new Response(JSON.stringify(body), { status })
const note = (): Promise<unknown> =>
  write(() =>
    api.POST('/api/machines/{machine_id}/notes', {
      params: { path: { machine_id: 4 } },
      body: { uuid: 'u', text: 'rattles', station: '' },
    }),
  )

beforeEach(() => {
  tokens = []
  session.mockReset()
  session.mockImplementation(() => json({ csrf: 'new', me: { id: 7 } }))
  vi.stubGlobal('fetch', (request: Request) => {
    if (request.method === 'GET') return Promise.resolve(session())
    tokens.push(request.headers.get('X-CSRFToken'))
    return Promise.resolve(answers.shift()!)
  })
  useCsrf('old')
})
afterEach(() => vi.unstubAllGlobals())

it('is sent once more with a new token where its own is no longer good: somebody logged in beside', async () => {
  answers = [json(FORGED, 403), json([])]
  expect(await note()).toEqual([])
  expect(tokens).toEqual(['old', 'new'])
})

it('is refused where it is refused with a new token too', async () => {
  answers = [json(FORGED, 403), json({ error: { message: 'A parts person cannot write notes.' } }, 403)]
  await expect(note()).rejects.toMatchObject({ status: 403, message: 'A parts person cannot write notes.' })
  expect(tokens).toEqual(['old', 'new'])
})

it('waits for the server where it only has a session that was kept, which brings no token', async () => {
  useCsrf('')
  session.mockImplementation(() => json({ csrf: '', me: { id: 7 } }))
  const refused = (await note().catch((error: unknown) => error)) as Refused
  expect([refused.status, refused.passing, tokens]).toEqual([0, true, []])
})

it('is not sent for somebody who is no longer signed in', async () => {
  useCsrf('')
  session.mockImplementation(() => json({ csrf: 'new', me: null }))
  await expect(note()).rejects.toMatchObject({ status: 401 })
  expect(tokens).toEqual([])
})

it('is not sent again where the role may not do it', async () => {
  answers = [json({ error: { field: '', message: 'A parts person cannot write notes.' } }, 403)]
  await expect(note()).rejects.toMatchObject({ status: 403 })
  expect([tokens, session.mock.calls.length]).toEqual([['old'], 0])
})

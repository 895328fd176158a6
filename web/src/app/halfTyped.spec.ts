import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api } from '@/api/client'
import { outbox } from '@/api/outbox'
import { storageAlarm } from '@/api/storage'
import { halfTyped, letGo, nameOf, watchTyping } from './halfTyped'

const PAGE = `<main id="main">
  <form aria-label="Supplier">
    <label><span class="called">Name <small>as on letters</small></span><input id="name" value="Bridge Street Parts" /></label>
    <label>Distance, km <input id="distance" /></label>
    <textarea id="closed" aria-label="Closed on"></textarea>
    <input id="working" type="checkbox" />
    <button type="submit">Save</button>
  </form>
  <form data-kept><input id="drafted" /></form>
  <form data-passing><input id="scanned" /></form>
  <article data-typed><input id="counter" aria-label="Counter of Heron 4" /><button type="button" id="fit">Fit</button><input id="file" type="file" /></article>
  <input id="search" />
</main>`
const field = (id: string): HTMLInputElement => document.getElementById(id) as HTMLInputElement
function hand(id: string, text: string): void {
  field(id).focus()
  field(id).value = text
  field(id).dispatchEvent(new Event('input', { bubbles: true }))
}
const names = (): string[] => halfTyped().map(nameOf)
function press(id: string): void {
  field(id).dispatchEvent(new MouseEvent('click', { bubbles: true }))
}
const submit = (): boolean =>
  document.querySelector('form')!.dispatchEvent(new SubmitEvent('submit', { bubbles: true, cancelable: true }))
async function server(status: number, method: 'GET' | 'POST' = 'POST'): Promise<void> {
  vi.stubGlobal('fetch', () => Promise.resolve(new Response('{}', { status })))
  await (method === 'GET' ? api.GET('/api/session') : api.POST('/api/session/logout'))
}

describe('what is typed into a form and not saved', () => {
  let end: () => void
  beforeEach(() => {
    document.body.innerHTML = PAGE
    end = watchTyping()
  })
  afterEach(() => {
    end()
    vi.unstubAllGlobals()
    document.body.innerHTML = ''
  })

  it('is named as it is called on the page', () => {
    hand('name', 'Bridge Street')
    hand('distance', '12')
    hand('closed', '2026-12-24')
    hand('counter', '2874')
    expect(names()).toEqual(['Name as on letters', 'Distance, km', 'Closed on', 'Counter of Heron 4'])
  })

  it('is not what was emptied, what stood there before, what a draft keeps, what a scanner left or what looks for something', () => {
    hand('name', '')
    hand('distance', '12')
    hand('distance', '')
    hand('drafted', '6.1')
    hand('scanned', 'D12-4001')
    hand('search', 'Heron')
    expect(names()).toEqual([])
    hand('name', 'Bridge Street')
    hand('name', 'Bridge Street Parts')
    expect(names()).toEqual([])
  })

  it('is not what the screen has written since', () => {
    hand('name', 'Bridge Street')
    field('name').value = 'Harrow Mail'
    expect(names()).toEqual([])
    field('distance').focus()
    field('name').focus()
    hand('name', 'Harrow Mail, Selby')
    expect(names()).toEqual(['Name as on letters'])
  })

  it('is saved once the server has taken it, and only what was sent', async () => {
    hand('distance', '12')
    hand('counter', '2874')
    submit()
    hand('distance', '125')
    await server(200)
    expect(names()).toEqual(['Distance, km', 'Counter of Heron 4'])
    hand('distance', '12')
    expect(names()).toEqual(['Counter of Heron 4'])
    press('fit')
    await server(200)
    expect(names()).toEqual([])
    hand('counter', '2875')
    field('file').dispatchEvent(new Event('change', { bubbles: true }))
    await server(200)
    expect(names()).toEqual([])
  })

  it('is not saved by a refusal, a lost connection or what is only read', async () => {
    hand('distance', 'far')
    submit()
    await server(200, 'GET')
    await server(422)
    await server(200)
    expect(names()).toEqual(['Distance, km'])
    submit()
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')))
    await expect(api.POST('/api/session/logout')).rejects.toThrow()
    await server(200)
    expect(names()).toEqual(['Distance, km'])
  })

  it('is safe while it waits on the device, and not once it was refused', async () => {
    outbox.as({ id: 1, name: 'Tomas Vey' })
    const answers: ((response: Response) => void)[] = []
    vi.stubGlobal('fetch', (request: Request) =>
      request.url.endsWith('/api/session')
        ? Promise.resolve(new Response('{"csrf": "x", "me": {}}'))
        : new Promise<Response>((resolve) => answers.push(resolve)),
    )
    hand('distance', '12')
    submit()
    const uuid = '00000000-0000-4000-8000-000000000001'
    const kept = outbox.post(
      '/api/machines/{machine_id}/notes',
      { machine_id: 1 },
      { uuid, text: 'rattles', station: '' },
      { what: 'Note' },
      () => true,
    )
    const refused = kept.catch(() => undefined)
    expect(names()).toEqual([])
    hand('distance', '125')
    expect(names()).toEqual(['Distance, km'])
    hand('distance', '12')
    await vi.waitFor(() => expect(answers).toHaveLength(1))
    answers[0]!(new Response('{"error": {"field": "text", "message": "is too long"}}', { status: 422 }))
    await refused
    expect(names()).toEqual(['Distance, km'])
    outbox.as(null)
  })

  it('is neither saved nor safe by what else is on its way', async () => {
    outbox.as({ id: 1, name: 'Tomas Vey' })
    const answers = new Map<string, (response: Response) => void>()
    vi.stubGlobal('fetch', (request: Request) =>
      request.url.endsWith('/api/session')
        ? Promise.resolve(new Response('{"csrf": "x", "me": {}}'))
        : new Promise<Response>((resolve) => answers.set(new URL(request.url).pathname, resolve)),
    )
    const note = { uuid: '00000000-0000-4000-8000-000000000002', text: 'rattles', station: '' }
    void outbox.post('/api/machines/{machine_id}/notes', { machine_id: 1 }, note, { what: 'Note' })
    await vi.waitFor(() => expect(answers.size).toBe(1))
    hand('distance', 'far')
    submit()
    const form = api.POST('/api/session/logout')
    await vi.waitFor(() => expect(answers.size).toBe(2))
    answers.get('/api/session/logout')!(new Response('{}', { status: 422 }))
    await form
    expect(names()).toEqual(['Distance, km'])
    submit()
    const again = api.POST('/api/session/logout')
    answers.get('/api/machines/1/notes')!(new Response('[]'))
    await vi.waitFor(() => expect(outbox.waiting.value).toEqual([]))
    expect(names()).toEqual(['Distance, km'])
    answers.get('/api/session/logout')!(new Response('{}'))
    await again
    expect(names()).toEqual([])
    outbox.as(null)
  })

  it('of a draft too is asked about where the device has no room to keep it', () => {
    hand('drafted', '6.1')
    storageAlarm.full = true
    expect(names()).toHaveLength(1)
    storageAlarm.full = false
    expect(names()).toEqual([])
  })

  it('is lost once somebody has said so', () => {
    hand('distance', '12')
    letGo(halfTyped())
    expect(names()).toEqual([])
  })

  it('keeps the window open for a question of the browser', () => {
    const close = (): boolean => window.dispatchEvent(new Event('beforeunload', { cancelable: true }))
    expect(close()).toBe(true)
    hand('distance', '12')
    expect(close()).toBe(false)
  })
})

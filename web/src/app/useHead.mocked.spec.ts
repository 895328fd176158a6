import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Refused } from '@/api/client'
import { useSession } from './session'
import { watchTyping } from './halfTyped'
import { useHead } from './useHead'

const push = vi.fn()
type To = { path: string; fullPath: string; query: Record<string, string>; params: Record<string, string> }
const told: {
  failed?: (error: Error, to: To) => void
  came?: (to: To, from: To) => void
  leaves?: (to: To, from: To) => boolean
} = {}
const at = (path: string, query = {}): To => ({ path, fullPath: path, query, params: {} })
vi.mock('vue-router', () => ({
  useRouter: () => ({
    push,
    onError: (failed: typeof told.failed) => (told.failed = failed),
    afterEach: (came: typeof told.came) => (told.came = came),
    beforeEach: (leaves: typeof told.leaves) => (told.leaves = leaves),
  }),
}))

let head: ReturnType<typeof useHead>
beforeEach(() => {
  setActivePinia(createPinia())
  push.mockReset()
  mount({ template: '<i />', setup: () => void (head = useHead()) })
})
const away = () => Promise.reject(new Refused(0, 'No connection to the server.'))

it('goes to the door once the login has ended', async () => {
  vi.spyOn(useSession(), 'signOut').mockResolvedValue()
  await head.leave()
  expect(push).toHaveBeenCalledWith({ name: 'sign-in' })
})

it('stays, and says that the login goes on, where the server does not answer', async () => {
  vi.spyOn(useSession(), 'signOut').mockImplementation(away)
  await head.leave()
  expect([push.mock.calls.length, head.at.problem]).toEqual([
    0,
    'The server does not answer: you are still logged in on this device.',
  ])
})

it('goes to the door where somebody else has logged in here meanwhile', async () => {
  vi.spyOn(useSession(), 'signOut').mockRejectedValue(new Refused(403, 'Log in again.', '', true))
  await head.leave()
  expect(push).toHaveBeenCalledOnce()
})

it('names a screen that could not be fetched until another one is there', () => {
  told.failed!(new Error('Failed to fetch dynamically imported module'), at('/catalogue?q=disc'))
  expect(head.missed.value).toBe('/catalogue?q=disc')
  told.came!(at('/catalogue'), at('/'))
  expect(head.missed.value).toBe('')
})

it('begins a control anew whose choice did not reach the server', async () => {
  const session = useSession()
  vi.spyOn(session, 'setUnits').mockImplementation(away)
  vi.spyOn(session, 'changeShop').mockImplementation(away)
  head.units.value = 'in'
  await flushPromises()
  await head.changeShop(7)
  expect([head.units.value, head.inVain.value, head.at.problem, push.mock.calls.length]).toEqual([
    'mm',
    2,
    'No connection to the server.',
    0,
  ])
})

describe('leaving what is typed and not saved', () => {
  let end: () => void
  beforeEach(() => {
    end = watchTyping()
    document.body.innerHTML = '<main id="main"><form><label>Name <input /></label><button>Save</button></form></main>'
    const name = document.querySelector('input')!
    name.focus()
    name.value = 'Bridge Street Parts'
    name.dispatchEvent(new Event('input', { bubbles: true }))
  })
  afterEach(() => {
    end()
    document.body.innerHTML = ''
  })

  it('waits for an answer before another screen, or another section of it, comes', () => {
    expect(told.leaves!(at('/plan'), at('/parts/suppliers'))).toBe(false)
    expect(head.unsaved.value).toEqual(['Name'])
    head.goOn()
    expect(push).toHaveBeenCalledWith(at('/plan'))
    expect(head.unsaved.value).toEqual([])
    expect(told.leaves!(at('/plan'), at('/parts/suppliers'))).toBe(true)
  })

  it('asks between the tabs of a screen, and not where only a filter of it changes', () => {
    expect(told.leaves!(at('/rules', { tab: 'schools' }), at('/rules'))).toBe(false)
    expect(told.leaves!(at('/rules', { q: 'disc' }), at('/rules'))).toBe(true)
  })

  it('leads back to it', () => {
    told.leaves!(at('/plan'), at('/parts/suppliers'))
    document.querySelector('input')!.blur()
    head.back()
    expect(document.activeElement).toBe(document.querySelector('input'))
    expect([head.unsaved.value, push.mock.calls.length]).toEqual([[], 0])
  })

  it('is asked before the units, the shop and the login change as well', async () => {
    const session = useSession()
    const done: string[] = []
    const does = (what: string) => () => {
      done.push(what)
      return Promise.resolve()
    }
    vi.spyOn(session, 'setUnits').mockImplementation(does('units'))
    vi.spyOn(session, 'changeShop').mockImplementation(does('shop'))
    vi.spyOn(session, 'signOut').mockImplementation(does('out'))
    head.units.value = 'in'
    await head.changeShop(7)
    expect(head.inVain.value).toBe(2)
    await head.leave()
    expect([done, head.unsaved.value]).toEqual([[], ['Name']])
    head.goOn()
    await flushPromises()
    expect([done, push.mock.calls]).toEqual([['out'], [[{ name: 'sign-in' }]]])
  })

  it('is no question any more once it was emptied', () => {
    told.leaves!(at('/plan'), at('/parts/suppliers'))
    const name = document.querySelector('input')!
    name.value = ''
    name.dispatchEvent(new Event('input', { bubbles: true }))
    expect(head.unsaved.value).toEqual([])
  })
})

import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { Refused } from '@/api/client'
import { useSession } from './session'
import { useHead } from './useHead'

const push = vi.fn()
const told: { failed?: (error: Error, to: { fullPath: string }) => void; came?: () => void } = {}
vi.mock('vue-router', () => ({
  useRouter: () => ({
    push,
    onError: (failed: typeof told.failed) => (told.failed = failed),
    afterEach: (came: typeof told.came) => (told.came = came),
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
  told.failed!(new Error('Failed to fetch dynamically imported module'), { fullPath: '/catalogue?q=disc' })
  expect(head.missed.value).toBe('/catalogue?q=disc')
  told.came!()
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

import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { afterEach, expect, it, vi } from 'vitest'
import { useSession } from '@/app/session'
import SecondFactor from './SecondFactor.vue'

const CODES = ['abcd2345', 'efgh6789']
const account = { username: 'tomas', name: 'Tomas', email: '', second_factor_wanted: false, codes_left: 10, devices: [] }
type Answer = [status: number, body: object] | 'lost'
/** What the server says to each address, in turn. */
function server(answers: Record<string, Answer[]>): string[] {
  const asked: string[] = []
  vi.stubGlobal('fetch', async (request: Request) => {
    const path = new URL(request.url).pathname.replace('/api/session', '')
    asked.push(`${path} ${request.method === 'POST' ? await request.text() : ''}`.trim())
    const next = answers[path]?.shift() ?? [200, { csrf: 'x', me: {} }]
    if (next === 'lost') throw new TypeError('Failed to fetch')
    return new Response(JSON.stringify(next[1]), { status: next[0], headers: { 'Content-Type': 'application/json' } })
  })
  return asked
}
const screen = (second_factor: boolean) =>
  mount(SecondFactor, {
    props: { account: { ...account, second_factor } },
    global: { plugins: [PrimeVue, createPinia()], directives: { focus: {} } },
  })
type Screen = ReturnType<typeof screen>
const press = async (on: Screen, label: string): Promise<void> => {
  const button = on.findAll('button').find((one) => one.text() === label)!
  await (button.attributes('type') === 'submit' ? on.find('form').trigger('submit') : button.trigger('click'))
  await flushPromises()
}

afterEach(() => vi.unstubAllGlobals())

it('leads to new codes where the answer that brought them was lost', async () => {
  const conflict = { error: { field: '', message: 'it is set up already' } }
  server({
    '/second-factor': [[200, { picture: 'data:,', letters: 'ABCD' }]],
    '/second-factor/confirm': ['lost', [409, conflict]],
    '/second-factor/codes': [[200, { codes: CODES }]],
  })
  const on = screen(false)
  const load = vi.spyOn(useSession(), 'load').mockResolvedValue()
  await press(on, 'Set it up')
  await on.find('input').setValue('123456')
  await press(on, 'Confirm')
  expect(on.find('[role=alert]').text()).toBe('No connection to the server.')
  expect(on.find('input').element.value).toBe('123456')
  await press(on, 'Confirm')
  expect(on.find('[role=alert]').text()).toBe('It is set up already')
  expect([on.emitted('changed')?.length, load.mock.calls.length]).toEqual([1, 1])
  await on.setProps({ account: { ...account, second_factor: true } })
  await press(on, 'New codes for once')
  await on.find('input').setValue('sallow-bridge')
  await press(on, 'Give me new codes')
  expect(on.findAll('li').map((one) => one.text())).toEqual(CODES)
})

it('keeps the password in its field where it is refused, and tells what it is asked for', async () => {
  const wrong = { error: { field: 'password', message: 'is not your password' } }
  const asked = server({ '/second-factor/codes': [[422, wrong]], '/second-factor/end': [[200, {}]] })
  const on = screen(true)
  await press(on, 'New codes for once')
  await on.find('input').setValue('sallow')
  await press(on, 'Give me new codes')
  expect([on.find('[role=alert]').text(), on.find('input').element.value]).toEqual(['Is not your password', 'sallow'])
  await press(on, 'Cancel')
  await press(on, 'End the second factor')
  expect([on.find('input').element.value, on.find('[role=alert]').exists()]).toEqual(['', false])
  await on.find('input').setValue('sallow-bridge')
  await press(on, 'End it')
  expect(asked.at(-1)).toBe('/second-factor/end {"password":"sallow-bridge"}')
  expect(on.emitted('changed')).toHaveLength(1)
})

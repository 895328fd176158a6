import { mount } from '@vue/test-utils'
import { reactive, type Ref } from 'vue'
import { beforeEach, expect, it, vi } from 'vitest'
import { Refused } from './client'
import { answeredOrKept, useOnItsWay } from './useOnItsWay'

type Entry = { path: string; params: { machine_id: number }; body: { keys: string[] } }
const box = reactive({ state: 'idle', waiting: [] as Entry[], refused: [] as Entry[] })
let answered: (entry: Entry, answer: unknown) => void
const deaf = vi.fn()
const letGo = vi.fn()
vi.mock('./outbox', () => ({
  outbox: {
    get box() {
      return box
    },
    waiting: {
      get value() {
        return box.waiting
      },
    },
    refused: {
      get value() {
        return box.refused
      },
    },
    letGo: (uuid: string) => letGo(uuid),
    on: (heard: { answered: typeof answered }) => ((answered = heard.answered), deaf),
  },
}))

const TICKS = '/api/field/machines/{machine_id}/daily'
const tick = (key: string, machine = 4, path = TICKS): Entry => ({
  path,
  params: { machine_id: machine },
  body: { keys: [key] },
})
const no = new Refused(422, 'say what is wrong', 'words', true)
const settled = (): Promise<void> => new Promise((go) => setTimeout(go))

beforeEach(() => {
  Object.assign(box, { state: 'idle', waiting: [], refused: [] })
  letGo.mockReset()
})

it('shows what waits of one kind for one machine, where the server is out of reach, and tells each answer', () => {
  const heard = vi.fn()
  let waiting!: Ref<unknown[]>
  let notTaken!: Ref<unknown[]>
  const screen = mount({
    template: '<i />',
    setup: () => void ({ waiting, notTaken } = useOnItsWay(TICKS, heard, (entry) => entry.params.machine_id === 4)),
  })
  box.waiting = [tick('oil'), tick('chain', 5), tick('oil', 4, '/api/season/marks'), tick('knife')]
  expect(waiting.value).toEqual([]) // an answer is about to come
  box.state = 'away'
  expect(waiting.value).toEqual([{ keys: ['oil'] }, { keys: ['knife'] }])
  box.state = 'signed-out'
  expect(waiting.value).toHaveLength(2)
  box.refused = [tick('oil', 5), tick('oil')]
  expect(notTaken.value).toEqual([tick('oil')])
  for (const entry of box.waiting) answered(entry, 'card')
  expect(heard.mock.calls).toEqual([
    ['card', { keys: ['oil'] }],
    ['card', { keys: ['knife'] }],
  ])
  screen.unmount()
  expect(deaf).toHaveBeenCalledOnce()
})

it('waits for the answer while the server is in reach', async () => {
  let answer!: (said: string) => void
  let done = false
  const waits = answeredOrKept('u', new Promise<string>((go) => (answer = go))).then(() => (done = true))
  await settled()
  expect(done).toBe(false)
  answer('card')
  await waits
  expect([done, letGo.mock.calls]).toEqual([true, []])
})

it('is refused where it was typed, as long as that waits for it', async () => {
  await expect(answeredOrKept('u', Promise.reject(no))).rejects.toBe(no)
  expect(letGo).not.toHaveBeenCalled()
})

it.each(['away', 'signed-out'])('lets go of what waits here, at once or as soon as it is known: %s', async (state) => {
  for (const known of [true, false]) {
    box.state = known ? state : 'sending'
    const waits = answeredOrKept(known ? 'a' : 'b', new Promise(() => undefined))
    box.state = state
    await waits
  }
  expect(letGo.mock.calls).toEqual([['a'], ['b']])
})

import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent } from 'vue'
import { api, Refused } from '@/api/client'
import { useWear, type Wearing } from './useWear'

vi.mock('@/api/client', async (original) => {
  const whole = await original<typeof import('@/api/client')>()
  return { ...whole, write: (call: () => Promise<unknown>) => call(), answer: (call: Promise<unknown>) => call }
})

const check = (key: string) => ({ check: key, name: key, places: [] })
const ahead = (more = 0, tips: unknown[] = []) => ({
  machine: 'Dunmere 12',
  checks: [check('discs'), check('guards')],
  more,
  tips,
  next_use: { use: 240, counter: 2860 },
})
let asked: { path: string; more?: number; check?: string }[]
let slow: ((answer: unknown) => void)[]

beforeEach(() => {
  vi.useFakeTimers()
  ;[asked, slow] = [[], []]
  vi.spyOn(api, 'GET').mockImplementation(((
    path: string,
    { params }: { params: { path: { check?: string }; query?: { more: number } } },
  ) => {
    const more = params.query?.more
    asked.push({
      path: path.split('/').pop()!,
      ...(more === undefined ? {} : { more }),
      ...(params.path.check ? { check: params.path.check } : {}),
    })
    if (params.path.check) return Promise.resolve({ ahead: check(params.path.check), places: [] })
    return more === undefined ? Promise.resolve(ahead()) : new Promise((reply) => slow.push(reply))
  }) as never)
})

function open(wanted = ''): Wearing {
  let state!: Wearing
  mount(
    defineComponent({
      setup: () => {
        state = useWear(1, wanted)
        return () => null
      },
    }),
  )
  return state
}

describe('a machine’s wear', () => {
  it('opens with the first kind of part where the address names none there is', async () => {
    const state = open('moon')
    await flushPromises()
    expect(state.check.value).toBe('discs')
    expect(asked.at(-1)).toMatchObject({ check: 'discs' })
  })

  it('asks about the longer season once the slider rests, and not for each step', async () => {
    const state = open()
    await flushPromises()
    for (const share of [5, 10, 15, 20]) {
      state.more.value = share
      await flushPromises()
    }
    vi.advanceTimersByTime(200)
    expect(asked.filter((one) => one.more !== undefined)).toEqual([{ path: 'ahead', more: 0.2 }])
    slow[0]!(ahead(0.2, [{ check: 'discs', position: '9L' }]))
    await flushPromises()
    expect([...state.tips.value]).toEqual(['discs 9L'])
  })

  it('drops an answer that comes after the slider went back', async () => {
    const state = open()
    await flushPromises()
    state.more.value = 20
    await flushPromises()
    vi.advanceTimersByTime(200)
    state.more.value = 0
    await flushPromises()
    slow[0]!(ahead(0.2, [{ check: 'discs', position: '9L' }]))
    await flushPromises()
    expect(state.other.value).toBeNull()
  })

  it('keeps the season that is asked for, and says at the field what is wrong with it', async () => {
    const state = open()
    await flushPromises()
    const post = vi.spyOn(api, 'POST').mockRejectedValue(new Refused(422, 'must be greater than 0', 'next_use', true))
    expect(await state.ask('-1')).toBe(false)
    expect([state.at.problem, state.at.field]).toEqual(['Must be greater than 0', 'next_use'])
    post.mockResolvedValue({ ...ahead(), next_use: { use: 300, counter: 2860 } } as never)
    expect(await state.ask('much')).toBe(false)
    expect([post.mock.calls.length, state.at.field]).toEqual([1, 'next_use'])
    expect(await state.ask('300')).toBe(true)
    expect(state.base.value?.next_use.use).toBe(300)
  })
})

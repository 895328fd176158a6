import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, Refused } from '@/api/client'
import { fromQuery, type Subject } from './address'
import { useBench, type Sheet } from './useBench'

const field = (key: string, start: string, more = {}) => ({
  key,
  name: key,
  kind: 'length',
  unit: '',
  start,
  hint: '',
  choices: [],
  optional: false,
  when: {},
  tool: '',
  ...more,
})
const subject = {
  key: 'chain',
  name: 'Chain',
  group: '',
  about: '',
  drawing: 'chain',
  order: ['way', 'length', 'pushed'],
  source: '',
  safety: '',
  takes_file: '',
  fields: [
    field('way', 'pitches', { kind: 'choice' }),
    field('length', '846', { when: { way: ['pitches'] } }),
    field('pushed', '', { when: { way: ['pushed'] } }),
  ],
  tables: [{ key: 'rows', name: 'Rows', columns: [{ key: 'a' }, { key: 'b' }], hint: '', optional: true, when: {} }],
  examples: [{ name: 'Good', texts: { length: '838', rows: [['1', '2']] } }],
} as unknown as Subject

/** Questions as they reach the server, each answered when the test says so. */
let asked: { texts: Record<string, unknown>; reply: (answer: unknown) => void }[]
vi.mock('@/api/client', async (original) => {
  const whole = await original<typeof import('@/api/client')>()
  return { ...whole, write: (call: () => Promise<unknown>) => call(), answer: (call: Promise<unknown>) => call }
})
beforeEach(() => {
  asked = []
  vi.spyOn(api, 'POST').mockImplementation(
    ((_: string, { body }: { body: { texts: Record<string, unknown> } }) =>
      new Promise((reply, refuse) =>
        asked.push({ texts: body.texts, reply: (answer) => (answer instanceof Error ? refuse(answer) : reply(answer)) }),
      )) as never,
  )
})
const sheet = (text: string): Sheet => ({
  answer: text,
  words: '',
  mark: '',
  lines: [],
  why: [],
  caution: '',
  runs: {},
  drawing: null,
})
const open = () => useBench(subject, fromQuery(subject, {}, 'mm'))

describe('the bench', () => {
  it('asks at once, with the starting values', async () => {
    const bench = open()
    expect(asked[0]!.texts).toEqual({ way: 'pitches', length: '838', pushed: '', rows: [['1', '2']] })
    asked[0]!.reply(sheet('2 %'))
    await flushPromises()
    expect(bench.sheet.value?.answer).toBe('2 %')
  })

  it('has one question under way, and after it asks the newest, not each between', async () => {
    const bench = open()
    for (const text of ['8', '84', '846']) {
      bench.set({ length: text })
      await flushPromises()
    }
    expect(asked).toHaveLength(1)
    asked[0]!.reply(sheet('old'))
    await flushPromises()
    expect(asked).toHaveLength(2)
    expect(asked[1]!.texts.length).toBe('846')
    asked[1]!.reply(sheet('new'))
    await flushPromises()
    expect(bench.sheet.value?.answer).toBe('new')
  })

  it('keeps the last answer and what was typed while a field cannot be understood', async () => {
    const bench = open()
    asked[0]!.reply(sheet('2 %'))
    await flushPromises()
    bench.set({ length: '84q' })
    await flushPromises()
    asked[1]!.reply(new Refused(422, 'is not a unit', 'length', true))
    await flushPromises()
    expect([bench.problem.value?.field, bench.sheet.value?.answer, bench.texts.length]).toEqual(['length', '2 %', '84q'])
    bench.set({ length: '846' })
    await flushPromises()
    asked[2]!.reply(sheet('3 %'))
    await flushPromises()
    expect([bench.problem.value, bench.sheet.value?.answer]).toEqual([null, '3 %'])
  })

  it.each([
    ['length', '', true],
    ['length', '84q', false],
    ['rows', [], true],
    ['rows', [['', ' ']], true],
    ['rows.0.b', [['1', '']], true],
    ['rows.0.b', [['1', 'x']], false],
    ['rows.0.nothing', [['1', '']], false],
  ])('tells what has not been typed yet from what is wrong: %s with %j', async (field, typed, waits) => {
    const bench = open()
    bench.set({ [field.split('.')[0]!]: typed as string })
    asked[0]!.reply(new Refused(422, 'cannot be', field, true))
    await flushPromises()
    asked[1]?.reply(new Refused(422, 'cannot be', field, true))
    await flushPromises()
    expect(bench.waits.value).toBe(waits)
  })

  it('goes on after the connection was lost', async () => {
    const bench = open()
    asked[0]!.reply(new Refused(0, 'No connection to the server.'))
    await flushPromises()
    expect(bench.problem.value?.message).toBe('No connection to the server.')
    bench.set({ length: '850' })
    await flushPromises()
    expect(asked).toHaveLength(2)
  })

  it('shows a field only while those it depends on say so', () => {
    const bench = open()
    expect([bench.shown({ way: ['pitches'] }), bench.shown({ way: ['pushed'] })]).toEqual([true, false])
    bench.set({ way: 'pushed' })
    expect(bench.shown({ way: ['pushed'] })).toBe(true)
  })

  it('has the sizes of the machine that was chosen last, whichever answer comes last', async () => {
    const replies: ((found: unknown) => void)[] = []
    vi.spyOn(api, 'GET').mockImplementation((() => new Promise((reply) => replies.push(reply))) as never)
    const bench = open()
    void bench.machine(1)
    void bench.machine(2)
    replies[1]!({ sources: { length: 'Heron 6' }, texts: { length: '840' } })
    replies[0]!({ sources: { length: 'Heron 4' }, texts: { length: '850' } })
    await flushPromises()
    expect([bench.sources.value, bench.texts.length]).toEqual([{ length: 'Heron 6' }, '840'])
  })

  it('lets nothing of what stood there before into an example', () => {
    const bench = open()
    bench.set({ pushed: '1202', rows: [['9', '9']] })
    bench.example({ length: '856' })
    expect(bench.texts).toMatchObject({ length: '856', pushed: '', rows: [] })
    bench.clear()
    expect(bench.texts).toEqual({ way: 'pitches', length: '846', pushed: '', rows: [] })
  })
})

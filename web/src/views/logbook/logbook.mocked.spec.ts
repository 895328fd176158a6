import { flushPromises, mount } from '@vue/test-utils'
import PrimeVue from 'primevue/config'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, Refused } from '@/api/client'
import Counters from './Counters.vue'
import PutAway from './PutAway.vue'
import Services from './Services.vue'

vi.mock('@/api/client', async (original) => {
  const whole = await original<typeof import('@/api/client')>()
  return { ...whole, write: (call: () => Promise<unknown>) => call(), answer: (call: Promise<unknown>) => call }
})
const global = { plugins: [PrimeVue], directives: { focus: {} } }
let sent: { path: string; body: Record<string, unknown> }[]
let reply: (body: Record<string, unknown>) => unknown

function server(get: unknown): void {
  sent = []
  vi.spyOn(api, 'GET').mockImplementation((() => Promise.resolve(get)) as never)
  vi.spyOn(api, 'POST').mockImplementation(((path: string, { body }: { body: Record<string, unknown> }) => {
    sent.push({ path, body })
    return Promise.resolve().then(() => reply(body))
  }) as never)
}

describe('the counter', () => {
  const stand = { unit: 'ha', now: 2860, two: false, also: null, telematics: false, readings: [] }
  beforeEach(() => server(stand))

  it('asks what happened when it runs back, keeps what was typed, and sends the exchange under the same UUID', async () => {
    reply = (body) => {
      if (!body.exchanged)
        throw new Refused(
          422,
          '12 ha is less than the 2860 ha of 21 Nov 2026. Was the meter exchanged?',
          'shown',
          true,
          [],
          ['exchange'],
        )
      return { ...stand, now: 2870 }
    }
    const found = mount(Counters, { props: { machine: 1, mayRecord: true }, global })
    await flushPromises()
    await found.get('#shown').setValue('12')
    await found.get('form').trigger('submit')
    await flushPromises()
    expect(found.get('[role=alert]').text()).toContain('Was the meter exchanged')
    expect((found.get('#shown').element as HTMLInputElement).value).toBe('12')
    const buttons = found.findAll('button').map((one) => one.text())
    expect(buttons).toContain('The meter was exchanged')
    expect(buttons).not.toContain('It is right')
    await found
      .findAll('button')
      .find((one) => one.text() === 'The meter was exchanged')!
      .trigger('click')
    await found.get('.wide input').setValue('2870')
    await found.get('form').trigger('submit')
    await flushPromises()
    expect(sent.map(({ body }) => [body.shown, body.exchanged, body.old_shown])).toEqual([
      [12, false, null],
      [12, true, 2870],
    ])
    expect(sent[0]!.body.uuid).toBe(sent[1]!.body.uuid)
    expect(found.emitted('kept')).toHaveLength(1)
  })

  it('lets a jump stand when somebody says so', async () => {
    reply = (body) => {
      if (!body.confirmed)
        throw new Refused(
          422,
          '3600 ha since 21 Nov 2026: no machine does more than 250 ha a day.',
          'shown',
          true,
          [],
          ['confirm', 'exchange'],
        )
      return stand
    }
    const found = mount(Counters, { props: { machine: 1, mayRecord: true }, global })
    await flushPromises()
    await found.get('#shown').setValue('3600')
    await found.get('form').trigger('submit')
    await flushPromises()
    await found
      .findAll('button')
      .find((one) => one.text() === 'It is right')!
      .trigger('click')
    await flushPromises()
    expect(sent.at(-1)!.body.confirmed).toBe(true)
  })

  it('is only read by an owner', async () => {
    const found = mount(Counters, { props: { machine: 1, mayRecord: false }, global })
    await flushPromises()
    expect(found.find('form').exists()).toBe(false)
    expect(found.text()).toContain('2860')
  })
})

describe('services', () => {
  const one = {
    key: 'arm-bolts',
    name: 'Parallel arm bolts torqued',
    how: 'Every row.',
    source: '',
    state: 'overdue',
    interval: 'every 120 ha',
    last: '28 Dec 2025 at 2660 ha',
    due: '',
    left: '80 ha over',
  }
  it('say in words and by a sign what is over, and are done with the counter as it stands', async () => {
    server({ unit: 'ha', counter: 2860, services: [one], may_record: true })
    reply = () => ({ unit: 'ha', counter: 2860, services: [{ ...one, state: 'later', left: '120 ha left' }], may_record: true })
    const found = mount(Services, { props: { machine: 1 }, global })
    await flushPromises()
    expect(found.get('li').text()).toContain('Over, 80 ha over. Every 120 ha; last 28 Dec 2025 at 2660 ha.')
    await found.get('button').trigger('click')
    await found.get('form').trigger('submit')
    await flushPromises()
    expect(sent[0]!.body).toMatchObject({ key: 'arm-bolts', counter: 2860 })
    expect(found.get('li').classes()).toContain('later')
    expect(found.emitted('kept')).toHaveLength(1)
  })
})

describe('the put-away list', () => {
  it('ticks and takes back, and shows who and when', async () => {
    const item = {
      key: 'meters-empty',
      text: 'Meters empty',
      how: '',
      why: 'Rodents come for it.',
      done: false,
      by: '',
      at: null,
    }
    const list = (done: boolean) => ({
      season: 2026,
      seasons: [2026],
      items: [{ ...item, done, by: done ? 'Ines Marrow' : '', at: done ? '2026-11-23T10:00:00Z' : null }],
      done: Number(done),
      may_record: true,
    })
    server(list(false))
    reply = (body) => list(Boolean(body.done))
    const found = mount(PutAway, { props: { machine: 1 }, global })
    await flushPromises()
    expect(found.text()).toContain('Rodents come for it.')
    await found.get('input[type=checkbox]').trigger('change')
    await flushPromises()
    expect(found.text()).toContain('23 Nov 2026, Ines Marrow')
    await found.get('input[type=checkbox]').trigger('change')
    await flushPromises()
    expect(sent.map(({ body }) => [body.done, body.season])).toEqual([
      [true, 2026],
      [false, 2026],
    ])
    expect(sent[0]!.body.uuid).not.toBe(sent[1]!.body.uuid)
  })
})

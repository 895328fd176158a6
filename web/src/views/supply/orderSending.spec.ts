import { mount } from '@vue/test-utils'
import PrimeVue from 'primevue/config'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { focus } from '@/app/focus'
import OrderSending from './OrderSending.vue'

const order: Schemas['OrderOut'] = {
  uuid: '9d0f2a34-0000-4000-8000-000000000001',
  supplier: 'Northmere Depot',
  email: 'orders@northmere.invalid',
  desk: false,
  way: 'van',
  run_date: '2026-12-01',
  run_cost: '18.00',
  state: 'to-send',
  state_name: 'Not confirmed',
  answered: false,
  reference: '',
  trouble: '',
  tries: 0,
  unsent: true,
  received: false,
  may_drop: true,
  under_way: false,
  mail: '',
  mail_at: null,
  mail_trouble: '',
  by: 'Bram Oster',
  at: '2026-11-28T10:00:00Z',
  parts: '97.80',
  lines: [],
  to_come: 2,
}
const shown = (more: Partial<Schemas['OrderOut']>, buys = true) =>
  mount(OrderSending, {
    props: { order: { ...order, ...more }, buys, busy: false },
    global: { plugins: [PrimeVue], directives: { focus } },
  })
const buttons = (found: ReturnType<typeof shown>): string[] => found.findAll('button').map((one) => one.text())

describe('an order on its way', () => {
  it('can be sent by telephone or taken back while it has not left the house', () => {
    const found = shown({})
    expect(found.text()).toContain('Not sent yet.')
    expect(buttons(found)).toEqual(['Said by telephone', 'Take back'])
  })
  it('says what is under way, and offers nothing meanwhile', () => {
    expect(shown({ under_way: true, mail: 'going' }).text()).toContain('The letter is on its way to the mail server')
    const asked = shown({ under_way: true, desk: true, tries: 1, unsent: false, may_drop: false })
    expect(asked.text()).toContain('The desk is being asked')
    expect(buttons(asked)).toEqual([])
  })
  it('says why a letter was not sent, and that the order still is to be', () => {
    const found = shown({ mail: 'failed', mail_trouble: 'The mail server does not answer.' })
    expect(found.get('[role=alert]').text()).toContain('The letter was not sent. The mail server does not answer.')
    expect(found.text()).toContain('The order is still to be sent.')
  })
  it('does not pretend to know where nobody does', () => {
    const found = shown({ mail: 'unsure', unsent: false, may_drop: false, mail_trouble: 'It may have gone out.' })
    expect(found.text()).toContain('Nobody knows whether the letter went out: ask Northmere Depot.')
    expect(buttons(found)).toEqual(['They have it'])
  })
  it('may have reached the desk: it is asked again, and goes no other way', () => {
    const found = shown({ desk: true, tries: 2, unsent: false, may_drop: false, trouble: 'The supplier desk does not answer.' })
    expect(found.text()).toContain('asking again orders nothing twice')
    expect(buttons(found)).toEqual(['Ask the desk again'])
    void found.get('button').trigger('click')
    expect(found.emitted('post')).toEqual([['send']])
  })
  it('shows whoever does not buy what went wrong, and no buttons', () => {
    const found = shown({ mail: 'failed', mail_trouble: 'The mail server does not answer.' }, false)
    expect(found.text()).toContain('The letter was not sent.')
    expect(buttons(found)).toEqual([])
  })
})

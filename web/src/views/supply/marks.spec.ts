import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import LineState from './LineState.vue'
import OrderMark from './OrderMark.vue'

const drawn = (html: string): string => /<svg.*<\/svg>/s.exec(html)![0].replace(/ (style|data-v-\w+)="[^"]*"/g, '')

describe('marks of parts and orders', () => {
  it('gives every state of a line its own shape and word', () => {
    const states = ['number', 'order', 'coming', 'here', 'fitted'] as const
    const marks = states.map((state) => mount(LineState, { props: { state } }))
    expect(new Set(marks.map((mark) => drawn(mark.html()))).size).toBe(states.length)
    expect(marks.map((mark) => mark.text())).toEqual(['Find its number', 'To order', 'On its way', 'On the shelf', 'Fitted'])
  })

  it('gives every answer of a supplier its own shape, beside its word', () => {
    const states = ['to-send', 'accepted', 'short', 'refused', 'by-hand']
    const marks = states.map((state) => mount(OrderMark, { props: { state, word: `is ${state}` } }))
    expect(new Set(marks.map((mark) => drawn(mark.html()))).size).toBe(states.length)
    expect(marks.map((mark) => mark.text())).toEqual(states.map((state) => `is ${state}`))
    expect(marks.every((mark) => mark.find('svg').attributes('aria-hidden') === 'true')).toBe(true)
  })
})

import { reactive } from 'vue'
import { expect, it } from 'vitest'
import { usePages } from './usePages'

const numbers = Array.from({ length: 60 }, (_, i) => `Dunmere ${i + 1}`)

it('shows a part of what is found, and says which', () => {
  const asked = reactive({ search: '', page: '' })
  const { shown, page, many } = usePages(
    () => numbers,
    asked,
    (one) => one,
  )
  expect([shown.value.length, shown.value[0], many.value]).toEqual([25, 'Dunmere 1', true])
  asked.page = '3'
  expect([shown.value.length, page.value]).toEqual([10, { number: 3, of: 3, total: 60, first: 51, last: 60 }])
  asked.search = '60 dun'
  expect([shown.value, page.value.number]).toEqual([['Dunmere 60'], 1])
  asked.search = 'heron'
  expect([shown.value, page.value]).toEqual([[], { number: 1, of: 1, total: 0, first: 0, last: 0 }])
})

it.each(['', '0', '-3', 'two', '99'])('whatever page stands in an address, one of them is shown: %s', (page) => {
  const { shown } = usePages(
    () => numbers,
    { search: '', page },
    (one) => one,
  )
  expect(shown.value.length).toBeGreaterThan(0)
})

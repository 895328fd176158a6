import { describe, expect, it } from 'vitest'
import { typeKeys } from './typeKeys'

describe('a gauge with a keyboard plug', () => {
  it('types key by key into the field that has the focus, and ends with Enter', async () => {
    const field = document.createElement('input')
    document.body.append(field)
    const keys: string[] = []
    let entered = ''
    field.addEventListener('keydown', (event) => {
      keys.push(event.key)
      if (event.key === 'Enter') entered = field.value
    })
    field.focus()
    await typeKeys('+0387.42')
    expect(keys).toEqual([...'+0387.42', 'Enter'])
    expect(entered).toBe('+0387.42')
  })

  it('leaves out what the field refuses, and follows the focus', async () => {
    const [first, second] = [document.createElement('input'), document.createElement('input')]
    document.body.append(first, second)
    first.addEventListener('keydown', (event) => {
      if (event.key === '+') event.preventDefault()
      if (event.key === 'Enter') second.focus()
    })
    first.focus()
    await typeKeys('+5')
    await typeKeys('6')
    expect([first.value, second.value]).toEqual(['5', '6'])
  })
})

import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { focusHeading, keepFocus } from './focusKeeper'

const frame = () => new Promise((resolve) => setTimeout(resolve, 40))

describe('focus is where the work goes on', () => {
  let stop = (): void => undefined
  beforeAll(() => {
    // jsdom lays nothing out: everything counts as visible.
    Element.prototype.getClientRects = () => [{}] as unknown as DOMRectList
    stop = keepFocus()
  })
  afterAll(() => stop())
  beforeEach(
    () =>
      (document.body.innerHTML =
        '<main id="main"><ul><li id="a"><button>Do it</button></li><li id="b"><button>Wait</button></li></ul><a href="#x">Else</a></main>'),
  )

  it('goes to what stands there now when a row has been dealt with', async () => {
    document.querySelector<HTMLElement>('#a button')!.focus()
    document.querySelector('#a')!.remove()
    await frame()
    expect(document.activeElement?.textContent).toBe('Wait')
  })

  it('goes to the one before where the last row has gone, and further out where the list is empty', async () => {
    document.querySelector<HTMLElement>('#b button')!.focus()
    document.querySelector('#b')!.remove()
    await frame()
    expect(document.activeElement?.textContent).toBe('Do it')
    document.querySelector('ul')!.remove()
    await frame()
    expect(document.activeElement?.textContent).toBe('Else')
  })

  it('goes further out where what is left around it holds nothing to reach', async () => {
    document.body.innerHTML =
      '<main><table><tr><td><form><input></form></td><td>text</td></tr></table><button>Next</button></main>'
    document.querySelector('input')!.focus()
    document.querySelector('form')!.remove()
    await frame()
    expect(document.activeElement?.textContent).toBe('Next')
  })

  it('comes back to a button that was disabled while its deed was done', async () => {
    const button = document.querySelector<HTMLButtonElement>('#a button')!
    button.focus()
    button.disabled = true
    button.blur()
    await frame()
    button.disabled = false
    await frame()
    expect(document.activeElement).toBe(button)
  })

  it('takes nothing from whoever has put it elsewhere', async () => {
    document.querySelector<HTMLElement>('#a button')!.focus()
    document.querySelector<HTMLElement>('a')!.focus()
    document.querySelector('#a')!.remove()
    await frame()
    expect(document.activeElement?.textContent).toBe('Else')
  })

  it('goes to the heading of a screen that comes late, unless the screen has a field to type in', async () => {
    document.body.innerHTML = '<main id="main"></main>'
    focusHeading()
    document.querySelector('#main')!.innerHTML = '<h1>Machines</h1>'
    await frame()
    expect(document.activeElement?.textContent).toBe('Machines')
    document.body.innerHTML = '<main id="main"></main>'
    focusHeading()
    document.querySelector('#main')!.innerHTML = '<input id="reading">'
    document.querySelector<HTMLElement>('#reading')!.focus()
    document.querySelector('#main')!.insertAdjacentHTML('beforeend', '<h1>Late</h1>')
    await frame()
    expect(document.activeElement?.id).toBe('reading')
  })

  it('leaves the field that a screen has put it into before', () => {
    document.body.innerHTML = '<main id="main"><h1>Lumvek</h1><input id="name"></main>'
    document.querySelector<HTMLElement>('#name')!.focus()
    focusHeading()
    expect(document.activeElement?.id).toBe('name')
  })

  it('takes nothing from who has begun to type in the bar since the screen was gone to', async () => {
    document.body.innerHTML = '<a href="#">People</a><input id="search"><main id="main"></main>'
    document.querySelector<HTMLElement>('a')!.focus()
    const had = document.activeElement
    document.querySelector<HTMLElement>('#search')!.focus()
    focusHeading(had)
    document.querySelector('#main')!.innerHTML = '<h1>People</h1>'
    await frame()
    expect(document.activeElement?.id).toBe('search')
  })

  it('takes the way out of a small form with Esc', () => {
    document.body.innerHTML = '<form><input><button type="button" data-out>Cancel</button></form>'
    let out = 0
    document.querySelector('button')!.addEventListener('click', () => (out += 1))
    document
      .querySelector('input')!
      .dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true, cancelable: true }))
    expect(out).toBe(1)
  })
})

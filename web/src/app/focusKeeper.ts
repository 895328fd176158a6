/**
 * Focus is where the work goes on. Where what had it is gone from the page (a form that closed, a row that was dealt with), it goes to the
 * nearest thing that stands there now; after a change of screen, to the main heading. Esc takes the way out of a small form.
 */
const REACHABLE =
  'a[href], button:not([disabled]), input:not([disabled]):not([type=hidden]), select:not([disabled]), textarea:not([disabled]), summary, [tabindex="0"]'

/** Each element from the focused one up to the page, with its place among its siblings, as it was when the focus came there. */
let chain: { element: Element; index: number }[] = []

function remember(event: FocusEvent): void {
  chain = []
  for (let element = event.target as Element | null; element && element !== document.body; element = element.parentElement) {
    chain.push({ element, index: element.parentElement ? [...element.parentElement.children].indexOf(element) : 0 })
  }
}

const visible = (element: HTMLElement): boolean => element.getClientRects().length > 0
const first = (within: Element): HTMLElement | undefined =>
  [...within.querySelectorAll<HTMLElement>(REACHABLE)].find((element) => visible(element) && element.tabIndex >= 0)

/** The first thing to reach at, or right after, the place in `home` where the lost one stood; else anything in it. */
function nearest(home: Element, index: number): HTMLElement | undefined {
  const children = [...home.children]
  for (const child of [...children.slice(index), ...children.slice(0, index).reverse()]) {
    const own = child instanceof HTMLElement && child.matches(REACHABLE) && visible(child) ? child : first(child)
    if (own) return own
  }
  return undefined
}

function keep(): void {
  const lost = chain[0]
  if (!lost || lost.element.isConnected || (document.activeElement && document.activeElement !== document.body)) return
  const gone = chain.filter((one) => !one.element.isConnected)
  const left = chain.slice(gone.length - 1)
  chain = []
  // What is left may hold nothing to reach any more: then what is around it.
  for (const [i, home] of left.entries()) {
    const next = i > 0 && nearest(home.element, left[i - 1]!.index)
    if (next) return next.focus({ preventScroll: true })
  }
}

/** A button that is disabled while its deed is done lets go of the focus; it has it back when it can be pressed again. */
let letGo: HTMLElement | undefined

function disabled(button: HTMLButtonElement): void {
  if (button === chain[0]?.element && button.disabled) letGo = button
  else if (button === letGo && !button.disabled) {
    letGo = undefined
    if (!document.activeElement || document.activeElement === document.body) button.focus({ preventScroll: true })
  }
}

/**
 * The heading of a screen that has just come, or what it has put the focus on itself. had: what had the focus when it was gone to; whoever
 * has opened a field of the bar since then types there.
 */
let waiting: MutationObserver | undefined
export function focusHeading(had: Element | null = document.activeElement): void {
  waiting?.disconnect()
  chain = [] // what had the focus belonged to the screen that went
  const main = document.getElementById('main')
  if (!main) return
  const now = document.activeElement
  if (now && now !== had && now !== document.body) return
  const before = now
  // A field that the screen has put the focus into already is the first thing to do.
  if (before && before !== main && main.contains(before)) return
  const look = (): boolean => {
    // The screen, or the person, has put it somewhere.
    if (document.activeElement !== before && document.activeElement !== document.body) return true
    const heading = main.querySelector<HTMLElement>('h1')
    if (!heading) return false
    if (!heading.hasAttribute('tabindex')) heading.tabIndex = -1
    heading.focus({ preventScroll: true })
    return true
  }
  if (look()) return
  waiting = new MutationObserver(() => look() && waiting?.disconnect())
  waiting.observe(main, { childList: true, subtree: true })
}

/** Returns what ends it. */
export function keepFocus(): () => void {
  let soon: ReturnType<typeof setTimeout> | undefined
  document.addEventListener('focusin', remember)
  const observer = new MutationObserver((changes) => {
    for (const change of changes) if (change.type === 'attributes') disabled(change.target as HTMLButtonElement)
    clearTimeout(soon)
    soon = setTimeout(keep, 16)
  })
  observer.observe(document.body, { childList: true, subtree: true, attributeFilter: ['disabled'] })
  document.addEventListener('keydown', (event) => {
    if (event.key !== 'Escape' || event.defaultPrevented || !(event.target instanceof Element)) return
    const out = event.target.closest('form')?.querySelector<HTMLElement>('[data-out]')
    if (!out) return
    event.preventDefault()
    out.click()
  })
  return () => {
    clearTimeout(soon)
    observer.disconnect()
  }
}

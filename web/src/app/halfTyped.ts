/**
 * What is typed into a form, and neither saved nor kept on the device: nobody leaves it without having been asked. A form whose text is
 * kept as it is typed says so with data-kept, one that takes what comes in (a scanner's line) with data-passing; what is saved but is no
 * form, with data-typed.
 */
import { ref } from 'vue'
import { api } from '@/api/client'
import { FROM_BOX } from '@/api/headers'
import { isReading, outbox, type Entry } from '@/api/outbox'
import { storageAlarm } from '@/api/storage'

export type Typed = HTMLInputElement | HTMLTextAreaElement
const HOMES = 'form, [data-typed]'
const TYPED = `#main :is(${HOMES}) :is(input:not([type]), input[type=text], input[type=email], textarea)`

/** What stood in a field before the hand came to it, or when it was last saved. */
const stood = new WeakMap<Typed, string>()
/** What the hand left in it: where something else stands there now, it is not the hand's. */
const left = new WeakMap<Typed, string>()
/**
 * What was sent, and waits for its answer: the request that took it, or the entries of the box that were made since. What else is on its
 * way has no say in it.
 */
let sent: { fields: [Typed, string][]; request: string; before: Set<string> } | null = null
/** It is kept on the device meanwhile, and sent from wherever one is. */
const isOurs = (entry: Entry): boolean => !!sent && !isReading(entry) && !sent.before.has(entry.uuid)
const kept = (): boolean => outbox.waiting.value.some(isOurs)
/** Counts what the hand and the server did, for whoever shows what is typed and not saved. */
const turns = ref(0)

const fields = (): Typed[] => [...document.querySelectorAll<Typed>(TYPED)]
const isTyped = (target: EventTarget | null): target is Typed => target instanceof Element && target.matches(TYPED)

function come(event: FocusEvent): void {
  turns.value++
  if (isTyped(event.target) && left.get(event.target) !== event.target.value) stood.set(event.target, event.target.value)
}
function type(event: Event): void {
  turns.value++
  if (isTyped(event.target)) left.set(event.target, event.target.value)
}
function send(home: Element): void {
  const there = fields().filter((field) => home.contains(field))
  const before = new Set(outbox.box.entries.map((entry) => entry.uuid))
  sent = { fields: there.map((field) => [field, field.value]), request: '', before }
}
const submit = (event: SubmitEvent): void => send(event.target as HTMLFormElement)
/** A button pressed, or a file picked. */
function press(event: Event): void {
  const home = (event.target as Element).closest('button, input[type=file]')?.closest('[data-typed]')
  if (home) send(home)
}
function heard(taken: boolean): void {
  turns.value++
  if (taken) for (const [field, value] of sent?.fields ?? []) stood.set(field, value)
  sent = null
}

/** The fields with what would be lost, as they stand on the page. */
export function halfTyped(): Typed[] {
  void turns.value
  const safe = new Map(kept() ? sent?.fields : [])
  return fields().filter(
    (field) =>
      field.value.trim() &&
      left.get(field) === field.value &&
      stood.get(field) !== field.value &&
      safe.get(field) !== field.value &&
      !(field.closest('[data-kept]') && !storageAlarm.full) &&
      !field.closest('[data-passing]'),
  )
}

/** What a field is called on the page. */
export function nameOf(field: Typed): string {
  const label = field.labels?.[0]
  const called = label?.querySelector('.called')?.textContent ?? label?.textContent ?? ''
  return field.getAttribute('aria-label') ?? called.trim()
}

/** It may be left: whoever typed it has said so. */
export function letGo(lost: Typed[]): void {
  for (const field of lost) left.delete(field)
}

function closing(event: BeforeUnloadEvent): void {
  if (halfTyped().length) event.preventDefault()
}

/** Returns what ends it. */
export function watchTyping(): () => void {
  // What the box sends has its own way back, below.
  const isDirect = (request: Request): boolean => request.method !== 'GET' && !request.headers.has(FROM_BOX)
  const listener = {
    onRequest: ({ request, id }: { request: Request; id: string }): void => {
      if (sent && !sent.request && isDirect(request)) sent.request = id
    },
    onResponse: ({ request, response, id }: { request: Request; response: Response; id: string }): void => {
      // Refused for its token it is sent once more: that one's answer counts.
      if (sent?.request === id && response.status === 403 && isDirect(request)) sent.request = ''
      else if (sent?.request === id) heard(response.ok)
    },
    onError: ({ id }: { id: string }): void => {
      if (sent?.request === id) heard(false)
    },
  }
  const deaf = outbox.on({
    answered: (entry) => isOurs(entry) && heard(true),
    refused: (entry) => isOurs(entry) && heard(false),
  })
  const ending = new AbortController()
  const { signal } = ending
  api.use(listener)
  document.addEventListener('focusin', come, { signal })
  document.addEventListener('input', type, { signal })
  document.addEventListener('submit', submit, { signal, capture: true })
  document.addEventListener('click', press, { signal, capture: true })
  document.addEventListener('change', press, { signal, capture: true })
  window.addEventListener('beforeunload', closing, { signal })
  return () => {
    api.eject(listener)
    deaf()
    ending.abort()
  }
}

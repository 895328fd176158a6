/**
 * Readings and confirmed postures on their way to the server. Each is written to localStorage the moment it is entered, under its own key, and removed
 * only when the server has answered for its UUID: a reload, a lost connection or a stopped server loses nothing, and sending
 * one twice records it once.
 */
import { reactive } from 'vue'
import { api, Refused, write, type Changed, type Hold, type NewHold, type NewReading } from './client'

interface Waiting {
  walkAround: string
  order: number
}
/** A reading, or that the machine stands in a posture with its locks set. */
export type Sending = Waiting & ({ what?: 'reading'; body: NewReading } | { what: 'hold'; body: NewHold })
export type SendingReading = Sending & { body: NewReading }
export const isReading = (item: Sending): item is SendingReading => item.what !== 'hold'

export interface Outbox {
  waiting: Sending[]
  state: 'idle' | 'sending' | 'away' | 'signed-out'
  retryAt: number
}

const PREFIX = 'lumvek:outbox:'
const PAUSES = [1000, 2000, 4000, 8000]

type Send = (item: Sending) => Promise<Changed | Hold[]>
interface Hooks {
  recorded: (item: SendingReading, changed: Changed) => void
  held: (item: Sending, holds: Hold[]) => void
  refused: (item: Sending, problem: Refused) => void
}

/** What an earlier page left unsent, oldest first. */
function stored(storage: Storage): Sending[] {
  const found: Sending[] = []
  for (let i = 0; i < storage.length; i++) {
    const key = storage.key(i)
    if (!key?.startsWith(PREFIX)) continue
    try {
      found.push(JSON.parse(storage.getItem(key) ?? '') as Sending)
    } catch {
      // Not ours to understand: leave it where it is rather than lose it.
    }
  }
  return found.sort((a, b) => a.order - b.order)
}

const overTheWire: Send = (item) => {
  const params = { path: { walk_around_id: item.walkAround } }
  if (isReading(item)) return write(() => api.POST('/api/walk-arounds/{walk_around_id}/readings', { params, body: item.body }))
  return write(() => api.POST('/api/walk-arounds/{walk_around_id}/postures', { params, body: item.body as NewHold }))
}

export function makeOutbox(send: Send = overTheWire, storage: Storage = localStorage) {
  const box = reactive<Outbox>({ waiting: stored(storage), state: 'idle', retryAt: 0 })
  let hooks: Hooks = { recorded: () => undefined, held: () => undefined, refused: () => undefined }
  let timer: ReturnType<typeof setTimeout> | undefined
  let running = false
  let failures = 0

  const put = (walkAround: string, body: NewReading): void => add({ walkAround, body, order: next() })
  const hold = (walkAround: string, body: NewHold): void => add({ walkAround, what: 'hold', body, order: next() })
  const next = (): number => Date.now() + box.waiting.length / 1000

  function add(item: Sending): void {
    storage.setItem(PREFIX + item.body.uuid, JSON.stringify(item))
    box.waiting.push(item)
    void flush()
  }

  function settle(item: Sending): void {
    storage.removeItem(PREFIX + item.body.uuid)
    const at = box.waiting.findIndex((other) => other.body.uuid === item.body.uuid)
    if (at >= 0) box.waiting.splice(at, 1)
  }

  /** Send what waits, in order, one at a time; stop at the first failure that will pass and try again later. */
  async function flush(): Promise<void> {
    if (running) return
    running = true
    clearTimeout(timer)
    try {
      while (box.waiting.length) {
        const item = box.waiting[0]!
        // While the way is known to be down the state stays "away": it changes when an answer comes, not when we hope.
        if (box.state !== 'away') box.state = 'sending'
        try {
          const changed = await send(item)
          failures = 0
          box.state = 'sending'
          settle(item)
          if (isReading(item)) hooks.recorded(item, changed as Changed)
          else hooks.held(item, changed as Hold[])
        } catch (error) {
          if (!(error instanceof Refused)) throw error
          if (error.status === 401) return void (box.state = 'signed-out')
          if (error.passing) return later()
          settle(item)
          hooks.refused(item, error)
        }
      }
      box.state = 'idle'
    } finally {
      running = false
    }
  }

  function later(): void {
    const pause = PAUSES[Math.min(failures, PAUSES.length - 1)]!
    failures++
    box.state = 'away'
    box.retryAt = Date.now() + pause
    timer = setTimeout(() => void flush(), pause)
  }

  return {
    box,
    put,
    hold,
    flush,
    listen: (heard: Hooks) => {
      hooks = heard
    },
    of: (walkAround: string) => box.waiting.filter((item) => item.walkAround === walkAround),
  }
}

export const outbox = makeOutbox()

/**
 * Readings on their way to the server. Each is written to localStorage the moment it is entered, under its own key, and removed
 * only when the server has answered for its UUID: a reload, a lost connection or a stopped server loses nothing, and sending
 * one twice records it once.
 */
import { reactive } from 'vue'
import { api, Refused, write, type Changed, type NewReading } from './client'

export interface Sending {
  walkAround: string
  body: NewReading
  order: number
}

export interface Outbox {
  waiting: Sending[]
  state: 'idle' | 'sending' | 'away' | 'signed-out'
  retryAt: number
}

const PREFIX = 'lumvek:outbox:'
const PAUSES = [1000, 2000, 4000, 8000]

type Send = (item: Sending) => Promise<Changed>
interface Hooks {
  recorded: (item: Sending, changed: Changed) => void
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

const overTheWire: Send = (item) =>
  write(() => api.POST('/api/walk-arounds/{walk_around_id}/readings', { params: { path: { walk_around_id: item.walkAround } }, body: item.body }))

export function makeOutbox(send: Send = overTheWire, storage: Storage = localStorage) {
  const box = reactive<Outbox>({ waiting: stored(storage), state: 'idle', retryAt: 0 })
  let hooks: Hooks = { recorded: () => undefined, refused: () => undefined }
  let timer: ReturnType<typeof setTimeout> | undefined
  let running = false
  let failures = 0

  function put(walkAround: string, body: NewReading): void {
    const item = { walkAround, body, order: Date.now() + box.waiting.length / 1000 }
    storage.setItem(PREFIX + body.uuid, JSON.stringify(item))
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
          hooks.recorded(item, changed)
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
    flush,
    listen: (heard: Hooks) => {
      hooks = heard
    },
    of: (walkAround: string) => box.waiting.filter((item) => item.walkAround === walkAround),
  }
}

export const outbox = makeOutbox()

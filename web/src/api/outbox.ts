/**
 * Everything that was typed and is on its way to the server: readings, confirmed locks, decisions, notes, pictures, orders.
 *
 * Each write is an entry under its own UUID, written to localStorage the moment it is made, and taken out only when the server has
 * answered for its UUID or a person has dealt with it. A reload, a lost connection, a stopped server or another screen loses nothing,
 * and sending one twice does it once. An entry belongs to the member who made it and is sent under that member only. What the server
 * refuses stays in the box with the reason. Tabs of one browser share the box: one of them sends, all of them hear.
 */
import { computed, reactive } from 'vue'
import { Refused, type AnswerOf, type BodyOf, type NewHold, type NewReading, type PathOf, type WritePath } from './client'
import { blobs } from './blobs'
import {
  HOLDS,
  isBegin,
  isHold,
  isReading,
  READINGS,
  refusalOf,
  walkAroundOf,
  type About,
  type BoxState,
  type Entry,
  type Heard,
  type Member,
  type ReadingEntry,
} from './outboxEntry'
import { allAnswered } from './clock'
import { alone, nextInLine, overTheWire, PREFIX, stored, type Send } from './outboxStore'
import { goingTogether, inTurn, togetherOverTheWire, type SendTogether } from './outboxTogether'
import { holdOn, keep } from './storage'

export * from './outboxEntry'

const PAUSES = [1000, 2000, 4000, 8000]
/** Not one entry's fault: nothing else will get through either. */
const NOBODY_ANSWERS = [0, 401, 429, 502, 503, 504]

interface Waiter {
  alive: () => boolean
  resolve: (data: never) => void
  reject: (problem: unknown) => void
}

export function makeOutbox(
  send: Send = overTheWire,
  storage: Storage = localStorage,
  channel: Pick<BroadcastChannel, 'postMessage' | 'onmessage'> | null = null,
  together: SendTogether | null = null,
) {
  const box = reactive({ entries: stored(storage), state: 'idle' as BoxState, retryAt: 0, member: null as Member | null })
  const listeners = new Set<Heard>()
  const waiters = new Map<string, Waiter>()
  let timer: ReturnType<typeof setTimeout> | undefined
  let running = false
  let again = false
  let failures = 0

  const mine = computed(() => box.entries.filter((entry) => entry.member === box.member?.id))
  const waiting = computed(() => mine.value.filter((entry) => !entry.refused))
  const refused = computed(() => mine.value.filter((entry) => entry.refused))
  const others = computed(() => box.entries.filter((entry) => entry.member !== box.member?.id))

  /** Who is at work on this device now. Nothing is sent for anybody else. */
  function as(member: Member | null): void {
    if (member?.id === box.member?.id && box.state !== 'signed-out') return
    box.member = member
    box.state = member ? 'idle' : 'signed-out'
    failures = 0
    void flush()
  }

  /** Keep a write and send it. Throws StorageFull, and then nothing was kept. */
  function add<P extends WritePath>(
    path: P,
    params: PathOf<P>,
    body: BodyOf<P>,
    about: About,
    more: Partial<Entry> = {},
  ): Entry {
    if (!box.member) throw new Refused(401, 'Log in first.', '', true)
    const uuid = more.uuid ?? (body as { uuid?: string } | undefined)?.uuid
    if (!uuid) throw new Error('what is kept needs a UUID')
    const entry: Entry = {
      member: box.member.id,
      name: box.member.name,
      path,
      params: { ...(params as Entry['params'] | undefined) },
      body: { ...(body as Entry['body'] | undefined) },
      about,
      order: nextInLine(storage, box.entries),
      ...more,
      uuid,
    }
    keep(storage, PREFIX + uuid, JSON.stringify(entry))
    box.entries.push(entry)
    void flush()
    return entry
  }

  /** A reading. One that was refused at the same place has been dealt with by typing again. */
  function put(walkAround: string, body: NewReading, about: About): void {
    add(READINGS, { walk_around_id: walkAround }, body, about)
    for (const old of refused.value) {
      if (
        isReading(old) &&
        walkAroundOf(old) === walkAround &&
        old.body.check === body.check &&
        old.body.position === body.position
      )
        drop(old.uuid)
    }
  }
  const hold = (walkAround: string, body: NewHold, about: About): void =>
    void add(HOLDS, { walk_around_id: walkAround }, body, about)

  /** Keep a write, send it, and wait for the answer; while `alive`, a refusal is the caller's, who shows it where it was typed. */
  function post<P extends WritePath>(
    path: P,
    params: PathOf<P>,
    body: BodyOf<P>,
    about: About,
    alive: () => boolean = () => false,
    more: Partial<Entry> = {},
  ): Promise<AnswerOf<P>> {
    return new Promise((resolve, reject) => {
      const uuid = add(path, params, body, about, more).uuid
      waiters.set(uuid, { alive, resolve: resolve as Waiter['resolve'], reject })
    })
  }

  /** Whoever posted it waits no longer: what the server says of it is kept with it. */
  const letGo = (uuid: string): void => void waiters.delete(uuid)

  function forget(uuid: string): void {
    storage.removeItem(PREFIX + uuid)
    const at = box.entries.findIndex((entry) => entry.uuid === uuid)
    if (at >= 0) box.entries.splice(at, 1)
  }

  /** Somebody has dealt with it; what was to follow it goes with it. */
  function drop(uuid: string): void {
    const entry = box.entries.find((one) => one.uuid === uuid)
    for (const one of box.entries.filter((other) => other.after === uuid)) drop(one.uuid)
    forget(uuid)
    if (entry?.blob) void blobs.remove(uuid)
    channel?.postMessage({ dropped: uuid })
    if (entry && isBegin(entry)) void flush() // what waited for it
  }

  /** What was typed in a walk-around that is still to begin. */
  const typedIn = (begin: Entry): Entry[] =>
    mine.value.filter((entry) => !isBegin(entry) && walkAroundOf(entry) === walkAroundOf(begin))

  /** It cannot begin: what was typed in it goes into another one of the machine. How the machine stands is confirmed anew there. */
  function instead(begin: Entry, walk_around_id: string): void {
    for (const entry of typedIn(begin)) {
      if (isHold(entry)) drop(entry.uuid)
      else
        keep(
          storage,
          PREFIX + entry.uuid,
          JSON.stringify(Object.assign(entry, { params: { ...entry.params, walk_around_id } })),
        )
    }
    drop(begin.uuid)
  }

  /** Try one again: as it was refused, or as the member's own where nobody's name stood on it. */
  function retry(uuid: string): void {
    const entry = box.entries.find((one) => one.uuid === uuid)
    if (!entry || !box.member) return
    delete entry.refused
    if (!entry.member) Object.assign(entry, { member: box.member.id, name: box.member.name })
    keep(storage, PREFIX + uuid, JSON.stringify(entry))
    void flush()
  }

  function answered(entry: Entry, data: unknown): void {
    forget(entry.uuid)
    if (entry.blob) void blobs.remove(entry.uuid)
    for (const heard of listeners) heard.answered?.(entry, data)
    waiters.get(entry.uuid)?.resolve(data as never)
    waiters.delete(entry.uuid)
  }

  function notTaken(entry: Entry, problem: Refused): void {
    const waiter = waiters.get(entry.uuid)
    waiters.delete(entry.uuid)
    if (waiter?.alive()) {
      // It stands in the form it was typed into, with the reason beside it, and what was to follow it too.
      for (const one of box.entries.filter((other) => other.after === entry.uuid)) forget(one.uuid)
      forget(entry.uuid)
      return waiter.reject(problem)
    }
    const refusal = refusalOf(problem)
    const here = box.entries.find((one) => one.uuid === entry.uuid)
    if (here) here.refused = refusal
    try {
      keep(storage, PREFIX + entry.uuid, JSON.stringify({ ...entry, refused: refusal }))
    } catch {
      // It is kept as it was, and asked for again after a reload; here it is known to be refused.
    }
    for (const heard of listeners) heard.refused?.(entry, problem)
  }

  /** What other tabs have kept since, and what they have settled. */
  function look(): void {
    const now = stored(storage)
    const state = (entries: Entry[]): string =>
      entries.map((entry) => `${entry.uuid} ${entry.member} ${entry.refused?.at ?? ''} ${walkAroundOf(entry)}`).join()
    if (state(now) !== state(box.entries)) box.entries = now
    // Refused in another tab, typed in a form of this one.
    for (const entry of now)
      if (entry.refused && waiters.has(entry.uuid))
        notTaken(
          entry,
          new Refused(entry.refused.status, entry.refused.message, entry.refused.field, true, entry.refused.figures),
        )
  }

  /** The server has said what became of it. */
  function settle(entry: Entry, said: unknown): void {
    if (said instanceof Refused) return notTaken(entry, said)
    channel?.postMessage({ answered: entry, data: JSON.parse(JSON.stringify(said ?? null)) as unknown })
    answered(entry, said)
  }

  /** Send what waits, in order, readings together; pictures after everything else. Stops when nobody answers, and tries again later. */
  async function flush(): Promise<void> {
    if (running) return void (again = true)
    running = true
    clearTimeout(timer)
    try {
      do {
        again = false
        await alone(pass)
      } while (again)
    } finally {
      running = false
    }
  }

  async function pass(): Promise<void> {
    if (!box.member) return
    look()
    const failed = new Set<string>()
    const apart = new Set<string>()
    for (;;) {
      const ready = inTurn(mine.value).filter((entry) => !failed.has(entry.uuid))
      if (!ready.length) break
      // While the way is known to be down the state stays "away": it changes when an answer comes, not when we hope.
      if (box.state !== 'away') box.state = 'sending'
      const group = together ? goingTogether(ready, apart) : []
      const entries = JSON.parse(JSON.stringify(group.length > 1 ? group : [ready[0]])) as Entry[]
      try {
        const answers = group.length > 1 ? await together!(entries as ReadingEntry[]) : [await send(entries[0]!)]
        failures = 0
        box.state = 'sending'
        entries.forEach((entry, i) => settle(entry, answers[i]))
      } catch (error) {
        if (!(error instanceof Refused)) throw error
        if (error.status === 401) return void (box.state = 'signed-out')
        if (error.passing && NOBODY_ANSWERS.includes(error.status)) return later()
        // Whose fault it is shows when each goes by itself.
        if (entries.length > 1) for (const entry of entries) apart.add(entry.uuid)
        else if (error.passing) failed.add(entries[0]!.uuid)
        else notTaken(entries[0]!, error)
      }
    }
    if (failed.size) return later()
    box.state = 'idle'
    if (!box.entries.length) allAnswered()
  }

  function later(): void {
    const pause = PAUSES[Math.min(failures, PAUSES.length - 1)]!
    failures++
    holdOn()
    box.state = 'away'
    box.retryAt = Date.now() + pause
    timer = setTimeout(() => void flush(), pause)
  }

  if (channel) {
    channel.onmessage = (event: MessageEvent<{ answered?: Entry; data?: unknown; dropped?: string }>) => {
      if (event.data.answered) answered(event.data.answered, event.data.data)
      else look()
    }
  }

  return {
    box,
    mine,
    waiting,
    refused,
    others,
    as,
    add,
    put,
    hold,
    post,
    drop,
    letGo,
    /** Back into the form it came from: its picture stays in the browser's store. */
    takeOut: forget,
    typedIn,
    instead,
    retry,
    flush,
    look,
    on: (heard: Heard): (() => void) => {
      listeners.add(heard)
      return () => listeners.delete(heard)
    },
    /** Whether a walk-around was begun on this device, and the server has not said yes to it. */
    begins: (walkAround: string): boolean => mine.value.some((entry) => isBegin(entry) && walkAroundOf(entry) === walkAround),
    /** Such walk-arounds by their machines, the newest of each. */
    begun: computed(() => new Map(mine.value.filter(isBegin).map((entry) => [Number(entry.params.machine_id), entry.uuid]))),
    /** The writes of whoever is logged in that belong to a walk-around and are on their way. */
    of: (walkAround: string): Entry[] => waiting.value.filter((entry) => walkAroundOf(entry) === walkAround),
    refusedAt: (walkAround: string): ReadingEntry[] =>
      refused.value.filter((entry): entry is ReadingEntry => isReading(entry) && walkAroundOf(entry) === walkAround),
  }
}

export type Outbox = ReturnType<typeof makeOutbox>

export const outbox = makeOutbox(
  overTheWire,
  localStorage,
  typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('lumvek:outbox'),
  togetherOverTheWire,
)

/** From the first screen on: whenever there is a chance that something can be sent, it is. */
export function keepSending(): void {
  addEventListener('online', () => void outbox.flush())
  addEventListener('storage', (event) => {
    if (event.key?.startsWith(PREFIX)) outbox.look()
  })
  document.addEventListener('visibilitychange', () => {
    if (!document.hidden) void outbox.flush()
  })
}

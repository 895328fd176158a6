/**
 * The server's time, as well as this device knows it. Every answer carries the server's clock; the answer that was quickest says best
 * how far this device's own clock is off. What was typed last is decided by this time, whichever device it was typed on.
 */
const KEY = 'lumvek:clock'
/** An older measurement gives way to one that is this much slower, for clocks drift. */
const STALE_MS = 10 * 60_000

interface Offset {
  /** Milliseconds to add to this device's clock. */
  off: number
  /** How long the answer took that said so: the offset cannot be wrong by more than half of it. */
  took: number
  at: number
}

let best: Offset | null = read()
/** What the server's clock showed last. */
let heardLast = 0

function read(): Offset | null {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? 'null') as Offset | null
  } catch {
    return null
  }
}

/** An answer came: sent and received by this device's clock, and what the server's showed. */
export function heardClock(sent: number, received: number, server: number): void {
  const took = received - sent
  if (!Number.isFinite(server) || took < 0) return
  heardLast = Math.max(heardLast, server)
  const off = server - (sent + received) / 2
  // A clock that was set meanwhile shows as a jump no slow answer explains.
  const jumped = best && Math.abs(off - best.off) > (took + best.took) / 2 + 1000
  if (best && !jumped && took > best.took && received - best.at < STALE_MS) return
  best = { off, took, at: received }
  try {
    localStorage.setItem(KEY, JSON.stringify(best))
  } catch {
    // Measured again with the next answer.
  }
}

const now = (): number => Date.now() + (best?.off ?? 0)

/** Now, by the server's clock. */
export const serverNow = (): string => new Date(now()).toISOString()

const NEWEST = 'lumvek:typed-at'

/**
 * When something is typed, for whatever is kept of it: never before what was typed on this device before it, also where its clock was
 * set back meanwhile. The server takes no moment that is still to come for more than its own now.
 */
export function typedAt(): string {
  const moment = Math.max(now(), Number(localStorage.getItem(NEWEST) ?? 0) + 1)
  try {
    localStorage.setItem(NEWEST, String(moment))
  } catch {
    // The entry itself will not fit either, and says so.
  }
  return new Date(moment).toISOString()
}

/**
 * Everything typed has its answer: a clock that was ahead for a while has no say any more. The server has taken what was still to come
 * for its own now, so that this is the newest there is.
 */
export function allAnswered(): void {
  const newest = Math.max(now(), heardLast)
  if (Number(localStorage.getItem(NEWEST) ?? 0) > newest) localStorage.setItem(NEWEST, String(newest))
}

/**
 * What the server answered last, kept on this device and shown where the server cannot be reached, always with the moment it was so.
 *
 * Only what is wanted beside a machine is kept, only for the member who read it, and only where the product itself can be opened
 * without a connection (`offline/worker.ts`). It goes when they log out, when the server no longer knows their login, and with age.
 */
import { reactive } from 'vue'
import { serverNow } from './clock'
import { fetchInTurn } from './inTurn'
import { BETWEEN, connection, unheard } from './connection'
import { KEPT_AT, MEMBER } from './headers'
import type { paths } from './schema'

const KEPT: (keyof paths)[] = [
  '/api/session',
  '/api/machines',
  '/api/machines/{machine_id}/start',
  '/api/machines/{machine_id}/beforehand',
  '/api/walk-arounds/{walk_around_id}',
  '/api/walk-arounds/{walk_around_id}/findings',
  '/api/walk-arounds/{walk_around_id}/map',
  '/api/walk-arounds/{walk_around_id}/parts',
  '/api/walk-arounds/{walk_around_id}/summary',
  '/api/season',
  '/api/field/daily',
  '/api/field/machines/{machine_id}/card',
  '/api/field/machines/{machine_id}/daily',
]
export const SESSION = '/api/session'
const PATTERN = new RegExp(`^(${KEPT.map((path) => path.replace(/\{\w+\}/g, '[^/]+')).join('|')})$`)

/** Enough for a workshop's board and the machines of a day. */
const MOST = 100
/** As long as a login lasts. */
const OLDEST_MS = 14 * 24 * 60 * 60_000
/** What is taken along is not asked for again before. */
const FRESH_MS = 60 * 60_000
/** Where an older answer is at hand nobody waits longer for a new one. */
const PATIENCE_MS = 6000
const PATIENCE_LOST_MS = 1500
const SHELF = 'lumvek-answers-'

/** What stands on the screen from before: its address, and when it was so. */
export const shown = reactive(new Map<string, string>())

/** Who works here: 0 is nobody, undefined not known yet. */
let member: number | undefined
/** Theirs, and in the units they read in: what was read in others would be shown beside them. */
let shelf = SHELF
/** Whether the product can be opened here without a connection: else nothing of this would ever be seen. */
let worthwhile: boolean | undefined
let decide: () => void
const decided = new Promise<void>((go) => (decide = go))
/** What was read before that was known. */
const early = new Map<string, string>()
/** Not there where the way here is not safe, and then nothing is kept. */
const store = (): CacheStorage | undefined => globalThis.caches

async function drop(which: (shelf: string) => boolean): Promise<void> {
  early.clear()
  shown.clear()
  // A browser that lets nobody at its store has kept nothing either.
  const names =
    (await store()
      ?.keys()
      .catch(() => [])) ?? []
  await Promise.all(names.filter((name) => name.startsWith(SHELF) && which(name)).map((name) => store()?.delete(name)))
}

/** Another screen: what is shown there is its own. */
export function leaveBehind(): void {
  for (const url of [...shown.keys()]) if (url !== SESSION) shown.delete(url)
}

/** Who works here now, and their units; what was kept for anybody else, or in others, goes. */
export async function keepFor(id: number, units = ''): Promise<void> {
  const own = `${SHELF}${id}-${units}`
  if (id === member && own === shelf) return
  const first = member === undefined
  member = id
  shelf = own
  if (first && shown.has(SESSION)) return // who it is was kept itself
  await drop((name) => name !== own)
}

/** The server knows this login no longer. */
async function ended(): Promise<void> {
  const whose = shelf
  member = 0
  shelf = SHELF
  await drop((name) => name === whose)
}

/** Whether the product's own files are on the device. */
export async function keepOn(device: boolean): Promise<void> {
  worthwhile = device
  decide()
  const waiting = [...early]
  early.clear()
  for (const [url, body] of waiting) await remember(url, body)
}

/** Keep what an address says now. What cannot be kept is not there later; nothing typed is lost by it. */
export async function remember(url: string, body: string): Promise<void> {
  if (!member || worthwhile === false) return
  if (!worthwhile) return void early.set(url, body)
  const whose = shelf
  try {
    const open = await store()?.open(whose)
    await open?.put(url, new Response(body, { headers: { 'Content-Type': 'application/json', [KEPT_AT]: serverNow() } }))
    // Without the session none of it could be shown.
    const others = ((await open?.keys()) ?? []).filter((one) => new URL(one.url).pathname !== SESSION)
    await Promise.all(others.slice(0, Math.max(0, others.length - MOST)).map((oldest) => open?.delete(oldest)))
  } catch {
    // See above.
  }
  // Somebody else may have logged in, or nobody be, while this was on its way.
  if (whose !== shelf) await store()?.delete(whose)
}

async function forget(url: string): Promise<void> {
  if (member) await (await store()?.open(shelf))?.delete(url)
}

const ageOf = (kept?: Response): number => Date.now() - Date.parse(kept?.headers.get(KEPT_AT) ?? '')

/** What was kept of an address. Who works here is itself one of the answers, and asked for first. */
async function recall(url: string): Promise<Response | undefined> {
  const from = url === SESSION && member === undefined ? undefined : shelf
  const kept = await store()?.match(url, { cacheName: from })
  return ageOf(kept) < OLDEST_MS ? kept : undefined
}

export const fromBefore = (response: Response): boolean => response.headers.has(KEPT_AT)

/** What an address said last, to be shown without asking. */
export async function keptAnswer<T>(url: string): Promise<T | undefined> {
  const kept = await recall(url)
  if (!kept) return undefined
  shown.set(url, kept.headers.get(KEPT_AT)!)
  return (await kept.json()) as T
}

/** Ask the server; where it does not answer, what it said last. */
export async function fetchOrKept(request: Request): Promise<Response> {
  const asked = fetchInTurn(request)
  const { pathname, search } = new URL(request.url)
  if (request.method !== 'GET' || !PATTERN.test(pathname)) return asked
  const url = pathname + search
  const late = new Promise<undefined>((go) => setTimeout(go, connection.lost ? PATIENCE_LOST_MS : PATIENCE_MS))
  const first = await Promise.race([asked, late]).catch(() => undefined)
  if (first && !BETWEEN.includes(first.status)) {
    shown.delete(url)
    if (first.status === 401) void ended()
    else if (first.status === 403 || first.status === 404) void forget(url)
    else if (first.ok && url !== SESSION) void keep(url, first.clone())
    return first
  }
  const kept = request.signal.aborted ? undefined : await recall(url)
  if (!kept) return asked
  shown.set(url, kept.headers.get(KEPT_AT)!)
  unheard()
  return kept
}

const keep = async (url: string, answer: Response): Promise<void> => remember(url, await answer.text())

const underWay = new Set<string>()
/** Have these addresses on the device before anybody goes where there is no signal: one after the other, while the way is good. */
export async function takeAlong(addresses: string[]): Promise<void> {
  await decided
  for (const url of addresses) {
    if (!worthwhile || !member || connection.lost) return
    if (underWay.has(url)) continue
    underWay.add(url)
    try {
      if (ageOf(await recall(url)) < FRESH_MS) continue
      const answer = await fetch(url, { headers: { [MEMBER]: String(member) } }).catch(() => undefined)
      if (!answer) return
      if (answer.ok) await remember(url, await answer.text())
    } finally {
      underWay.delete(url)
    }
  }
}

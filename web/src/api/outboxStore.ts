/** The storage of what is on its way, and the way itself: how an entry is kept, read again and sent. */
import { blobs } from './blobs'
import { api, Refused, write } from './client'
import { FROM_BOX, MEMBER } from './headers'
import { HOLDS, READINGS, type Entry } from './outboxEntry'
import { keep } from './storage'

export const PREFIX = 'lumvek:outbox:'
const ANSWER_WITHIN_MS = 20_000
const PICTURE_WITHIN_MS = 120_000

export type Send = (entry: Entry) => Promise<unknown>

/** Entries of a version that did not yet write down whose they are: nobody's, until somebody says that they are his. */
interface Nameless {
  walkAround?: string
  what?: string
  order: number
  body?: { uuid?: string; raw?: string[]; check?: string; position?: string }
}
function named(found: Entry & Nameless): Entry | null {
  if (found.uuid && found.path) return found
  const { body, walkAround, order } = found
  if (!body?.uuid || !walkAround) return null
  const about = { what: `${body.check ?? 'locks'} ${body.position ?? ''}`.trim(), shown: body.raw?.join(' · ') }
  return {
    uuid: body.uuid,
    member: 0,
    name: '',
    path: found.what === 'hold' ? HOLDS : READINGS,
    params: { walk_around_id: walkAround },
    body: body as Entry['body'],
    about,
    order,
  }
}

/** What is in the storage, oldest first. What is not ours to understand is left where it is rather than lost. */
export function stored(storage: Storage): Entry[] {
  const found: Entry[] = []
  for (let i = 0; i < storage.length; i++) {
    const key = storage.key(i)
    if (!key?.startsWith(PREFIX)) continue
    try {
      const entry = named(JSON.parse(storage.getItem(key) ?? '') as Entry & Nameless)
      if (entry) found.push(entry)
    } catch {
      // See above.
    }
  }
  return found.sort((a, b) => a.order - b.order)
}

const LINE = 'lumvek:outbox-order'
/** The number of the next entry: counted, for a clock may be set back between two of them. */
export function nextInLine(storage: Storage, there: Entry[]): number {
  const next = Math.max(Number(storage.getItem(LINE) ?? 0), ...there.map((entry) => entry.order)) + 1
  keep(storage, LINE, String(next))
  return next
}

export const overTheWire: Send = async (entry) => {
  const headers = { [MEMBER]: String(entry.member), [FROM_BOX]: '1' }
  const signal = AbortSignal.timeout(entry.blob ? PICTURE_WITHIN_MS : ANSWER_WITHIN_MS)
  const params = { path: entry.params }
  if (!entry.blob) return write(() => api.POST(entry.path, { params, body: entry.body, headers, signal } as never))
  const picture = await blobs.get(entry.uuid)
  if (!picture) throw new Refused(410, 'The picture is no longer on this device.', 'photo', true)
  const form = new FormData()
  for (const [key, value] of Object.entries({ ...entry.body, uuid: entry.uuid })) form.set(key, String(value))
  form.set('photo', picture, 'photo.jpg')
  return write(() =>
    api.POST(entry.path, { params, body: form, headers, signal, bodySerializer: (body: FormData) => body } as never),
  )
}

/** One tab at a time, where the browser can say so; sending twice does no harm, it is only waste. */
export const alone = <T>(what: () => Promise<T>): Promise<T> =>
  (typeof navigator !== 'undefined' && navigator.locks ? navigator.locks.request('lumvek:outbox', what) : what()) as Promise<T>

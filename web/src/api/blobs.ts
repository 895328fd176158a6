/**
 * Pictures that wait: too large for localStorage, so they lie in IndexedDB under the UUID of their entry in the outbox. The package for
 * it is loaded with the first screen that takes pictures.
 */
import type { Table } from 'dexie'

interface Kept {
  uuid: string
  blob: Blob
}

let photos: Promise<Table<Kept, string>> | undefined
async function open(): Promise<Table<Kept, string>> {
  const { default: Dexie } = await import('dexie')
  const store = new Dexie('lumvek')
  store.version(1).stores({ photos: 'uuid, walkAround' })
  return store.table('photos')
}
const table = (): Promise<Table<Kept, string>> => (photos ??= open())

export const blobs = {
  /** Loaded before it is needed: where there is no signal it could not be. */
  ready: (): void => void table().catch(() => (photos = undefined)),
  put: async (uuid: string, blob: Blob): Promise<void> => void (await (await table()).put({ uuid, blob })),
  get: async (uuid: string): Promise<Blob | undefined> => (await (await table()).get(uuid))?.blob,
  remove: async (uuid: string): Promise<void> => (await table()).delete(uuid),
}

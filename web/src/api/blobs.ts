/** Pictures that wait: too large for localStorage, so they lie in IndexedDB under the UUID of their entry in the outbox. */
import Dexie, { type Table } from 'dexie'

class Store extends Dexie {
  photos!: Table<{ uuid: string; blob: Blob }, string>
  constructor() {
    super('lumvek')
    this.version(1).stores({ photos: 'uuid, walkAround' })
  }
}

let store: Store | undefined
const photos = (): Table<{ uuid: string; blob: Blob }, string> => (store ??= new Store()).photos

export const blobs = {
  put: (uuid: string, blob: Blob): Promise<unknown> => photos().put({ uuid, blob }),
  get: async (uuid: string): Promise<Blob | undefined> => (await photos().get(uuid))?.blob,
  remove: (uuid: string): Promise<void> => photos().delete(uuid),
}

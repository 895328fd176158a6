/** Writing to this device's storage, where it can be full: an alarm, and the text stays where it was typed. */
import { reactive } from 'vue'

/** Shown on every screen while it lasts. */
export const storageAlarm = reactive({ full: false })

let asked = false
/** Something waits: the browser is asked, once, not to clear this device's storage away when room runs short. */
export function holdOn(): void {
  if (asked) return
  asked = true
  // Where it does not know how, or will not, storage is what it always was.
  void globalThis.navigator.storage?.persist?.().catch(() => undefined)
}

/** What could not be kept is still in its field. */
export class StorageFull extends Error {
  constructor() {
    super(
      'This device has no room left to keep what is typed. It stays in its field: free some room, or wait until what waits is sent.',
    )
  }
}

/** Keep a text under a key. Throws StorageFull. */
export function keep(storage: Storage, key: string, text: string): void {
  try {
    storage.setItem(key, text)
    storageAlarm.full = false
  } catch {
    storageAlarm.full = true
    throw new StorageFull()
  }
}

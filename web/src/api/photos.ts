/**
 * Pictures on their way to the server. They are shrunk here, which also drops everything a camera writes beside the picture, kept
 * in IndexedDB until the server has them, and sent one after the other. Sending one twice keeps it once.
 */
import Dexie, { type Table } from 'dexie'
import { reactive } from 'vue'
import { answer, renewCsrf, csrfToken, Refused, type Photo } from './client'
import { newUuid } from './uuid'

export interface WaitingPhoto {
  uuid: string
  walkAround: string
  check: string
  position: string
  caption: string
  blob: Blob
}

const LONGEST_SIDE = 1600
const QUALITY = 0.82
const AGAIN = 4000

class Store extends Dexie {
  photos!: Table<WaitingPhoto, string>
  constructor() {
    super('lumvek')
    this.version(1).stores({ photos: 'uuid, walkAround' })
  }
}
const store = new Store()

export const photoBox = reactive({ waiting: 0, problem: '' })
const heard = new Set<(walkAround: string, photos: Photo[]) => void>()
let running = false

/** The picture as a JPEG of at most `LONGEST_SIDE`, drawn anew: no place, no device, no date goes along. */
export async function shrink(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(picture.width * scale))
  canvas.height = Math.max(1, Math.round(picture.height * scale))
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
  picture.close()
  return new Promise((resolve, reject) => canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), 'image/jpeg', QUALITY))
}

/** Keep a picture and send it. Throws a sentence when the file is none. */
export async function keepPhoto(file: File, at: { walkAround: string; check: string; position: string; caption: string }): Promise<void> {
  let blob: Blob
  try {
    blob = await shrink(file)
  } catch {
    throw new Error('That file is not a picture this device can read.')
  }
  await store.photos.put({ uuid: newUuid(), blob, ...at })
  void sendPhotos()
}

export async function sendPhotos(): Promise<void> {
  if (running) return
  running = true
  try {
    for (;;) {
      photoBox.waiting = await store.photos.count()
      const item = await store.photos.toCollection().first()
      if (!item) return
      try {
        const photos = await send(item)
        await store.photos.delete(item.uuid)
        photoBox.problem = ''
        for (const tell of heard) tell(item.walkAround, photos)
      } catch (error) {
        if (!(error instanceof Refused)) throw error
        if (error.passing || error.status === 401) return void setTimeout(() => void sendPhotos(), AGAIN)
        await store.photos.delete(item.uuid)
        photoBox.problem = `A picture was refused: ${error.message}`
      }
    }
  } finally {
    running = false
  }
}

async function send(item: WaitingPhoto): Promise<Photo[]> {
  if (!csrfToken()) await renewCsrf()
  const body = new FormData()
  for (const key of ['uuid', 'check', 'position', 'caption'] as const) body.set(key, item[key])
  body.set('photo', item.blob, 'photo.jpg')
  return answer<Photo[]>(
    fetch(`/api/walk-arounds/${item.walkAround}/photos`, { method: 'POST', body, headers: { 'X-CSRFToken': csrfToken() } }).then(async (response) => {
      const json: unknown = await response.json().catch(() => undefined)
      return response.ok ? { data: json as Photo[], response } : { error: json, response }
    }),
  )
}

export function onPhotos(tell: (walkAround: string, photos: Photo[]) => void): () => void {
  heard.add(tell)
  return () => heard.delete(tell)
}

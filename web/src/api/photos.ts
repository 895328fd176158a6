/** Pictures: shrunk here, which also drops everything a camera writes beside the picture, and put into the outbox. */
import { blobs } from './blobs'
import type { BodyOf, PathOf } from './client'
import { outbox, type About } from './outbox'
import { newUuid } from './uuid'

blobs.ready()
const LONGEST_SIDE = 1600
const QUALITY = 0.82

type PhotoPath =
  | '/api/walk-arounds/{walk_around_id}/photos'
  | '/api/walk-arounds/{walk_around_id}/strip-pictures'
  | '/api/machines/{machine_id}/notes/{note_id}/photos'
  | '/api/machines/{machine_id}/pictures'

/** The picture as a JPEG of at most `LONGEST_SIDE`, drawn anew: no place, no device, no date goes along. */
export async function shrink(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(picture.width * scale))
  canvas.height = Math.max(1, Math.round(picture.height * scale))
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
  picture.close()
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), 'image/jpeg', QUALITY),
  )
}

/** Store a picture in the browser, under a UUID of its own, before it is shown. Throws a sentence where it is none or has no room. */
export async function storePhoto(file: Blob): Promise<string> {
  let blob: Blob
  try {
    blob = await shrink(file)
  } catch {
    throw new Error('That file is not a picture this device can read.')
  }
  const uuid = newUuid()
  try {
    await blobs.put(uuid, blob)
  } catch {
    throw new Error('This device has no room left to keep the picture.')
  }
  return uuid
}

/** Send a stored picture; `after`: only once the server has taken that entry. */
export function sendPhoto<P extends PhotoPath>(
  uuid: string,
  path: P,
  params: PathOf<P>,
  body: Record<string, string>,
  about: About,
  after?: string,
): void {
  outbox.add(path, params, body as unknown as BodyOf<P>, about, { uuid, blob: true, after })
}

/** Keep a picture of a walk-around's place or of a machine and send it. Throws a sentence where it cannot be kept. */
export async function keepPhoto<P extends PhotoPath>(
  file: Blob,
  path: P,
  params: PathOf<P>,
  body: Record<string, string>,
  about: About,
): Promise<void> {
  sendPhoto(await storePhoto(file), path, params, body, about)
}

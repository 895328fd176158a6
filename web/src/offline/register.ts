/** From the first screen on: the product's own files are laid on the device, where the browser can do that and the way here is safe. */
import { keepOn } from '@/api/kept'

export async function openWithoutConnection(): Promise<void> {
  try {
    const laid = import.meta.env.PROD && (await navigator.serviceWorker?.register('/static/worker.js', { scope: '/' }))
    if (!laid) return await keepOn(false)
    await navigator.serviceWorker.ready
    await keepOn(true)
  } catch {
    await keepOn(false)
  }
}

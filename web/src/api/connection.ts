/** Whether the server can be reached: every request that is made anyway tells it; while it cannot, it is asked for quietly. */
import { reactive, watch } from 'vue'

export const connection = reactive({ lost: false })
const AGAIN_MS = 10_000
/** What stands between here and there answers for the server with these. */
export const BETWEEN = [502, 503, 504]

export const heard = (status: number): void => void (connection.lost = BETWEEN.includes(status))
export const unheard = (): void => void (connection.lost = true)
export const look = (): Promise<void> => fetch('/health').then((response) => heard(response.status), unheard)

/** Returns what ends it. */
export function keepLooking(): () => void {
  let looking: ReturnType<typeof setInterval> | undefined
  const stop = watch(
    () => connection.lost,
    (lost) => {
      clearInterval(looking)
      if (lost) looking = setInterval(() => void look(), AGAIN_MS)
    },
  )
  const now = (): void => void look()
  window.addEventListener('offline', unheard)
  window.addEventListener('online', now)
  return () => {
    stop()
    clearInterval(looking)
    window.removeEventListener('offline', unheard)
    window.removeEventListener('online', now)
  }
}

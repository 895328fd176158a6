/** The phone's own motion sensor: what it feels for some seconds, as the table of time and three directions that the server reads. */

export interface Felt {
  /** Seconds since the first. */
  at: number
  x: number
  y: number
  z: number
}

/** Whether this device says that it feels at all. */
export const feels = (): boolean => typeof window !== 'undefined' && 'DeviceMotionEvent' in window

/** As a CSV that any program reads. */
export const asCsv = (felt: Felt[]): string =>
  [
    'time_s,x,y,z',
    ...felt.map((one) => [one.at.toFixed(4), one.x.toFixed(4), one.y.toFixed(4), one.z.toFixed(4)].join(',')),
  ].join('\n')

/** Records until `seconds` have passed or it is stopped. tell: how far it is. Rejects where nothing is felt. */
export async function record(seconds: number, tell: (done: number) => void, stopped: AbortSignal): Promise<Felt[]> {
  const asks = (DeviceMotionEvent as unknown as { requestPermission?: () => Promise<string> }).requestPermission
  if (asks && (await asks()) !== 'granted') throw new Error('This phone does not let the page use its motion sensor.')
  return new Promise((done, failed) => {
    const felt: Felt[] = []
    let begun = 0
    const take = (event: DeviceMotionEvent): void => {
      const force = event.acceleration?.x != null ? event.acceleration : event.accelerationIncludingGravity
      if (!force || force.x == null) return
      begun ||= event.timeStamp
      const at = (event.timeStamp - begun) / 1000
      if (felt.length && at <= felt.at(-1)!.at) return
      felt.push({ at, x: force.x, y: force.y ?? 0, z: force.z ?? 0 })
      tell(at)
      if (at >= seconds) end()
    }
    const silent = window.setTimeout(() => {
      if (!felt.length) {
        leave()
        failed(new Error('This device feels nothing: it has no motion sensor, or the page may not use it.'))
      }
    }, 3000)
    function leave(): void {
      clearTimeout(silent)
      window.removeEventListener('devicemotion', take)
      stopped.removeEventListener('abort', end)
    }
    function end(): void {
      leave()
      done(felt)
    }
    stopped.addEventListener('abort', end)
    window.addEventListener('devicemotion', take)
  })
}

import { afterEach, expect, it, vi } from 'vitest'
import { asCsv, record } from './motion'

afterEach(() => vi.unstubAllGlobals())

const felt = (at: number, x: number): Event => {
  const event = new Event('devicemotion')
  Object.assign(event, { acceleration: { x, y: 0.5, z: -1 } })
  Object.defineProperty(event, 'timeStamp', { value: at })
  return event
}

it('records what is felt until the time has passed, as a table', async () => {
  vi.stubGlobal('DeviceMotionEvent', class {})
  const told: number[] = []
  const recorded = record(0.03, (at) => told.push(at), new AbortController().signal)
  await Promise.resolve()
  for (const at of [1000, 1010, 1010, 1020, 1030, 1040]) window.dispatchEvent(felt(at, at / 1000))
  const found = await recorded
  expect(found.map((one) => Number(one.at.toFixed(3)))).toEqual([0, 0.01, 0.02, 0.03])
  expect(told.at(-1)).toBeCloseTo(0.03)
  expect(asCsv(found).split('\n').slice(0, 2)).toEqual(['time_s,x,y,z', '0.0000,1.0000,0.5000,-1.0000'])
})

it('says so where the phone does not allow it', async () => {
  vi.stubGlobal('DeviceMotionEvent', { requestPermission: () => Promise.resolve('denied') })
  await expect(record(1, () => {}, new AbortController().signal)).rejects.toThrow('does not let the page')
})

it('keeps what there is when it is stopped', async () => {
  vi.stubGlobal('DeviceMotionEvent', class {})
  const stop = new AbortController()
  const recorded = record(60, () => {}, stop.signal)
  await Promise.resolve()
  window.dispatchEvent(felt(500, 1))
  stop.abort()
  expect(await recorded).toHaveLength(1)
})

/** The camera reads a label once and lets go; refused, it says so; where no browser can read, there is no button. */
import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import ScanButton from './ScanButton.vue'

const stopped = vi.fn()
const camera = { getUserMedia: vi.fn() }
let labels: string[]

function give(reads: boolean): void {
  if (reads)
    vi.stubGlobal(
      'BarcodeDetector',
      class {
        detect = async () => [labels.shift()].filter(Boolean).map((rawValue) => ({ rawValue }))
      },
    )
  Object.defineProperty(navigator, 'mediaDevices', { value: camera, configurable: true })
}

describe('scanning', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    labels = []
    stopped.mockClear()
    camera.getUserMedia.mockReset().mockResolvedValue({ getTracks: () => [{ stop: stopped }] })
    vi.spyOn(HTMLMediaElement.prototype, 'play').mockResolvedValue()
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
    vi.restoreAllMocks()
  })

  it('is not there where the browser cannot read a label', () => {
    give(false)
    expect(
      mount(ScanButton, { props: { label: 'motor' } })
        .find('button')
        .exists(),
    ).toBe(false)
  })

  it('looks until there is a label, gives its number once and lets the camera go', async () => {
    give(true)
    labels = ['', ' M-1180 ', 'M-1181']
    const scan = mount(ScanButton, { props: { label: 'motor' } })
    await scan.find('button').trigger('click')
    await flushPromises()
    await vi.advanceTimersByTimeAsync(1000)
    expect(scan.emitted('scanned')).toEqual([['M-1180']])
    expect(stopped).toHaveBeenCalledTimes(1)
    expect(scan.find('button').text()).toBe('Scan')
  })

  it('stops when it is pressed again, and when its screen goes', async () => {
    give(true)
    const scan = mount(ScanButton, { props: { label: 'motor' } })
    await scan.find('button').trigger('click')
    await flushPromises()
    await scan.find('button').trigger('click')
    expect(stopped).toHaveBeenCalledTimes(1)
    labels = ['M-1180']
    await vi.advanceTimersByTimeAsync(1000)
    expect(scan.emitted('scanned')).toBeUndefined()
    await scan.find('button').trigger('click')
    await flushPromises()
    scan.unmount()
    expect(stopped).toHaveBeenCalledTimes(2)
  })

  it('says where the camera is not given, and the number is typed', async () => {
    give(true)
    camera.getUserMedia.mockRejectedValue(new Error('denied'))
    const scan = mount(ScanButton, { props: { label: 'motor' } })
    await scan.find('button').trigger('click')
    await flushPromises()
    expect(scan.find('[role=alert]').text()).toContain('Type the number')
  })
})

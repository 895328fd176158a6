import { describe, expect, it } from 'vitest'
import { deviceName } from './deviceName'

const BASE = 'AppleWebKit/537.36 (KHTML, like Gecko)'

describe('what a browser says of itself, in words', () => {
  it.each([
    [`Mozilla/5.0 (X11; Linux x86_64) ${BASE} Chrome/140.0.0.0 Safari/537.36`, 'Chrome on Linux'],
    [`Mozilla/5.0 (Linux; Android 14) ${BASE} Chrome/140.0.0.0 Mobile Safari/537.36`, 'Chrome on Android'],
    [`Mozilla/5.0 (Windows NT 10.0) ${BASE} Chrome/140.0 Safari/537.36 Edg/140.0`, 'Edge on Windows'],
    ['Mozilla/5.0 (Macintosh; Intel Mac OS X 14_5) AppleWebKit/605.1.15 Version/17.5 Safari/605.1.15', 'Safari on a Mac'],
    [
      'Mozilla/5.0 (iPhone; CPU iPhone OS 17_5 like Mac OS X) AppleWebKit/605.1.15 Safari/604.1',
      'Safari on an Apple telephone or tablet',
    ],
    ['Mozilla/5.0 (X11; Linux x86_64; rv:130.0) Gecko/20100101 Firefox/130.0', 'Firefox on Linux'],
    ['curl/8.5.0', 'Another program'],
    ['', 'Another program'],
  ])('%s', (agent, name) => expect(deviceName(agent)).toBe(name))
})

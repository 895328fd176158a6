import { describe, expect, it } from 'vitest'
import { Refused } from '@/api/client'
import { useAttempt } from './useAttempt'

describe('an attempt', () => {
  it('keeps what was refused and where, until the next one is done', async () => {
    const at = useAttempt()
    expect(await at.run(() => Promise.reject(new Refused(422, 'only 0 on the shelf', 'quantity', true)))).toBe(false)
    expect([at.problem, at.field]).toEqual(['Only 0 on the shelf', 'quantity'])
    expect(await at.run(() => Promise.resolve())).toBe(true)
    expect([at.problem, at.field]).toEqual(['', ''])
  })

  it('does one thing at a time, so that a second press does nothing', async () => {
    const at = useAttempt()
    let done = 0
    let release = (): void => undefined
    const first = at.run(() => new Promise<void>((resolve) => (release = resolve)).then(() => void done++))
    expect(at.busy).toBe(true)
    expect(await at.run(() => Promise.resolve(void done++))).toBe(false)
    release()
    await first
    expect([done, at.busy]).toEqual([1, false])
  })

  it('reads once more what was asked for while it was at it, and the newest stands', async () => {
    const at = useAttempt()
    const read: number[] = []
    let release = (): void => undefined
    const first = at.read(() => new Promise<void>((resolve) => (release = resolve)).then(() => void read.push(1)))
    const later = [2, 3].map((n) => at.read(() => Promise.resolve(void read.push(n))))
    release()
    await first
    expect(await Promise.all(later)).toEqual([true, true])
    expect([read, at.busy]).toEqual([[1, 3], false])
  })

  it('loses no press to a reading that is still on its way: it follows, once', async () => {
    const at = useAttempt()
    const done: string[] = []
    let release = (): void => undefined
    const reading = at.read(() => new Promise<void>((resolve) => (release = resolve)).then(() => void done.push('read')))
    expect([at.reading, at.busy], 'nobody is kept from pressing').toEqual([true, false])
    const pressed = at.run(() => Promise.resolve(void done.push('written')))
    expect(at.busy).toBe(true)
    const again = at.read(() => Promise.resolve(void done.push('read again')))
    expect(await at.run(() => Promise.resolve(void done.push('twice')))).toBe(false)
    release()
    expect(await Promise.all([reading, pressed, again])).toEqual([true, true, true])
    expect([done, at.busy, at.reading]).toEqual([['read', 'written', 'read again'], false, false])
  })

  it('has its own words for what nobody expected', async () => {
    const at = useAttempt('The list could not be read.')
    await at.run(() => Promise.reject(new Error('boom')))
    expect(at.problem).toBe('The list could not be read.')
  })
})

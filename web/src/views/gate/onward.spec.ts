import { describe, expect, it } from 'vitest'
import { onward } from './onward'

const HERE = 'https://shop.example'

describe('where one goes after logging in', () => {
  it.each([
    ['/machines/1?tab=wear#at', '/machines/1?tab=wear#at'],
    ['/walk-arounds/1/report.pdf', '/walk-arounds/1/report.pdf'],
    ['/', '/'],
  ])('%s is ours', (next, to) => {
    expect(onward(next, HERE)).toBe(to)
  })
  it.each([
    '//elsewhere.example/report',
    '/\\elsewhere.example/report',
    '/\t/elsewhere.example/report',
    '/\n\\elsewhere.example/report',
    'https://elsewhere.example/report',
    'javascript:alert(1)',
    '//',
    '/\\',
    '//[',
    '',
    ['/machines', '/wear'],
    null,
    undefined,
  ])('%j is not, and leads to the machines', (next) => {
    expect(onward(next, HERE)).toBe('/')
  })
})

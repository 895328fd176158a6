import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { roomIn } from './room'

describe('the room in a field', () => {
  it.each([
    [0, 500, null],
    [449, 500, null],
    [450, 500, 50],
    [500, 500, 0],
    [0, 40, null],
    [31, 40, null],
    [32, 40, 8],
    [12, -1, null],
  ])('of %i typed where %i may be is %s', (typed, most, left) => expect(roomIn(typed, most)).toBe(left))

  it('is known of every field that is typed into: each has an end, or takes a figure', () => {
    const endless: string[] = []
    for (const file of readdirSync('src', { recursive: true, encoding: 'utf8' }).filter((one) => one.endsWith('.vue'))) {
      const text = readFileSync(`src/${file}`, 'utf8')
      const template = text.slice(text.indexOf('<template'))
      for (const [, name, has] of template.matchAll(/<(InputText|Textarea|textarea|input)\b((?:[^>"]|"[^"]*")*)>/g)) {
        if (name === 'input' && /type="|readonly/.test(has!) && !/type="(text|search|email|password)"/.test(has!)) continue
        if (!/maxlength|inputmode|hidden/.test(has!))
          endless.push(`${file}: ${has!.trim().split(/\s+/).join(' ').slice(0, 80)}`)
      }
    }
    expect(endless).toEqual([])
  })
})

import { describe, expect, it } from 'vitest'
import { fromQuery, started, type Subject, takenFor, toQuery } from './address'

const subject = {
  key: 'opener',
  name: '',
  group: '',
  about: '',
  drawing: '',
  order: [],
  source: '',
  safety: '',
  takes_file: '',
  fields: [
    {
      key: 'disc',
      name: 'Disc',
      kind: 'length',
      unit: '',
      start: '376',
      hint: '',
      choices: [],
      optional: false,
      when: {},
      tool: '',
    },
  ],
  tables: [{ key: 'readings', name: 'Spans', columns: [], hint: '', optional: false, when: {} }],
  examples: [{ name: 'Good', texts: { readings: [['30', 'paper']] } }],
} as Subject

describe('the bench in its address', () => {
  it('opens the same work that was typed, whatever signs are in it', () => {
    const texts = {
      disc: '14 5/8',
      readings: [
        ['30', 'a|b~c%d'],
        ['', ''],
        ['37,1 cm', 'card'],
      ],
    }
    const query = toQuery(subject, texts, 'mm')
    const again = fromQuery(subject, query, 'mm')
    expect(again.disc).toBe('14 5/8')
    expect(again.readings).toEqual([
      ['30', 'a|b~c%d'],
      ['37,1 cm', 'card'],
    ])
  })

  it('leaves out what stands at its starting value', () => {
    expect(toQuery(subject, { disc: '376', readings: [] }, 'mm')).toEqual({})
  })

  it('means the same to a reader of other units: bare figures carry the unit they were typed in', () => {
    const spans = {
      ...subject,
      tables: [
        {
          ...subject.tables[0]!,
          columns: [
            { ...subject.fields[0]!, key: 'span' },
            { ...subject.fields[0]!, key: 'by', kind: 'feeler' },
          ],
        },
      ],
    } as Subject
    const query = toQuery(
      spans,
      {
        disc: '14.8',
        readings: [
          ['1 1/4', 'card'],
          ['30mm', '0.012'],
        ],
      },
      'in',
    )
    expect(fromQuery(spans, query, 'in')).toEqual({
      disc: '14.8',
      readings: [
        ['1 1/4', 'card'],
        ['30mm', '0.012'],
      ],
    })
    expect(fromQuery(spans, query, 'mm')).toEqual({
      disc: '14.8in',
      readings: [
        ['1 1/4', 'card'],
        ['30mm', '0.012in'],
      ],
    })
    expect(fromQuery(spans, toQuery(spans, { disc: '375', readings: [] }, 'mm'), 'in').disc).toBe('375mm')
  })

  it('starts with the first example, and gives it away whole', () => {
    const one = started(subject)
    ;(one.readings as string[][])[0]![0] = 'changed'
    expect(started(subject).readings).toEqual([['30', 'paper']])
  })
})

describe('what a bare figure is taken for', () => {
  it.each([
    ['length', '41.4', 'mm'],
    ['length', '', 'mm'],
    ['signed', '-0,5', 'mm'],
    ['lengths', '12.1 12.3', 'mm'],
    ['length', '15 1/4', ''],
    ['length', '41.4 mm', ''],
    ['length', '1.5 in', ''],
    ['length', '6′', ''],
    ['feeler', '0.3', 'mm'],
    ['feeler', 'paper', ''],
    ['feeler', '', ''],
    ['number', '20', ''],
    ['choice', 'chain', ''],
  ] as const)('%s “%s”: %s', (kind, text, unit) => expect(takenFor(kind, text, 'mm')).toBe(unit))
  it('is what its reader reads', () => expect(takenFor('length', '1.63', 'in')).toBe('in'))
})

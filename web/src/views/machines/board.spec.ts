import { describe, expect, it } from 'vitest'
import { asked, type Asked, type Card } from './board'

const none: Asked = { search: '', kind: '', owner: '', state: '', within: '', order: '' }
const TODAY = '2026-11-29'
const sum = { total: 100, sound: 0, watch: 0, due: 0, stop: 0, not_seen: 0, does_not_apply: 0, asked: 0, open: 100 }
const walk = {
  id: '1',
  phase: 'winter',
  crop: '',
  started_at: '',
  started_by: '',
  finished_at: null,
  version: 1,
  discarded: false,
}
function card(name: string, found: Partial<typeof sum> = {}, more: Partial<Card['machine']> = {}, owners: string[] = []): Card {
  const machine = {
    id: 1,
    name,
    model: 'Dunmere 12',
    family: 'row-crop-planter',
    kind: 'Row-crop planter',
    is_header: false,
    rows: 12,
    track_rows: [],
    serial: '',
    area_ha: null,
    hours: null,
    season_date: null,
    ...more,
  }
  return { machine, newest: walk, sum: { ...sum, ...found }, stations: [], owners }
}
const names = (cards: Card[], by: Partial<Asked> = {}): string[] =>
  asked(cards, { ...none, ...by }, TODAY).map((one) => one.machine.name)

describe('a board of many machines', () => {
  it('has the worst first: one stop before any number of due, what is found before what is open', () => {
    const cards = [card('open'), card('watch', { watch: 9 }), card('due', { due: 40 }), card('stop', { stop: 1, open: 0 })]
    expect(names(cards)).toEqual(['stop', 'due', 'watch', 'open'])
  })

  it('has those that are needed sooner first where they are alike, and names by their numbers', () => {
    const cards = [
      card('Heron 10'),
      card('Heron 9'),
      card('later', {}, { season_date: '2027-04-01' }),
      card('sooner', {}, { season_date: '2027-03-01' }),
    ]
    expect(names(cards)).toEqual(['sooner', 'later', 'Heron 9', 'Heron 10'])
    expect(names(cards, { order: 'name' })[0]).toBe('Heron 9')
  })

  it('is narrowed by words in name, serial number and owner, by kind, owner, state and season', () => {
    const cards = [
      card('Dunmere 12', { stop: 1 }, { serial: 'D12-7', season_date: '2026-12-05' }, ['Lotte Marsh']),
      card('Heron 6', {}, { family: 'rotary-combine', season_date: '2027-06-01' }),
      { ...card('Heron 4', {}, { family: 'rotary-combine' }), newest: null },
    ]
    expect(names(cards, { search: 'd12 marsh' })).toEqual(['Dunmere 12'])
    expect(names(cards, { kind: 'rotary-combine' })).toEqual(['Heron 6', 'Heron 4'].sort((a) => (a === 'Heron 4' ? 1 : -1)))
    expect(names(cards, { owner: 'Lotte Marsh' })).toEqual(['Dunmere 12'])
    expect(names(cards, { state: 'stop' })).toEqual(['Dunmere 12'])
    expect(names(cards, { state: 'none' })).toEqual(['Heron 4'])
    expect(names(cards, { within: '30' })).toEqual(['Dunmere 12'])
  })
})

import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Place, Wear } from './figures'
import SeasonHeat from './SeasonHeat.vue'
import WearPlot from './WearPlot.vue'

const read = (counter: number, value: number, more = {}) => ({
  counter,
  value,
  raw: String(value),
  at: '2024-11-27',
  by: 'Ada Quill',
  doubted: false,
  past: false,
  ...more,
})
const PLACE: Wear = {
  position: '11L',
  label: 'Row 11 left',
  row: 11,
  side: 'L',
  wheels: false,
  path: [
    { counter: 2620, value: 400, low: 399, high: 401 },
    { counter: 2860, value: 398.2, low: 397, high: 399 },
    { counter: 3100, value: 396.3, low: 394.8, high: 397.9 },
  ],
  readings: [read(2390, 396, { past: true }), read(2860, 398.5), read(2700, 371, { doubted: true })],
  fitments: [
    { counter: 2140, at: '2023-11-19', number: 'D12-4001' },
    { counter: 2620, at: '2025-12-01', number: 'D12-4001' },
  ],
}
const AHEAD: Place = {
  position: '11L',
  label: 'Row 11 left',
  state: 'sound',
  n: 1,
  last: 398.5,
  now: 398.2,
  value: 396.3,
  low: 394.8,
  high: 397.9,
  p: 0,
  chance: 'unlikely',
  rate: 0.77,
  rate_sd: 0.19,
  used: 0.1,
  faster: false,
  stands_out: false,
  rests_on: '',
  marked: [],
  fitted: '',
  number: '',
  price: null,
  cost_wait: null,
  cost_now: null,
  break_even: null,
  advice: '',
}

describe('the plot of one place', () => {
  const props = {
    place: PLACE,
    ahead: AHEAD,
    fresh: 400,
    limit: 386,
    unit: 'mm',
    decimals: 1,
    now: 2860,
    end: 3100,
    counter: 'ha',
  }
  it('tells in words what it shows', () =>
    expect(mount(WearPlot, { props }).attributes('aria-label')).toBe(
      'Row 11 left: 1 reading, 398.2 mm now, expected 396.3 between 394.8 and 397.9 mm by the end of the season, limit 386 mm',
    ))
  it('marks readings of the part, of the part before, and those that do not fit, by shape', () => {
    const found = mount(WearPlot, { props })
    expect([
      found.findAll('.read').length,
      found.findAll('.past').length,
      found.findAll('.doubted').length,
      found.findAll('.fitted').length,
    ]).toEqual([1, 1, 1, 2])
    expect(found.text()).toContain('371 does not fit')
  })
  it('shows the longer season beside the usual one', () => {
    const other = { end: 3148, place: { ...AHEAD, value: 395.9 } }
    expect(
      mount(WearPlot, { props: { ...props, other } })
        .find('.other')
        .text(),
    ).toBe('395.9')
    expect(mount(WearPlot, { props }).find('.other').exists()).toBe(false)
  })
})

describe('seasons side by side', () => {
  it('has a figure in every cell, a dash where nothing was read, and goes to the place', async () => {
    const seasons = [
      {
        start: 2140,
        end: 2390,
        cells: [
          { position: '1L', rate: 0.84 },
          { position: '1R', rate: null },
        ],
      },
    ]
    const found = mount(SeasonHeat, {
      props: {
        seasons,
        columns: [['1L', '1R']],
        sides: ['L', 'R'],
        unit: 'mm',
        counter: 'ha',
        decimals: 1,
        chosen: '1L',
        rowed: true,
      },
    })
    expect(found.findAll('td').map((cell) => cell.text())).toEqual(['0.84', '–'])
    await found.findAll('td')[1]!.trigger('click')
    expect(found.emitted('go')).toEqual([['1R']])
  })
})

import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import MachineMap from './MachineMap.vue'
import { summed, tallied } from './severity'

const station = (key: string, found: object) => ({
  key,
  name: key,
  total: 10,
  sound: 0,
  watch: 0,
  due: 0,
  stop: 0,
  not_seen: 0,
  does_not_apply: 0,
  asked: 0,
  open: 10,
  ...found,
})
const stations = [station('opener', { sound: 4, watch: 2, due: 1, open: 3 }), station('tube', {})]

describe('machine map', () => {
  it('says in words what it draws', () => {
    const map = mount(MachineMap, { props: { stations, current: 'opener' } })
    expect(map.find('[aria-current="step"]').text()).toContain('7 of 10 looked at, 1 due, 2 watch, 4 sound, 3 open')
  })

  it('is ink as far as somebody has looked', () => {
    const map = mount(MachineMap, { props: { stations } })
    expect(map.findAll('.line i').map((line) => (line.element as HTMLElement).style.width)).toEqual(['70%', '0%'])
  })

  it('leads to a station when it is large and only shows when it is small', async () => {
    const large = mount(MachineMap, { props: { stations } })
    await large.findAll('button')[1]!.trigger('click')
    expect(large.emitted('go')).toEqual([['tube']])
    expect(
      mount(MachineMap, { props: { stations, small: true } })
        .find('button')
        .exists(),
    ).toBe(false)
  })

  it('adds stations up and names the worst first', () => {
    expect(tallied(summed(stations)).map((item) => [item.severity, item.count])).toEqual([
      ['due', 1],
      ['watch', 2],
      ['sound', 4],
      ['open', 13],
    ])
  })
})

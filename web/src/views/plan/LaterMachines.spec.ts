import { mount } from '@vue/test-utils'
import PrimeVue from 'primevue/config'
import { expect, it } from 'vitest'
import LaterMachines from './LaterMachines.vue'
import type { Plan } from './planned'

const machine = (id: number): Plan['later'][number] => ({
  id,
  name: `Dunmere ${id}`,
  season_date: '2027-03-01',
  jobs: 2,
  hours: 7.3,
  begins: '2027-01-04',
  ready: id === 7 ? null : '2027-03-02',
  late_days: id === 7 ? null : 2,
  without: id === 7 ? 'nobody knows when its parts come' : '',
})
const shown = (chosen: number[] = []): ReturnType<typeof mount> =>
  mount(LaterMachines, {
    global: { plugins: [PrimeVue] },
    props: {
      plan: {
        uuid: 'a',
        machines: [{ id: 1, name: 'Heron 6' }],
        later: Array.from({ length: 60 }, (_, i) => machine(i + 2)),
        chosen,
      } as unknown as Plan,
      moves: true,
      busy: false,
    },
  })
const names = (page: ReturnType<typeof mount>): string[] => page.findAll('.rough label').map((one) => one.text())

it('many machines are shown in parts, and found by their name', async () => {
  const page = shown()
  expect(names(page)).toHaveLength(25)
  await page.findAll('nav button')[1]!.trigger('click')
  expect(names(page)[0]).toBe('Dunmere 27')
  await page.find('input[placeholder]').setValue('dunmere 7')
  expect(names(page)[0]).toBe('Dunmere 7')
  expect(page.find('.rough li').text()).toContain('nobody knows when its parts come')
})

it('what is picked comes first beside what was chosen before, wherever in the list it was picked', async () => {
  const page = shown([1])
  expect(page.text()).toContain('Chosen to come first: Heron 6.')
  await page.findAll('.rough input')[0]!.setValue(true)
  await page.findAll('nav button')[1]!.trigger('click')
  await page.findAll('.rough input')[0]!.setValue(true)
  await page
    .findAll('button')
    .find((one) => one.text() === 'Plan 2 machines first')!
    .trigger('click')
  expect(page.emitted('first')).toEqual([[[1, 2, 27]]])
})

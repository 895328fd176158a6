import { mount } from '@vue/test-utils'
import { reactive, ref, type Ref } from 'vue'
import { beforeEach, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import { useNewest, type Line } from './useNewest'

const box = reactive({ waiting: [] as object[], refused: [] as object[] })
let answered: (entry: object, answer: object) => void
vi.mock('@/api/outbox', () => ({
  isReading: (entry: { body?: object }) => !!entry.body,
  walkAroundOf: () => 'w',
  outbox: {
    of: () => box.waiting,
    refusedAt: () => box.refused,
    on: (heard: { answered: typeof answered }) => ((answered = heard.answered), () => undefined),
  },
}))

const cell = (position: string, short: string) => ({
  position,
  severity: 'sound',
  short,
  shown: `${short} mm`,
  reason: 'sound so far',
  fitted: 'Renewed.',
  off: '+1',
  change: '−2',
  deviation: 1,
  used: 0.4,
})
const typed = (position: string, raw: string, more = {}) => ({ body: { check: 'disc', position, raw: [raw] }, ...more })
let lines: Ref<Line[]>
const shows = (at: number) => {
  const { severity, short, reason, off, fitted } = lines.value[0]!.cells[at]!
  return { severity, short, reason, off, fitted }
}

beforeEach(() => {
  Object.assign(box, { waiting: [], refused: [] })
  const data = ref({ lines: [{ check: 'disc', cells: [cell('1L', '390'), null, cell('3L', '388')] }] })
  mount({ template: '<i />', setup: () => void (lines = useNewest('w', data as unknown as Ref<Schemas['GridOut'] | null>)) })
})

it('shows the map as it was read where nothing was typed since', () => {
  expect(shows(0)).toEqual({ severity: 'sound', short: '390', reason: 'sound so far', off: '+1', fitted: 'Renewed.' })
  expect(lines.value[0]!.cells[1]).toBeNull()
})

it('shows the newest figure that is on its way, compared with nothing yet', () => {
  box.waiting = [typed('1L', '386'), typed('1L', '385')]
  expect(shows(0)).toMatchObject({ severity: 'sending', short: '385', off: '', fitted: '' })
  expect(shows(2).short).toBe('388')
  box.waiting = []
  expect(shows(0).short).toBe('390')
})

it('shows what could not be taken with the reason, until it is typed again', () => {
  box.refused = [typed('3L', '38x', { refused: { message: 'is not a length' } })]
  expect(shows(2)).toMatchObject({ severity: 'asked', short: '38x', reason: 'is not a length' })
  box.waiting = [typed('3L', '387')]
  expect(shows(2)).toMatchObject({ severity: 'sending', short: '387' })
})

it('shows the verdict as soon as it is there, and what it changed elsewhere', () => {
  const place = { check: 'disc', severity: 'due', reason: 'limit reached', ask: '' }
  answered(typed('1L', '385'), {
    places: [
      { ...place, position: '1L', short: '385', shown: '385 mm' },
      { ...place, position: '3L', short: '500', shown: '500 mm', ask: 'Larger than new?' },
      { ...place, position: '9L', short: '1', shown: '1 mm' },
    ],
  })
  expect(shows(0)).toEqual({ severity: 'due', short: '385', reason: 'limit reached', off: '', fitted: '' })
  expect(shows(2)).toMatchObject({ severity: 'asked', short: '500', reason: 'Larger than new?' })
})

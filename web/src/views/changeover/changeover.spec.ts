import { expect, it } from 'vitest'
import { askedOf, cropsToChoose, moves } from './changeover'

const place = (label: string, now: string, to: string) => ({
  label,
  now,
  now_state: now.toLowerCase(),
  to,
  to_state: to.toLowerCase(),
})

it('asks for the group of a crop, and for what follows only where both are known', () => {
  expect(askedOf({ crop: 'ear:Sunflower', header: 7, then: 'small-grain:Barley', days: 8 })).toEqual({
    crop: 'ear',
    headers: [7],
    then_crop: 'small-grain',
    then_days: 8,
  })
  expect(askedOf({ crop: 'ear', header: 0, then: '', days: 8 })).toEqual({
    crop: 'ear',
    headers: [],
    then_crop: '',
    then_days: null,
  })
})

it('offers what the shop grows, else the groups', () => {
  expect(cropsToChoose([{ name: 'Lupins', group: 'pod' }])).toEqual([{ key: 'pod:Lupins', name: 'Lupins' }])
  expect(cropsToChoose([]).map((one) => one.key)).toEqual(['small-grain', 'pod', 'ear', 'fine-seed'])
})

it('says places that go the same way together, and no place where there is one', () => {
  expect(moves([place('Left', 'Down', 'Up'), place('Right', 'Down', 'Up')]).map((one) => one.places)).toEqual(['Left, Right'])
  expect(moves([place('Whole machine', 'Out', 'In')])[0]!.places).toBe('')
  expect(moves([place('Left', 'Down', 'Up'), place('Right', '', '')])).toHaveLength(2)
  const rows = [1, 2, 3, 4].map((n) => place(`Row ${n}`, 'Ear', 'Pod'))
  expect(moves(rows)[0]!.places).toBe('Row 1 to row 4')
  expect(moves([...rows, place('Row 5', '', '')])[0]!.places).toBe('Row 1, Row 2, Row 3, Row 4')
})

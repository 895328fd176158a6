/** What stands before the entry until somebody has confirmed how the machine stands. */
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick, ref } from 'vue'
import { StorageFull } from '@/api/storage'
import type { Entry } from './entry'
import { useGate } from './useGate'
import type { WalkAroundState } from './useWalkAround'

const RAISED = 'raised and locked'
const LOWERED = 'lowered'
const check = ref({ key: 'disc', posture: RAISED })
const text = ref('')
const done = ref<string[]>([])
const holds = ref<{ posture: string }[]>([])
const selected: string[] = []
const said: string[] = []
let full = false

const gateOf = (may_record = true): ReturnType<typeof useGate> =>
  useGate({
    state: {
      data: ref({ may_record, postures: [{ name: RAISED }, { name: LOWERED }] }),
      holds,
      doubted: ref([]),
      confirm(posture: string) {
        if (full) throw new StorageFull()
        holds.value = [{ posture }]
      },
    } as unknown as WalkAroundState,
    entry: { check, text, done, position: ref('1L'), select: (key: string) => selected.push(key) } as unknown as Entry,
    name: () => 'Tomas Vey',
    say: (words) => said.push(words),
  })

describe('the gate of a posture', () => {
  beforeEach(() => {
    check.value = { key: 'disc', posture: RAISED }
    text.value = ''
    done.value = []
    holds.value = []
    selected.length = said.length = 0
    full = false
  })

  it('stands until the posture is confirmed, and again where the next check wants another', () => {
    const { gate, held, posture, confirmPosture } = gateOf()
    expect([gate.value, held.value, posture.value?.name]).toEqual([true, false, RAISED])
    confirmPosture()
    expect([gate.value, held.value, selected]).toEqual([false, true, ['disc']])
    check.value = { key: 'depth', posture: LOWERED }
    expect([gate.value, posture.value?.name]).toEqual([true, LOWERED])
  })

  it('lets somebody look on without having moved the machine, at this posture alone', () => {
    const { gate, held, onlyLook } = gateOf()
    onlyLook()
    expect([gate.value, held.value]).toEqual([false, false])
    check.value = { key: 'depth', posture: LOWERED }
    expect(gate.value).toBe(true)
  })

  it('leaves the field until what was begun is entered, though a colleague has moved the machine', async () => {
    holds.value = [{ posture: RAISED }]
    const { gate } = gateOf()
    text.value = '38'
    await nextTick()
    holds.value = [{ posture: LOWERED }]
    await nextTick()
    expect(gate.value).toBe(false)
    text.value = ''
    await nextTick()
    expect(gate.value).toBe(true)
  })

  it('stands for nobody who only reads', () => {
    expect(gateOf(false).gate.value).toBe(false)
  })

  it('stays, and says why, where the device has no room to keep the confirmation', () => {
    full = true
    const { gate, confirmPosture } = gateOf()
    confirmPosture()
    expect([gate.value, selected, said.length]).toEqual([true, [], 1])
  })
})

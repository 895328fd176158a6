/** The posture a check wants: whether the machine stands in it, and what stands before the entry until somebody has confirmed it. */
import { computed, ref, watch, type ComputedRef } from 'vue'
import type { Hold, Schemas } from '@/api/client'
import { StorageFull } from '@/api/storage'
import type { Entry } from './entry'
import type { WalkAroundState } from './useWalkAround'

export interface GateOptions {
  state: WalkAroundState
  entry: Entry
  name: () => string
  say: (words: string) => void
}

export function useGate({ state, entry, name, say }: GateOptions): {
  posture: ComputedRef<Schemas['PostureOut'] | undefined>
  held: ComputedRef<boolean>
  gate: ComputedRef<boolean>
  doubted: ComputedRef<Hold | undefined>
  confirmPosture: () => void
  onlyLook: () => void
} {
  /** The posture somebody only looks at, without having brought the machine into it. */
  const looking = ref('')
  const posture = computed(() => state.data.value?.postures.find((one) => one.name === entry.check.value.posture))
  const held = computed(() => state.holds.value.some((hold) => hold.posture === entry.check.value.posture))
  const doubted = computed(() => state.doubted.value.find((hold) => hold.posture === entry.check.value.posture))
  const wanted = computed(
    () => !!state.data.value?.may_record && !!posture.value && !held.value && looking.value !== entry.check.value.posture,
  )
  /** Somebody may bring the machine into another posture while a figure is being typed: the field stays until it is entered. */
  const typing = ref(false)
  watch(
    [wanted, () => entry.text.value || entry.done.value.length],
    ([now, begun], before) => (typing.value = !!begun && (typing.value || (now && !before[0]))),
  )
  const gate = computed(() => wanted.value && !typing.value)
  function confirmPosture(): void {
    looking.value = ''
    try {
      state.confirm(entry.check.value.posture, name())
    } catch (error) {
      if (!(error instanceof StorageFull)) throw error
      return say(error.message)
    }
    entry.select(entry.check.value.key, entry.position.value)
  }
  function onlyLook(): void {
    looking.value = entry.check.value.posture
    entry.select(entry.check.value.key, entry.position.value)
  }

  return { posture, held, gate, doubted, confirmPosture, onlyLook }
}

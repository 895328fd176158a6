/** What was typed last for a check, to be given again. After a reload it is what stands at the place before. */
import type { Ref } from 'vue'
import type { Check, NewReading } from '@/api/client'
import { at, type WalkAroundState } from './useWalkAround'

type Given = Pick<NewReading, 'raw'> & { feeler: string; units: string }

export function useRepeat(
  state: WalkAroundState,
  check: Ref<Check>,
  position: Ref<string>,
): { remember: (reading: NewReading) => void; last: () => Given | undefined } {
  const given = new Map<string, Given>()

  function before(): Given | undefined {
    const positions = check.value.positions
    for (let i = positions.indexOf(position.value) - 1; i >= 0; i--) {
      const had = state.places.get(at(check.value.key, positions[i]!))
      if (had?.state === 'seen' && !had.ask) return had
    }
    return undefined
  }
  return {
    remember(reading) {
      if (reading.state === 'seen' && !reading.confirmed) given.set(reading.check, reading as Given)
    },
    last: () => given.get(check.value.key) ?? before(),
  }
}

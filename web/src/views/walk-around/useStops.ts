/** What must not run: the stop findings of the whole walk-around, with their places in words. */
import { computed } from 'vue'
import type { useWalkAround } from './useWalkAround'

export function useStops({ data, places }: ReturnType<typeof useWalkAround>) {
  const label = (position: string): string => data.value?.positions.find((one) => one.key === position)?.label ?? ''
  return computed(() =>
    [...places.values()]
      .filter((place) => place.severity === 'stop' && !place.ask)
      .map((place) => {
        const name = data.value?.checks.find((one) => one.key === place.check)?.name ?? place.check
        return {
          check: place.check,
          position: place.position,
          text: place.position === 'all' ? name : `${name}, ${label(place.position).toLowerCase()}`,
        }
      }),
  )
}

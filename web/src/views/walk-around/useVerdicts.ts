/** The verdict just given, until the next one comes; and the last few that were due or stop, to go back to. */
import { computed, ref } from 'vue'
import type { Changed, Place } from '@/api/client'
import { at, type At } from './useWalkAround'

const KEPT = 5

export function useVerdicts(places: Map<At, Place>, name: (check: string, position: string) => string) {
  const newest = ref<At | null>(null)
  const worst = ref<At[]>([])

  /** An answer to something typed here: its own verdict, and what it made due or stop elsewhere. */
  function take(own: At, changed: Changed): void {
    if (places.has(own)) newest.value = own
    const bad = changed.places
      .filter((place) => !place.ask && (place.severity === 'due' || place.severity === 'stop'))
      .map((place) => at(place.check, place.position))
    for (const key of [...bad.filter((key) => key !== own), ...bad.filter((key) => key === own)])
      worst.value = [key, ...worst.value.filter((other) => other !== key)].slice(0, KEPT)
  }

  const shown = (key: At): { key: At; place: Place; label: string } | null => {
    const place = places.get(key)
    return place ? { key, place, label: name(place.check, place.position) } : null
  }
  const last = computed(() => (newest.value ? shown(newest.value) : null))
  const recent = computed(() =>
    worst.value
      .map(shown)
      .filter((one) => one !== null)
      .filter((one) => one.place.severity === 'due' || one.place.severity === 'stop'),
  )

  return { newest, last, recent, take }
}

export type Verdicts = ReturnType<typeof useVerdicts>

/** What waiting costs, beside each finding that has a forecast. It comes after the findings, and they do not wait for it. */
import { ref, type Ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

export interface Beside {
  place: Schemas['PlaceAheadOut']
  currency: string
  machine: number
}

export function useAhead(): { found: Ref<Map<string, Beside>>; load: (machines: number[]) => Promise<void> } {
  const found = ref(new Map<string, Beside>())
  async function load(machines: number[]): Promise<void> {
    const all = await Promise.allSettled(
      machines.map((machine_id) =>
        answer(api.GET('/api/logbook/machines/{machine_id}/ahead', { params: { path: { machine_id } } })),
      ),
    )
    const next = new Map<string, Beside>()
    for (const one of all) {
      if (one.status !== 'fulfilled') continue
      for (const check of one.value.checks)
        for (const place of check.places)
          next.set(`${check.check} ${place.position}`, { place, currency: one.value.currency, machine: one.value.machine_id })
    }
    found.value = next
  }
  return { found, load }
}

/** The visual checks of a station that look right, each recorded by itself, as seen in bulk. */
import { computed, type ComputedRef } from 'vue'
import type { Check } from '@/api/client'
import type { useOrder } from './useOrder'
import type { useRecords } from './useRecords'
import type { useWalkAround } from './useWalkAround'

interface BulkOptions {
  state: ReturnType<typeof useWalkAround>
  order: ReturnType<typeof useOrder>
  check: ComputedRef<Check>
  records: ReturnType<typeof useRecords>
  say: (words: string) => void
  goOn: () => void
}

export function useBulk({ state, order, check, records, say, goOn }: BulkOptions) {
  /** What is left of them in this posture: neither measured nor safety items. */
  const leftInBulk = computed(() => {
    const visit = order.visitOf(check.value.key)
    return (visit?.of ?? [])
      .filter((one) => one.bulk && one.station === check.value.station && one.options.some((option) => option.right))
      .flatMap((one) => one.positions.filter((where) => state.isOpen(one, where)).map((where) => ({ check: one, where })))
  })

  /** Everything here looks right. */
  function markRest(): void {
    const rest = leftInBulk.value
    if (!rest.length) return say('Nothing is left here that is only looked at.')
    const bodies = rest.map((one) =>
      records.reading(
        { check: one.check.key, position: one.where },
        { raw: [one.check.options.find((option) => option.right)!.key], bulk: true },
      ),
    )
    if (records.keep(bodies)) goOn()
  }

  return { leftInBulk, markRest }
}

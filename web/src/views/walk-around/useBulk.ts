/** The visual checks of a station that look right in passing, each recorded by itself; it says first what it will mark. */
import { computed, type ComputedRef } from 'vue'
import type { Check } from '@/api/client'
import { counted } from '@/app/counted'
import type { useOrder } from './useOrder'
import type { useRecords } from './useRecords'
import type { useWalkAround } from './useWalkAround'

interface BulkOptions {
  state: ReturnType<typeof useWalkAround>
  order: ReturnType<typeof useOrder>
  check: ComputedRef<Check>
  records: ReturnType<typeof useRecords>
  say: (words: string) => void
  /** True when it was asked for twice in the same place; the first time the words say what it will do. */
  sure: (what: string, words: string) => boolean
  goOn: () => void
}

export function useBulk({ state, order, check, records, say, sure, goOn }: BulkOptions) {
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
    const many = new Map<string, number>()
    for (const one of rest) many.set(one.check.name, (many.get(one.check.name) ?? 0) + 1)
    const what = [...many].map(([name, count]) => (count > 1 ? `${name} (${count})` : name)).join(', ')
    if (!sure('+', `+ again: ${counted(rest.length, 'place')} looked at in passing and right: ${what}. Esc leaves it.`)) return
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

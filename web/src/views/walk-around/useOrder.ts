/**
 * The order of work: visit by visit as planned, and within a visit check by check or row by row, one side down and the other back.
 * It decides only where the hand goes next.
 */
import { computed, ref, watch, type Ref } from 'vue'
import type { Check, Visit, WalkAroundData } from '@/api/client'

export interface Step {
  check: Check
  position: string
  /** Steps that are done in one go have the same: one check at all its places, or like checks row by row. */
  run: string
}
export type Sweep = 'check' | 'row'

const KEY = 'lumvek:sweep'

/** The steps of one visit. Row by row, the checks of a thing at one station take turns at each of its numbers. */
export function stepsOf(checks: readonly Check[], sweep: Sweep, numberOf: (position: string) => number | null): Step[] {
  const steps: Step[] = []
  const done = new Set<string>()
  for (const check of checks) {
    if (done.has(check.key)) continue
    const together =
      sweep === 'row' && check.thing
        ? checks.filter((one) => one.station === check.station && one.thing === check.thing && !one.optional)
        : [check]
    const group = together.includes(check) ? together : [check]
    for (const one of group) done.add(one.key)
    if (group.length === 1) {
      steps.push(...check.positions.map((position) => ({ check, position, run: check.key })))
      continue
    }
    const numbers = [...new Set(group.flatMap((one) => one.positions.map(numberOf)))].sort((a, b) => (a ?? 0) - (b ?? 0))
    for (const number of numbers)
      for (const one of group)
        for (const position of one.positions)
          if (numberOf(position) === number) steps.push({ check: one, position, run: check.key })
  }
  return steps
}

export function useOrder(data: Ref<WalkAroundData | null>) {
  const sweep = ref<Sweep>(localStorage.getItem(KEY) === 'row' ? 'row' : 'check')
  watch(sweep, (way) => localStorage.setItem(KEY, way))

  const byKey = computed(() => new Map((data.value?.checks ?? []).map((check) => [check.key, check])))
  const numbers = computed(() => new Map((data.value?.positions ?? []).map((position) => [position.key, position.number])))

  const visits = computed(() =>
    (data.value?.plan.visits ?? []).map((visit: Visit, index) => {
      const checks = visit.checks.map((key) => byKey.value.get(key)).filter((check): check is Check => !!check)
      return {
        ...visit,
        index,
        of: checks,
        steps: stepsOf(checks, sweep.value, (position) => numbers.value.get(position) ?? null),
      }
    }),
  )
  const steps = computed(() => visits.value.flatMap((visit) => visit.steps))
  const checks = computed(() => visits.value.flatMap((visit) => visit.of))
  const visitOf = (check: string) => visits.value.find((visit) => visit.checks.includes(check))

  return { sweep, visits, steps, checks, visitOf }
}

export type Order = ReturnType<typeof useOrder>

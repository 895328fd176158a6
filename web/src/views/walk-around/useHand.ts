/**
 * Where the hand is, and where it goes next. Only the technician moves it: answers, questions, refusals and what others read change
 * nothing. The places that follow are fixed when the technician comes to a place by an act of their own, and are gone through in that
 * order whatever arrives meanwhile.
 */
import { ref, type Ref } from 'vue'
import type { Order, Step } from './useOrder'
import type { WalkAroundState } from './useWalkAround'

export interface Spot {
  check: string
  position: string
}

interface Detour {
  from: Spot
  coming: Step[]
}

export interface HandHooks {
  /** Before the hand leaves a place: keep what is typed there. */
  leave: () => void
  /** The hand has arrived: what was typed here before comes back. */
  arrive: () => void
}

export function useHand(
  state: Pick<WalkAroundState, 'isOpen' | 'isAnswered'>,
  order: Order,
  checkKey: Ref<string>,
  hooks: HandHooks,
) {
  const position = ref('')
  /** Where the hand came from to look at a question, and goes back to. */
  const detour = ref<Detour | null>(null)
  let coming: Step[] = []

  const here = (): Spot => ({ check: checkKey.value, position: position.value })
  const indexOf = (spot: Spot): number =>
    order.steps.value.findIndex((step) => step.check.key === spot.check && step.position === spot.position)
  const open = (step: Step): boolean => state.isOpen(step.check, step.position)

  function set(spot: Spot): void {
    hooks.leave()
    checkKey.value = spot.check
    position.value = spot.position
    hooks.arrive()
  }

  /** What comes after this place within its run: what is open, round and round; or, where this was read already, every place after it. */
  function fix(): void {
    const steps = order.steps.value
    const at = indexOf(here())
    const step = steps[at]
    if (!step) return void (coming = [])
    const after = steps.slice(at + 1).filter((one) => one.run === step.run)
    const before = steps.slice(0, at).filter((one) => one.run === step.run)
    coming = state.isAnswered(step.check, step.position) ? after : [...after, ...before].filter(open)
  }

  /** The technician wants to be here. Without a position: the first that is open. */
  function choose(key: string, where?: string): void {
    const check = order.checks.value.find((one) => one.key === key)
    const positions = check?.positions ?? []
    const spot =
      where && positions.includes(where)
        ? where
        : (positions.find((one) => check && state.isOpen(check, one)) ?? positions[0] ?? '')
    detour.value = null
    set({ check: key, position: spot })
    fix()
  }

  /** On to the next place; false where every place has been looked at. */
  function advance(): boolean {
    if (detour.value) return (comeBack(), true)
    const next = coming.shift()
    if (next) return (set({ check: next.check.key, position: next.position }), true)
    const steps = order.steps.value
    const at = indexOf(here())
    const ring = [...steps.slice(at + 1), ...steps.slice(0, Math.max(at, 0))]
    const further = ring.find((step) => (!step.check.optional || step.check.key === checkKey.value) && open(step))
    if (!further) return false
    set({ check: further.check.key, position: further.position })
    fix()
    return true
  }

  /** Look at a place, to come back after one reading there. */
  function visit(spot: Spot): void {
    detour.value ??= { from: here(), coming }
    set(spot)
  }

  function comeBack(): void {
    const back = detour.value
    if (!back) return
    detour.value = null
    coming = back.coming
    set(back.from)
  }

  /** The place in hand and those that follow it in its run. */
  const following = (): Step[] => {
    const now = order.steps.value[indexOf(here())]
    return now ? [now, ...coming] : []
  }

  function step(by: number): void {
    const next = order.steps.value[indexOf(here()) + by]
    if (next) choose(next.check.key, next.position)
  }

  function stepCheck(by: number): void {
    const checks = order.checks.value
    const next = checks[checks.findIndex((one) => one.key === checkKey.value) + by]
    if (next) choose(next.key, by < 0 ? next.positions[next.positions.length - 1] : undefined)
  }

  return { position, detour, here, choose, advance, visit, comeBack, following, step, stepCheck, fix }
}

export type Hand = ReturnType<typeof useHand>

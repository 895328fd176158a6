/** Changing what a walk-around does, and in which order. */
import type { Ref } from 'vue'
import { api, Refused, write } from '@/api/client'
import type { Order } from './useOrder'
import type { WalkAroundState } from './useWalkAround'

export interface Plan {
  /** Puts a visit at another place in the order. */
  move: (from: number, to: number) => Promise<void>
  /** Takes in the checks that the round left out. */
  takeIn: () => Promise<void>
}

export function usePlan(id: string, state: WalkAroundState, order: Order, problem: Ref<string>): Plan {
  const path = { params: { path: { walk_around_id: id } } }
  async function tried(change: () => Promise<void>, otherwise: string): Promise<void> {
    try {
      await change()
      problem.value = ''
    } catch (error) {
      problem.value = error instanceof Refused ? error.message : otherwise
    }
  }
  return {
    move: (from, to) =>
      tried(async () => {
        const numbers = order.visits.value.map((one) => one.index)
        numbers.splice(to, 0, ...numbers.splice(from, 1))
        const plan = await write(() =>
          api.POST('/api/walk-arounds/{walk_around_id}/order', { ...path, body: { order: numbers } }),
        )
        if (state.data.value) state.data.value.plan = plan
      }, 'The order could not be changed.'),
    takeIn: () =>
      tried(async () => {
        await write(() => api.POST('/api/walk-arounds/{walk_around_id}/take-in', path))
        await state.load()
      }, 'They could not be taken in.'),
  }
}

/** One thing at a time with the server: what it refused, at which field, and whether it is still at it. */
import { reactive } from 'vue'
import { Refused } from '@/api/client'

export interface Attempt {
  busy: boolean
  problem: string
  field: string
  run: (what: () => Promise<void>) => Promise<boolean>
}

export function useAttempt(failed = 'That could not be done.'): Attempt {
  const state: Attempt = reactive({
    busy: false,
    problem: '',
    field: '',
    async run(what: () => Promise<void>): Promise<boolean> {
      if (state.busy) return false
      state.busy = true
      try {
        await what()
        state.problem = state.field = ''
        return true
      } catch (error) {
        state.problem = error instanceof Refused ? error.message.replace(/^./, (first) => first.toUpperCase()) : failed
        state.field = error instanceof Refused ? error.field : ''
        return false
      } finally {
        state.busy = false
      }
    },
  })
  return state
}

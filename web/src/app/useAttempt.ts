/** One thing at a time with the server: what it refused, at which field, and whether it is still at it. */
import { reactive } from 'vue'
import { Refused } from '@/api/client'

export interface Attempt {
  busy: boolean
  problem: string
  field: string
  /** A write: pressed again while one is at it, it is nothing. */
  run: (what: () => Promise<void>) => Promise<boolean>
  /** A reading: asked for while one is at it, it follows, so that the newest stands. */
  read: (what: () => Promise<void>) => Promise<boolean>
}

export function useAttempt(failed = 'That could not be done.'): Attempt {
  let next: { what: () => Promise<void>; told: (done: boolean) => void }[] = []
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
        const [last, ...before] = next.reverse()
        next = []
        // Of several that wait the newest has what all of them asked for.
        if (last)
          void state.run(last.what).then((done) => {
            for (const one of [last, ...before]) one.told(done)
          })
      }
    },
    read: (what) => (state.busy ? new Promise<boolean>((told) => next.push({ what, told })) : state.run(what)),
  })
  return state
}

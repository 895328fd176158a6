/** One thing at a time with the server: what it refused, at which field, and whether it is still at it. */
import { reactive } from 'vue'
import { Refused } from '@/api/client'
import { upper } from '@/app/words'

export interface Attempt {
  /** A write is at it, or was pressed and waits for its turn; what is only read keeps nobody from pressing. */
  busy: boolean
  reading: boolean
  problem: string
  field: string
  /** What has something believed that was doubted. */
  cures: string[]
  /** A write: pressed again while one is at it, it is nothing; while something is read, it waits its turn. */
  run: (what: () => Promise<void>) => Promise<boolean>
  /** A reading: asked for while one is at it, it follows, so that the newest stands. */
  read: (what: () => Promise<void>) => Promise<boolean>
}

export function useAttempt(failed = 'That could not be done.'): Attempt {
  type Waiting = { what: () => Promise<void>; told: (done: boolean) => void }
  let reads: Waiting[] = []
  /** A write that was pressed while something was being read: it waits for its turn, it is not lost. */
  let write: Waiting | undefined

  async function perform(what: () => Promise<void>, writes: boolean): Promise<boolean> {
    state.busy = writes
    state.reading = !writes
    try {
      await what()
      state.problem = state.field = ''
      state.cures = []
      return true
    } catch (error) {
      state.problem = error instanceof Refused ? upper(error.message) : failed
      state.field = error instanceof Refused ? error.field : ''
      state.cures = error instanceof Refused ? error.cures : []
      return false
    } finally {
      state.busy = state.reading = false
      if (write) {
        const pressed = write
        write = undefined
        void perform(pressed.what, true).then(pressed.told)
      } else {
        const [last, ...before] = reads.reverse()
        reads = []
        // Of several that wait the newest has what all of them asked for.
        if (last)
          void perform(last.what, false).then((done) => {
            for (const one of [last, ...before]) one.told(done)
          })
      }
    }
  }
  const state: Attempt = reactive({
    busy: false,
    reading: false,
    problem: '',
    field: '',
    cures: [],
    run: (what) => {
      if (state.busy) return Promise.resolve(false)
      if (!state.reading) return perform(what, true)
      state.busy = true
      return new Promise<boolean>((told) => (write = { what, told }))
    },
    read: (what) =>
      state.busy || state.reading ? new Promise<boolean>((told) => reads.push({ what, told })) : perform(what, false),
  })
  return state
}

/** Writes of one kind that wait for the server, shown at their places meanwhile, whichever visit to the screen they were made on. */
import { computed, onBeforeUnmount, watch, type ComputedRef } from 'vue'
import { Refused, type AnswerOf, type BodyOf, type WritePath } from './client'
import { outbox, type Entry } from './outbox'

const outOfReach = (): boolean => outbox.box.state === 'away' || outbox.box.state === 'signed-out'

/** What cannot reach the server now, oldest first. `heard` is told each answer. */
export function useOnItsWay<P extends WritePath>(
  path: P,
  heard: (answer: AnswerOf<P>, body: BodyOf<P>) => void,
  belongs: (entry: Entry) => boolean = () => true,
): ComputedRef<BodyOf<P>[]> {
  const isOurs = (entry: Entry): boolean => entry.path === path && belongs(entry)
  const bodyOf = (entry: Entry): BodyOf<P> => entry.body as BodyOf<P>
  const deaf = outbox.on({
    answered: (entry, answer) => {
      if (isOurs(entry)) heard(answer as AnswerOf<P>, bodyOf(entry))
    },
  })
  onBeforeUnmount(deaf)
  return computed(() => (outOfReach() ? outbox.waiting.value.filter(isOurs).map(bodyOf) : []))
}

/** Until a write is answered, or is known to wait here: then a form can let go of it. A refusal that comes later is `late`. */
export async function answeredOrKept(sent: Promise<unknown>, late: (problem: Refused) => void): Promise<void> {
  let stop = (): void => undefined
  const kept = new Promise<'kept'>((go) => {
    stop = watch(outOfReach, (out) => out && go('kept'), { immediate: true })
  })
  try {
    if ((await Promise.race([sent, kept])) === 'kept')
      sent.catch((error: unknown) => {
        if (!(error instanceof Refused)) throw error
        late(error)
      })
  } finally {
    stop()
  }
}

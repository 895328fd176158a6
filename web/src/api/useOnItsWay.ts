/** Writes of one kind that wait for the server, shown at their places meanwhile, whichever visit to the screen they were made on. */
import { computed, onBeforeUnmount, watch, type ComputedRef } from 'vue'
import type { AnswerOf, BodyOf, WritePath } from './client'
import { outbox, type Entry } from './outbox'

const outOfReach = (): boolean => outbox.box.state === 'away' || outbox.box.state === 'signed-out'

/** What cannot reach the server now, and what it did not take; oldest first. `heard` is told each answer. */
export function useOnItsWay<P extends WritePath>(
  path: P,
  heard: (answer: AnswerOf<P>, body: BodyOf<P>) => void,
  belongs: (entry: Entry) => boolean = () => true,
): { waiting: ComputedRef<BodyOf<P>[]>; notTaken: ComputedRef<Entry[]> } {
  const isOurs = (entry: Entry): boolean => entry.path === path && belongs(entry)
  const bodyOf = (entry: Entry): BodyOf<P> => entry.body as BodyOf<P>
  const deaf = outbox.on({
    answered: (entry, answer) => {
      if (isOurs(entry)) heard(answer as AnswerOf<P>, bodyOf(entry))
    },
  })
  onBeforeUnmount(deaf)
  return {
    waiting: computed(() => (outOfReach() ? outbox.waiting.value.filter(isOurs).map(bodyOf) : [])),
    notTaken: computed(() => outbox.refused.value.filter(isOurs)),
  }
}

/** Until a write is answered, or is known to wait here: then its form lets go of it, and a refusal that comes later stays in the box. */
export async function answeredOrKept(uuid: string, sent: Promise<unknown>): Promise<void> {
  let stop = (): void => undefined
  const kept = new Promise<'kept'>((go) => {
    stop = watch(outOfReach, (out) => out && go('kept'), { immediate: true })
  })
  try {
    if ((await Promise.race([sent, kept])) === 'kept') outbox.letGo(uuid)
  } finally {
    stop()
  }
}

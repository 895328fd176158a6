/** The writes of a screen through the outbox: kept first, sent from wherever one is; refusals are the screen's while it is there. */
import { onBeforeUnmount } from 'vue'
import type { AnswerOf, BodyOf, PathOf, WritePath } from './client'
import { outbox, type About, type Entry } from './outbox'
import { newUuid } from './uuid'

export type Post = <P extends WritePath>(
  path: P,
  params: PathOf<P>,
  body: BodyOf<P>,
  about: About,
  more?: Partial<Entry>,
) => Promise<AnswerOf<P>>

export function usePost(): Post {
  let here = true
  onBeforeUnmount(() => (here = false))
  return (path, params, body, about, more = {}) => {
    // What carries no UUID of its own can be repeated as it is; the entry needs one all the same.
    const uuid = (body as { uuid?: string } | undefined)?.uuid ?? newUuid()
    return outbox.post(path, params, body, about, () => here, { uuid, ...more })
  }
}

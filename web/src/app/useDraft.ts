/** What is being typed on a long form, kept in the browser until the server has it: whoever leaves takes it up again. */
import { reactive, ref, watch, type Ref } from 'vue'
import { keep } from '@/api/storage'

export interface Kept<T> {
  draft: T
  /** Whether something was there already. */
  takenUp: Ref<boolean>
  /** Set while the outbox keeps it, so that nobody takes it up a second time; a refusal brings it back. */
  handedOver: Ref<boolean>
  /** As it begins, but for what was typed otherwise than it was sent, while its answer was on the way. */
  forget: (sent?: Partial<T>) => void
}

/** begun: whether a draft that was kept is worth taking up. */
export function useDraft<T extends object>(key: string, empty: () => T, begun: (draft: T) => boolean): Kept<T> {
  const draft = reactive(read()) as T
  const takenUp = ref(begun(draft))
  const handedOver = ref(false)
  watch([draft, handedOver], () => {
    if (handedOver.value) return localStorage.removeItem(key)
    try {
      keep(localStorage, key, JSON.stringify(draft))
    } catch {
      // The alarm is up, and whoever leaves is asked: it stands in its fields alone.
    }
  })

  function read(): T {
    try {
      const found = JSON.parse(localStorage.getItem(key) ?? 'null') as Partial<T> | null
      return { ...empty(), ...found }
    } catch {
      return empty()
    }
  }
  function forget(sent: Partial<T> = {}): void {
    const since = Object.entries(sent).filter(([name, was]) => JSON.stringify(draft[name as keyof T]) !== JSON.stringify(was))
    Object.assign(draft, empty(), Object.fromEntries(since.map(([name]) => [name, draft[name as keyof T]])))
    if (!since.length) localStorage.removeItem(key)
    takenUp.value = handedOver.value = false
  }
  return { draft, takenUp, handedOver, forget }
}

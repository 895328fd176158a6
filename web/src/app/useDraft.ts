/** What is being typed on a long form, kept in the browser until the server has it: whoever leaves takes it up again. */
import { reactive, ref, watch, type Ref } from 'vue'

export interface Kept<T> {
  draft: T
  /** Whether something was there already. */
  takenUp: Ref<boolean>
  /** As it begins, but for what was typed otherwise than it was sent, while its answer was on the way. */
  forget: (sent?: Partial<T>) => void
}

/** begun: whether a draft that was kept is worth taking up. */
export function useDraft<T extends object>(key: string, empty: () => T, begun: (draft: T) => boolean): Kept<T> {
  const draft = reactive(read()) as T
  const takenUp = ref(begun(draft))
  watch(draft, () => localStorage.setItem(key, JSON.stringify(draft)))

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
    takenUp.value = false
  }
  return { draft, takenUp, forget }
}

/** What is being typed on a long form, kept in the browser until the server has it: whoever leaves takes it up again. */
import { reactive, ref, watch, type Ref } from 'vue'

export interface Kept<T> {
  draft: T
  /** Whether something was there already. */
  takenUp: Ref<boolean>
  /** As it begins; nothing is kept any more. */
  forget: () => void
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
  function forget(): void {
    Object.assign(draft, empty())
    localStorage.removeItem(key)
    takenUp.value = false
  }
  return { draft, takenUp, forget }
}

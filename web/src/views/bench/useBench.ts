/** One subject at the bench: what is typed, the answer to it, and where it stops. Asks again at every key, one question at a time. */
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { answer, api, Refused, write, type Schemas } from '@/api/client'
import { blank, copied, filled, type Subject, type Texts } from './address'

export type Sheet = Schemas['SheetOut']

export function useBench(subject: Subject, first: Texts) {
  const texts = reactive<Texts>(first)
  const sheet = shallowRef<Sheet | null>(null)
  const problem = ref<{ field: string; message: string } | null>(null)
  const sources = ref<Record<string, string>>({})

  /** Empty rows stay on screen, but errors count rows as the server sees them: all of them. */
  const sent = computed<Texts>(() => copied(texts))
  const complete = computed<Texts>(() => ({
    ...copied(texts),
    ...Object.fromEntries(subject.tables.map((table) => [table.key, filled((texts[table.key] ?? []) as string[][])])),
  }))

  /** What stops it is only that something has not been typed yet. */
  const waits = computed(() => {
    const [key = '', row, ...column] = problem.value?.field.split('.') ?? []
    const typed = texts[key]
    if (typed === undefined) return false
    if (typeof typed === 'string') return !typed.trim()
    if (row === undefined) return !filled(typed).length
    const at = subject.tables.find((table) => table.key === key)?.columns.findIndex((one) => one.key === column.join('.')) ?? -1
    return at >= 0 && !typed[Number(row)]?.[at]?.trim()
  })

  let asking = false
  let again = false
  async function ask(): Promise<void> {
    if (asking) return void (again = true)
    asking = true
    try {
      sheet.value = await write(() =>
        api.POST('/api/bench/{subject}', { params: { path: { subject: subject.key } }, body: { texts: sent.value } }),
      )
      problem.value = null
    } catch (error) {
      problem.value =
        error instanceof Refused
          ? { field: error.field, message: error.message }
          : { field: '', message: 'It could not be worked out.' }
    } finally {
      asking = false
      if (again) {
        again = false
        void ask()
      }
    }
  }
  watch(texts, () => void ask(), { deep: true, immediate: true })

  function set(next: Texts): void {
    for (const [key, value] of Object.entries(copied(next))) texts[key] = value
  }

  let chosen = 0
  /** Bring in what a machine's own rules say. */
  async function machine(id: number): Promise<void> {
    chosen = id
    if (!id) return void (sources.value = {})
    const found = await answer(
      api.GET('/api/bench/{subject}/machines/{machine_id}', { params: { path: { subject: subject.key, machine_id: id } } }),
    )
    if (id !== chosen) return // another one was chosen meanwhile
    sources.value = found.sources
    set(found.texts as Texts)
  }

  /** A field is shown while the fields it depends on hold one of the values it names. */
  const shown = (when: Record<string, string[]>): boolean =>
    Object.entries(when).every(([key, wanted]) => wanted.includes(texts[key] as string))

  /** Nothing of what stood there before stays. */
  const example = (next: Texts): void => set({ ...blank(subject), ...next })

  return { texts, sheet, problem, waits, sources, complete, set, machine, shown, example, clear: () => example({}) }
}

export type Bench = ReturnType<typeof useBench>

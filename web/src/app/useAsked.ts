/** What is asked of a list, kept in the address: a search, filters, an order, a page. Whoever shares the address shares the list. */
import { computed, reactive, watch, type ComputedRef } from 'vue'
import { useRoute, useRouter, type LocationQuery } from 'vue-router'

export interface Asking<Key extends string> {
  /** For the fields; '' is not asked. Whatever else is asked for, it is asked for from the first page on. */
  asked: Record<Key | 'page', string>
  /** For the server: what is asked, and nothing else. */
  query: ComputedRef<Record<never, string>>
}

export function useAsked<Key extends string>(...keys: Key[]): Asking<Key> {
  type Asked = Record<Key | 'page', string>
  const route = useRoute()
  const router = useRouter()
  const every = [...keys, 'page'] as (Key | 'page')[]
  const inAddress = (query: LocationQuery): Asked =>
    Object.fromEntries(every.map((key) => [key, [query[key]].flat()[0] ?? ''])) as Asked
  const asked = reactive(inAddress(route.query)) as Asked
  const { name } = route
  /** Addresses of this list's own making: one may arrive when the next letter is typed already, and must not take it back. */
  const made = new Set<string>()

  watch(
    () => keys.map((key) => asked[key]).join('\n'),
    () => (asked.page = ''),
    { flush: 'sync' },
  )
  watch(asked, () => {
    made.add(JSON.stringify(asked))
    const wanted = Object.fromEntries(every.map((key) => [key, asked[key] || undefined]))
    void router.replace({ query: { ...route.query, ...wanted }, hash: route.hash })
  })
  watch(
    () => route.query,
    (query) => {
      const there = inAddress(query)
      const said = JSON.stringify(there)
      if (said === JSON.stringify(asked)) made.clear()
      else if (route.name === name && !made.has(said)) {
        const { page } = there
        Object.assign(asked, there)
        asked.page = page
      }
    },
  )
  const query = computed(() => Object.fromEntries(every.filter((key) => asked[key]).map((key) => [key, asked[key]])))
  return { asked, query }
}

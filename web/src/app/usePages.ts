/** A long list that is all here, a part at a time: what is sought of it, and the page that is shown. */
import { computed, type ComputedRef } from 'vue'
import type { Schemas } from '@/api/client'

const SHOWN = 25

export interface Pages<T> {
  found: ComputedRef<T[]>
  shown: ComputedRef<T[]>
  page: ComputedRef<Schemas['PageOut']>
  /** So many that seeking saves looking. */
  many: ComputedRef<boolean>
}

/** asked: of `useAsked`, or a screen's own; whoever changes what is sought begins at the first page. text: what is sought in. */
export function usePages<T>(
  all: () => readonly T[],
  asked: { search: string; page: string },
  text: (one: T) => string,
): Pages<T> {
  const found = computed(() => {
    const words = asked.search.toLowerCase().split(/\s+/).filter(Boolean)
    return all().filter((one) => words.every((word) => text(one).toLowerCase().includes(word)))
  })
  const page = computed(() => {
    const total = found.value.length
    const of = Math.max(1, Math.ceil(total / SHOWN))
    const number = Math.min(Math.max(1, Math.floor(Number(asked.page)) || 1), of)
    return { number, of, total, first: total && (number - 1) * SHOWN + 1, last: Math.min(number * SHOWN, total) }
  })
  const shown = computed(() => found.value.slice((page.value.number - 1) * SHOWN, page.value.number * SHOWN))
  const many = computed(() => all().length > SHOWN)
  return { found, shown, page, many }
}

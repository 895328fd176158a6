/** The address keeps the place: back goes to the check before, a reload comes back to the same position. */
import { watch, type Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { WalkAroundData } from '@/api/client'
import type { Entry } from './entry'

export function useAddress(entry: Entry, checkKey: Ref<string>, data: Ref<WalkAroundData | null>): void {
  const route = useRoute()
  const router = useRouter()
  watch([checkKey, entry.position], ([key, position], [before]) => {
    if (!key || (route.query.check === key && route.query.at === position)) return
    const to = { query: { check: key, at: position } }
    void (before && before !== key ? router.push(to) : router.replace(to))
  })
  watch(
    () => [route.query.check, route.query.at],
    ([key, position]) => {
      if (!data.value || typeof key !== 'string' || (key === checkKey.value && position === entry.position.value)) return
      entry.select(key, typeof position === 'string' ? position : undefined)
    },
  )
}

/** While the season is planned by somebody else, or beside, the new plan is looked for until it is there. */
import { onBeforeUnmount, watch, type Ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

const LOOKS_MS = 2500

export function useUnderWay(season: Ref<Schemas['SeasonWorkOut'] | null>): void {
  let looking = 0
  const stop = (): void => window.clearInterval(looking)
  const look = (): void =>
    void answer(api.GET('/api/season')).then(
      (found) => (season.value = found),
      () => undefined,
    )
  watch(
    () => season.value?.under_way,
    (under) => {
      stop()
      if (under) looking = window.setInterval(look, LOOKS_MS)
    },
  )
  onBeforeUnmount(stop)
}

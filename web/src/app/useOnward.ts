/** On to the next screen once the server has answered – unless whoever waited has gone elsewhere meanwhile: nobody is moved. */
import { onBeforeUnmount } from 'vue'
import { useRouter, type RouteLocationRaw } from 'vue-router'

export function useOnward(): (to: RouteLocationRaw) => Promise<void> {
  const router = useRouter()
  let here = true
  onBeforeUnmount(() => (here = false))
  return async (to) => {
    if (here) await router.push(to)
  }
}

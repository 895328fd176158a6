/** What the head of every screen does: units, the shop to work in, logging out. What does not reach the server is said. */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { Refused } from '@/api/client'
import { useSession } from './session'
import { useAttempt } from './useAttempt'

export function useHead() {
  const session = useSession()
  const router = useRouter()
  const at = useAttempt()
  /** Counts what was chosen in vain: a control that shows the choice already begins anew. */
  const inVain = ref(0)
  const chosen = async (what: () => Promise<void>): Promise<boolean> => {
    const done = await at.run(what)
    if (!done) inVain.value++
    return done
  }

  const units = computed({
    get: () => session.me?.units ?? 'mm',
    set: (value) => void chosen(() => session.setUnits(value)),
  })
  async function changeShop(member: number): Promise<void> {
    if (await chosen(() => session.changeShop(member))) await router.push({ name: 'machines' })
  }
  async function leave(): Promise<void> {
    const left = await at.run(() =>
      session.signOut().catch((error: unknown) => {
        // Somebody else may have logged in here meanwhile: then this login has ended already.
        if (error instanceof Refused && !error.passing) return
        throw new Refused(0, 'The server does not answer: you are still logged in on this device.')
      }),
    )
    if (left) await router.push({ name: 'sign-in' })
  }
  /** A screen that could not be fetched, to be asked for again. */
  const missed = ref('')
  router.onError((_error, to) => (missed.value = to.fullPath))
  router.afterEach(() => (missed.value = ''))

  return { at, inVain, missed, units, changeShop, leave }
}

/**
 * What the head of every screen does: units, the shop to work in, logging out, going elsewhere. What does not reach the server is said;
 * where something typed would be lost, it is asked first.
 */
import { computed, ref, shallowRef } from 'vue'
import { useRouter, type RouteLocationNormalized } from 'vue-router'
import { Refused } from '@/api/client'
import { leaveBehind } from '@/api/kept'
import { halfTyped, letGo, nameOf } from './halfTyped'
import { useSession } from './session'
import { useAttempt } from './useAttempt'

/** A screen is made anew where this changes. */
export const screenOf = (route: RouteLocationNormalized): string => `${String(route.name)}-${String(route.params.id ?? '')}`

/** Forms of one section of a screen are gone in another. */
const sectionOf = (route: RouteLocationNormalized): string => `${route.path} ${String(route.query.tab ?? '')}`

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
  /** What was asked for, and waits: something typed would be lost by it. */
  const waits = shallowRef<(() => unknown) | null>(null)
  const unsaved = computed(() => (waits.value ? halfTyped().map(nameOf) : []))
  function askFirst(go: () => unknown): boolean {
    waits.value = halfTyped().length ? go : null
    return !waits.value
  }
  const back = (): void => {
    waits.value = null
    halfTyped()[0]?.focus()
  }
  function goOn(): void {
    const go = waits.value
    letGo(halfTyped())
    waits.value = null
    go?.()
  }
  router.beforeEach((to, from) => sectionOf(to) === sectionOf(from) || askFirst(() => router.push(to)))

  /** Counts what was asked to be read again: the screen is made anew. */
  const again = ref(0)
  const readAgain = (): void => {
    if (!askFirst(readAgain)) return
    leaveBehind()
    again.value++
  }

  const units = computed({
    get: () => session.me?.units ?? 'mm',
    set: (value) => {
      if (askFirst(() => (units.value = value))) void chosen(() => session.setUnits(value))
      else inVain.value++
    },
  })
  async function changeShop(member: number): Promise<void> {
    if (!askFirst(() => changeShop(member))) return void inVain.value++
    if (await chosen(() => session.changeShop(member))) await router.push({ name: 'machines' })
  }
  async function leave(): Promise<void> {
    if (!askFirst(leave)) return
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
  router.afterEach((to, from, failure) => {
    missed.value = ''
    if (failure) return
    waits.value = null
    if (screenOf(to) !== screenOf(from)) leaveBehind()
  })

  return { at, inVain, missed, unsaved, back, goOn, again, readAgain, units, changeShop, leave }
}

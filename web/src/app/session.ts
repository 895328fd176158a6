/** Who is signed in, and what they may do. */
import { asInShop } from './words'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { answer, api, useCsrf, useMember, type Schemas } from '@/api/client'
import { connection } from '@/api/connection'
import { keepFor, remember, SESSION, shown } from '@/api/kept'
import { outbox } from '@/api/outbox'

export type Right = Schemas['Me']['rights'][number]

export const useSession = defineStore('session', () => {
  const me = ref<Schemas['Me'] | null>(null)
  const known = ref(false)
  /** There is no shop here at all: the first one is to be founded. */
  const toFound = ref(false)
  /** Who is nothing but an owner sees their own machines, and what they cost. */
  const onlyOwns = computed(() => me.value?.roles.join() === 'owner')
  const may = (right: Right): boolean => me.value?.rights.includes(right) ?? false

  function take(session: Schemas['Session']): void {
    useCsrf(session.csrf)
    me.value = session.me ?? null
    if (session.me) asInShop(session.me.time_zone, session.me.day_form)
    useMember(me.value?.id ?? 0)
    outbox.as(me.value)
    toFound.value = session.to_found
    known.value = true
    void keepSession(session)
  }
  /** Who worked here last is known without a connection too; the token for writes is asked for anew. */
  async function keepSession(session: Schemas['Session']): Promise<void> {
    const before = shown.has(SESSION)
    await keepFor(session.me?.id ?? 0, session.me?.units)
    if (session.me && !before) await remember(SESSION, JSON.stringify({ ...session, csrf: '' }))
  }
  const load = async (): Promise<void> => take(await answer(api.GET('/api/session')))
  watch(
    () => connection.lost,
    (lost) => {
      if (!lost && shown.has(SESSION)) void load().catch(() => undefined)
    },
  )

  return {
    me,
    known,
    toFound,
    onlyOwns,
    may,
    take,
    load,
    signIn: async (username: string, password: string, code = '') =>
      take(await answer(api.POST('/api/session/login', { body: { username, password, code } }))),
    changeShop: async (member: number) => take(await answer(api.POST('/api/session/shop', { body: { member } }))),
    signOut: async () => take(await answer(api.POST('/api/session/logout'))),
    setUnits: async (units: 'mm' | 'in') => take(await answer(api.POST('/api/session/preferences', { body: { units } }))),
  }
})

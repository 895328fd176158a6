/** Who is signed in. */
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { answer, api, useCsrf, useMember, type Schemas } from '@/api/client'
import { outbox } from '@/api/outbox'

export const useSession = defineStore('session', () => {
  const me = ref<Schemas['Me'] | null>(null)
  const known = ref(false)

  function take(session: Schemas['Session']): void {
    useCsrf(session.csrf)
    me.value = session.me ?? null
    useMember(me.value?.id ?? 0)
    outbox.as(me.value)
    known.value = true
  }

  return {
    me,
    known,
    load: async () => take(await answer(api.GET('/api/session'))),
    signIn: async (username: string, password: string) =>
      take(await answer(api.POST('/api/session/login', { body: { username, password } }))),
    signOut: async () => take(await answer(api.POST('/api/session/logout'))),
    setUnits: async (units: 'mm' | 'in') => take(await answer(api.POST('/api/session/preferences', { body: { units } }))),
  }
})

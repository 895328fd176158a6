/** Whether machines are ready, by machine: asked of the server once for a screen, which stands without it. */
import { ref, type Ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

export type Ready = Schemas['ReadinessOut']

export function useReadiness(): {
  ready: Ref<Map<number, Ready>>
  ask: (of?: { machine?: number; plan?: string }) => Promise<void>
} {
  const ready = ref(new Map<number, Ready>())
  let asked = 0
  async function ask(of: { machine?: number; plan?: string } = {}): Promise<void> {
    const mine = ++asked
    const found = await answer(api.GET('/api/season/readiness', { params: { query: of } })).catch(() => null)
    if (found && mine === asked) ready.value = new Map(found.map((one) => [one.machine, one]))
  }
  return { ready, ask }
}

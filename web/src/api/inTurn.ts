/** What costs the server much is done in turn: it is asked again until it is ours, with the place in line for whoever looks on. */
import { computed, reactive } from 'vue'
import { PLACE } from './headers'

const places = reactive(new Map<object, number>())
/** The best place of what this screen waits for; 0: nothing waits. */
export const placeInLine = computed(() => (places.size ? Math.min(...places.values()) : 0))

export async function fetchInTurn(request: Request): Promise<Response> {
  const waits = {}
  try {
    for (let next = request; ;) {
      const again = next.clone()
      const answer = await fetch(next)
      const place = Number(answer.headers.get(PLACE) ?? 0)
      if (answer.status !== 429 || !place) return answer
      places.set(waits, place)
      const seconds = Number(answer.headers.get('Retry-After') ?? 1)
      await new Promise((go) => setTimeout(go, seconds * 1000))
      request.signal.throwIfAborted()
      next = again
    }
  } finally {
    places.delete(waits)
  }
}

/** One walk-around as the screen sees it: what the server has, and what is still on its way there. */
import { computed, onBeforeUnmount, reactive, ref } from 'vue'
import { answer, api, Refused, type Changed, type Check, type NewReading, type Place, type WalkAroundData } from '@/api/client'
import { outbox } from '@/api/outbox'
import type { Severity } from '@/design/severity'

export type At = `${string}|${string}`
export const at = (check: string, position: string): At => `${check}|${position}`

/** What a cell shows: the verdict that is known, or what was typed and is still on its way. */
export interface Cell {
  severity: Severity | 'sending'
  text: string
  place?: Place
}

interface Heard {
  loaded: () => void
  refused: (check: string, position: string, body: NewReading, problem: Refused) => void
}

export function useWalkAround(id: string, { loaded, refused }: Heard) {
  const data = ref<WalkAroundData | null>(null)
  const problem = ref('')
  const places = reactive(new Map<At, Place>())
  const newest = ref<At | null>(null)

  let again: ReturnType<typeof setTimeout> | undefined

  /** Read it from the server; while that cannot answer, by itself again every few seconds. */
  async function load(): Promise<void> {
    clearTimeout(again)
    try {
      const found = await answer(api.GET('/api/walk-arounds/{walk_around_id}', { params: { path: { walk_around_id: id } } }))
      places.clear()
      for (const place of found.places) places.set(at(place.check, place.position), place)
      data.value = found
      problem.value = ''
      loaded()
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      problem.value = error.message
      if (error.passing) again = setTimeout(() => void load(), 3000)
    }
    void outbox.flush()
  }

  function apply(changed: Changed): void {
    if (!data.value) return
    for (const place of changed.places) places.set(at(place.check, place.position), place)
    for (const gone of changed.gone) places.delete(at(gone.check, gone.position))
    data.value.stations = changed.stations
    if (changed.parts) data.value.parts = changed.parts
  }

  outbox.listen({
    recorded: (item, changed) => {
      if (item.walkAround !== id) return
      apply(changed)
      newest.value = at(item.body.check, item.body.position)
    },
    refused: (item, trouble) => {
      if (item.walkAround === id) refused(item.body.check, item.body.position, item.body, trouble)
    },
  })
  onBeforeUnmount(() => {
    clearTimeout(again)
    outbox.listen({ recorded: () => undefined, refused: () => undefined })
  })

  const sending = computed(() => {
    const found = new Map<At, NewReading>()
    for (const item of outbox.of(id)) found.set(at(item.body.check, item.body.position), item.body)
    return found
  })

  function cell(check: Check, position: string): Cell {
    const key = at(check.key, position)
    const body = sending.value.get(key)
    if (body) {
      const option = check.options.find((one) => one.key === body.raw?.[0])
      return { severity: 'sending', text: option?.name ?? body.raw?.join(' · ') ?? '', place: places.get(key) }
    }
    const place = places.get(key)
    if (!place) return { severity: 'open', text: '' }
    return { severity: place.ask ? 'asked' : (place.severity as Severity), text: place.short, place }
  }

  /** Nothing recorded yet and nothing on its way. */
  const isOpen = (check: Check, position: string): boolean => !places.has(at(check.key, position)) && !sending.value.has(at(check.key, position))
  const openCount = (check: Check): number => check.positions.filter((position) => isOpen(check, position)).length

  return { data, problem, places, newest, load, cell, isOpen, openCount }
}

export type WalkAroundState = ReturnType<typeof useWalkAround>

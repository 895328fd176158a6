/** One walk-around as the screen sees it: what the server has, what is still on its way there, and what others add meanwhile. */
import { computed, onBeforeUnmount, reactive, ref } from 'vue'
import { answer, api, Refused, type Changed, type Check, type Hold, type NewReading, type Photo, type Place, type WalkAroundData } from '@/api/client'
import { isReading, outbox } from '@/api/outbox'
import { onPhotos, sendPhotos } from '@/api/photos'
import { newUuid } from '@/api/uuid'
import type { Severity } from '@/design/severity'

export type At = `${string}|${string}`
export const at = (check: string, position: string): At => `${check}|${position}`

const LOOK_EVERY = 5000

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
  /** What somebody else has just read, in words. */
  const news = ref('')
  const path = { params: { path: { walk_around_id: id } } }

  let again: ReturnType<typeof setTimeout> | undefined
  let look: ReturnType<typeof setInterval> | undefined

  /** Read it from the server; while that cannot answer, by itself again every few seconds. */
  async function load(): Promise<void> {
    clearTimeout(again)
    try {
      const found = await answer(api.GET('/api/walk-arounds/{walk_around_id}', path))
      places.clear()
      for (const place of found.places) places.set(at(place.check, place.position), place)
      data.value = found
      problem.value = ''
      loaded()
      if (!look && !found.walk_around.finished_at) look = setInterval(() => void lookAround(), LOOK_EVERY)
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      problem.value = error.message
      if (error.passing) again = setTimeout(() => void load(), 3000)
    }
    void outbox.flush()
    void sendPhotos()
  }

  /** What others have read since. Asked only while nothing of ours is on its way; a failure waits for the next time. */
  async function lookAround(): Promise<void> {
    if (!data.value || document.hidden || outbox.of(id).length) return
    const after = data.value.last
    const changed = await answer(api.GET('/api/walk-arounds/{walk_around_id}/changes', { params: { ...path.params, query: { after } } })).catch(() => undefined)
    if (!changed || !data.value || outbox.of(id).length) return
    // Somebody else may have brought the machine into another posture: what was confirmed here holds no longer.
    if (changed.holds) data.value.holds = changed.holds
    if (changed.last === after) return
    const mine = new Set(changed.places.filter((place) => places.get(at(place.check, place.position))?.at === place.at).map((place) => at(place.check, place.position)))
    apply(changed)
    data.value.last = changed.last
    const others = changed.places.filter((place) => !mine.has(at(place.check, place.position)))
    if (others.length) news.value = `${others[0]!.by}: ${others.length} ${others.length === 1 ? 'place' : 'places'} read meanwhile`
  }

  function apply(changed: Changed): void {
    if (!data.value) return
    for (const place of changed.places) places.set(at(place.check, place.position), place)
    for (const gone of changed.gone) places.delete(at(gone.check, gone.position))
    const stations = new Map(changed.stations.map((station) => [station.key, station]))
    data.value.stations = data.value.stations.map((station) => stations.get(station.key) ?? station)
    if (changed.parts) data.value.parts = changed.parts
  }

  outbox.listen({
    recorded: (item, changed) => {
      if (item.walkAround !== id) return
      apply(changed)
      newest.value = at(item.body.check, item.body.position)
    },
    held: (item, holds) => {
      // A later one may still be on its way; what it says is shown already.
      if (item.walkAround === id && data.value && outbox.of(id).every(isReading)) data.value.holds = holds
    },
    refused: (item, trouble) => {
      if (item.walkAround === id && isReading(item)) refused(item.body.check, item.body.position, item.body, trouble)
    },
  })
  const deaf = onPhotos((walkAround, photos: Photo[]) => {
    if (walkAround === id && data.value) data.value.photos = photos
  })
  onBeforeUnmount(() => {
    clearTimeout(again)
    clearInterval(look)
    deaf()
    outbox.listen({ recorded: () => undefined, held: () => undefined, refused: () => undefined })
  })

  const sending = computed(() => {
    const found = new Map<At, NewReading>()
    for (const item of outbox.of(id)) if (isReading(item)) found.set(at(item.body.check, item.body.position), item.body)
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

  const holds = computed<Hold[]>(() => data.value?.holds ?? [])
  /** The machine stands in a posture with its locks set: shown at once, sent like a reading. Another posture ends with it. */
  function confirm(posture: string, by: string): void {
    if (!data.value) return
    const when = new Date().toISOString()
    const offMachine = data.value.postures.find((one) => one.name === posture)?.off_machine
    const stays = offMachine ? data.value.holds : data.value.holds.filter((hold) => data.value?.postures.find((one) => one.name === hold.posture)?.off_machine)
    data.value.holds = [...stays.filter((hold) => hold.posture !== posture), { posture, by, at: when }]
    outbox.hold(id, { uuid: newUuid(), posture, at: when })
  }

  return { data, problem, places, newest, news, load, cell, isOpen, openCount, holds, confirm }
}

export type WalkAroundState = ReturnType<typeof useWalkAround>

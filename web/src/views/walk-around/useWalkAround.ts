/** One walk-around as the screen sees it: what the server has, what is still on its way there, and what others add meanwhile. */
import { computed, onBeforeUnmount, reactive, ref, watch } from 'vue'
import {
  answer,
  api,
  Refused,
  type Changed,
  type Check,
  type Hold,
  type NewReading,
  type Photo,
  type Place,
  type WalkAroundData,
} from '@/api/client'
import { serverNow, typedAt } from '@/api/clock'
import { connection } from '@/api/connection'
import { keptAnswer, remember, shown } from '@/api/kept'
import { isHold, isReading, outbox, walkAroundOf, type Entry, type ReadingEntry } from '@/api/outbox'
import { newUuid } from '@/api/uuid'
import { counted } from '@/app/counted'
import type { Severity } from '@/design/severity'
import { useVerdicts } from './useVerdicts'

export type At = `${string}|${string}`
export const at = (check: string, position: string): At => `${check}|${position}`

const LOOK_EVERY = 5000

/** What a cell shows: the verdict that is known, what was typed and is still on its way, or what could not be taken. */
export interface Cell {
  severity: Severity | 'sending'
  text: string
  place?: Place
  problem?: string
}

export function useWalkAround(id: string, myName: () => string, loaded: () => void) {
  const data = ref<WalkAroundData | null>(null)
  const problem = ref('')
  const places = reactive(new Map<At, Place>())
  /** What somebody else has just read, in words. */
  const news = ref('')
  /** Confirmed when the copy that is shown was made. Somebody may have moved the machine since, so that none of it holds. */
  const doubted = ref<Hold[]>([])
  const path = { params: { path: { walk_around_id: id } } }
  const address = `/api/walk-arounds/${id}`

  const byCheck = computed(() => new Map((data.value?.checks ?? []).map((check) => [check.key, check])))
  const labels = computed(() => new Map((data.value?.positions ?? []).map((one) => [one.key, one.label])))
  /** "Wheel bolt torque, rear right" */
  function named(check: string, position: string): string {
    const name = byCheck.value.get(check)?.name ?? check
    return position === 'all' ? name : `${name}, ${(labels.value.get(position) ?? position).toLowerCase()}`
  }
  const verdicts = useVerdicts(places, named)

  let again: ReturnType<typeof setTimeout> | undefined
  let look: ReturnType<typeof setInterval> | undefined

  /** Read it from the server; while that cannot answer, by itself again every few seconds. */
  async function load(): Promise<void> {
    clearTimeout(again)
    try {
      // Begun here without a connection: the server does not know of it yet.
      const own = outbox.begins(id) && (await keptAnswer<WalkAroundData>(address))
      const found = own || (await answer(api.GET('/api/walk-arounds/{walk_around_id}', path)))
      doubted.value = shown.has(address) ? found.holds : []
      if (doubted.value.length) found.holds = []
      places.clear()
      for (const place of found.places) places.set(at(place.check, place.position), place)
      data.value = found
      for (const entry of outbox.of(id)) if (isHold(entry)) stands(entry.body.posture, myName(), entry.body.at ?? serverNow())
      problem.value = ''
      loaded()
      if (!look && !found.walk_around.finished_at) look = setInterval(() => void lookAround(), LOOK_EVERY)
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      problem.value = error.message
      if (error.passing) again = setTimeout(() => void load(), 3000)
    }
  }

  /** What others have read since. Asked only while nothing of ours is on its way; a failure waits for the next time. */
  async function lookAround(): Promise<void> {
    if (!data.value || document.hidden || outbox.of(id).length) return
    const after = data.value.last
    const changed = await answer(
      api.GET('/api/walk-arounds/{walk_around_id}/changes', { params: { ...path.params, query: { after } } }),
    ).catch(() => undefined)
    if (!changed || !data.value || outbox.of(id).length) return
    // Somebody else may have brought the machine into another posture: what was confirmed here holds no longer.
    if (changed.holds) data.value.holds = changed.holds
    if (changed.last === after) return
    const known = new Set(
      changed.places
        .filter((place) => places.get(at(place.check, place.position))?.at === place.at)
        .map((place) => at(place.check, place.position)),
    )
    apply(changed)
    data.value.last = changed.last
    keepCopy()
    const others = changed.places.filter((place) => !known.has(at(place.check, place.position)) && place.by !== myName())
    if (others.length) news.value = `${others[0]!.by}: ${counted(others.length, 'place')} read meanwhile`
  }

  /** What was answered since it was read belongs to the copy on this device too: shown without a connection, it is whole. */
  let copy: ReturnType<typeof setTimeout> | undefined
  function keepCopy(): void {
    clearTimeout(copy) // many answers at once are one copy
    copy = setTimeout(() => void remember(address, JSON.stringify({ ...data.value, places: [...places.values()] })))
  }
  // In reach again, and everything typed has its answer: as it is now.
  watch(
    () => !connection.lost && shown.has(address) && !outbox.of(id).length,
    (stale) => {
      if (stale) void load()
    },
  )

  function apply(changed: Changed): void {
    if (!data.value) return
    for (const place of changed.places) places.set(at(place.check, place.position), place)
    for (const gone of changed.gone) places.delete(at(gone.check, gone.position))
    const stations = new Map(changed.stations.map((station) => [station.key, station]))
    data.value.stations = data.value.stations.map((station) => stations.get(station.key) ?? station)
    if (changed.parts) data.value.parts = changed.parts
  }

  const deaf = outbox.on({
    answered: (entry: Entry, answer: unknown) => {
      if (walkAroundOf(entry) !== id || !data.value) return
      if (isReading(entry)) {
        apply(answer as Changed)
        verdicts.take(at(entry.body.check, entry.body.position), answer as Changed)
      } else if (isHold(entry)) {
        // A later one may still be on its way; what it says is shown already.
        if (!outbox.of(id).some(isHold)) data.value.holds = answer as Hold[]
      } else if (entry.blob) data.value.photos = answer as Photo[]
      keepCopy()
    },
  })
  onBeforeUnmount(() => {
    clearTimeout(again)
    clearInterval(look)
    deaf()
  })

  /** The newest that was typed here for each place and has no answer yet. */
  const sending = computed(() => {
    const found = new Map<At, NewReading>()
    for (const item of outbox.of(id)) if (isReading(item)) found.set(at(item.body.check, item.body.position), item.body)
    return found
  })
  /** Typed last while the server is out of reach: no verdict of before may stand for it. */
  const unjudged = computed(() =>
    ['idle', 'sending'].includes(outbox.box.state) ? undefined : outbox.of(id).filter(isReading).at(-1),
  )
  /** What could not be taken, at its place. */
  const refused = computed(
    () => new Map<At, ReadingEntry>(outbox.refusedAt(id).map((entry) => [at(entry.body.check, entry.body.position), entry])),
  )

  function cell(check: Check, position: string): Cell {
    const key = at(check.key, position)
    const body = sending.value.get(key)
    if (body && body.state !== 'withdrawn') {
      const option = check.options.find((one) => one.key === body.raw?.[0])
      return { severity: 'sending', text: option?.name ?? body.raw?.join(' · ') ?? '', place: places.get(key) }
    }
    const trouble = refused.value.get(key)
    if (trouble)
      return {
        severity: 'asked',
        text: trouble.body.raw?.join(' · ') ?? '',
        place: places.get(key),
        problem: trouble.refused!.message,
      }
    const place = body ? undefined : places.get(key)
    if (!place) return { severity: 'open', text: '' }
    return {
      severity: place.ask ? 'asked' : (place.severity as Severity),
      text: place.short,
      place,
      problem: place.ask || undefined,
    }
  }

  /** Nothing recorded, nothing on its way, and nothing that waits for an answer: the hand has still to come here. */
  function isOpen(check: Check, position: string): boolean {
    const key = at(check.key, position)
    const body = sending.value.get(key)
    if (body) return body.state === 'withdrawn'
    return !places.has(key) && !refused.value.has(key)
  }
  /** Read, and not asked about. */
  function isAnswered(check: Check, position: string): boolean {
    const key = at(check.key, position)
    const body = sending.value.get(key)
    if (body) return body.state !== 'withdrawn'
    return !!places.get(key) && !places.get(key)!.ask && !refused.value.has(key)
  }
  const openCount = (check: Check): number => check.positions.filter((position) => isOpen(check, position)).length
  const mine = (place: Place): boolean => place.by === myName()

  const holds = computed<Hold[]>(() => data.value?.holds ?? [])
  /** The machine stands in a posture with its locks set: shown at once, sent like a reading. Another posture ends with it. */
  function confirm(posture: string, by: string): void {
    if (!data.value) return
    const when = typedAt()
    outbox.hold(
      id,
      { uuid: newUuid(), posture, at: when },
      { what: `Locks confirmed: ${posture}`, machine: data.value.machine.name },
    )
    stands(posture, by, when)
  }
  function stands(posture: string, by: string, when: string): void {
    if (!data.value) return
    const offMachine = data.value.postures.find((one) => one.name === posture)?.off_machine
    const stays = offMachine
      ? data.value.holds
      : data.value.holds.filter((hold) => data.value?.postures.find((one) => one.name === hold.posture)?.off_machine)
    data.value.holds = [...stays.filter((hold) => hold.posture !== posture), { posture, by, at: when }]
  }

  return {
    data,
    problem,
    places,
    news,
    sending,
    refused,
    verdicts,
    doubted,
    named,
    unjudged,
    load,
    cell,
    isOpen,
    isAnswered,
    openCount,
    mine,
    holds,
    confirm,
  }
}

export type WalkAroundState = ReturnType<typeof useWalkAround>

/** A hand on a walk-around with a server that is as slow as a test wants: the real outbox, order, hand and keys, and no screen. */
import { mount } from '@vue/test-utils'
import { vi } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import { api, Refused, type Changed, type Check, type NewReading, type Place, type WalkAroundData } from '@/api/client'
import { isReading, outbox, type Entry as Kept } from '@/api/outbox'
import type { Entry } from './entry'
import { useEntry } from './useEntry'
import { useKeys } from './useKeys'
import { useOrder } from './useOrder'
import { useWalkAround, type WalkAroundState } from './useWalkAround'

export const TOMAS = { id: 7, name: 'Tomas Vey' }
export const STATES = [
  { key: 'smooth', name: 'Smooth', severity: 'sound', right: true },
  { key: 'dry', name: 'Dry', severity: 'due' },
  { key: 'rough', name: 'Rough', severity: 'due' },
] as Check['options']

export const check = (key: string, more: Partial<Check> = {}): Check =>
  ({
    key,
    name: key,
    kind: 'measure',
    unit: 'mm',
    options: [],
    values: [],
    feelers: [],
    positions: ['1', '2', '3'],
    optional: false,
    station: 'row',
    thing: 'row',
    bulk: false,
    posture: 'raised',
    hazards: [],
    figures: [],
    ways: [],
    tools: [],
    ...more,
  }) as unknown as Check

/** What the server makes of a reading. Tests may put their own in its place. */
export type Judge = (body: NewReading) => Partial<Place> | Refused
export const sound: Judge = () => ({ severity: 'sound' })

export interface Server {
  /** Milliseconds until the next answer comes. */
  delay: () => number
  judge: Judge
  recorded: NewReading[]
}
export const server: Server = { delay: () => 20, judge: sound, recorded: [] }

export function placeOf(body: NewReading, more: Partial<Place> = {}): Place {
  return {
    check: body.check,
    position: body.position,
    state: body.state,
    severity: 'sound',
    action: 'none',
    reason: 'Fine.',
    remedy: '',
    why: [],
    facts: {},
    used: null,
    fitted: '',
    ask: '',
    instead: '',
    split: [],
    advice: null,
    raw: body.raw ?? [],
    feeler: body.feeler ?? '',
    units: body.units ?? 'mm',
    short: (body.raw ?? []).join(' · '),
    shown: '',
    weight: 0,
    shown_other: '',
    contact_shown: '',
    choice: body.raw?.[0] ?? '',
    note: body.note ?? '',
    confirmed: !!body.confirmed,
    bulk: !!body.bulk,
    posture: '',
    by: TOMAS.name,
    at: body.taken_at ?? '',
    overtaken: null,
    ...more,
  } as Place
}

/** The outbox's way to the server, in a test: mocked in by `vi.mock('@/api/outbox', …)` of the spec. */
export async function send(entry: Kept): Promise<unknown> {
  await new Promise((resolve) => setTimeout(resolve, server.delay()))
  if (!isReading(entry)) return []
  const body = entry.body as NewReading
  const judged = server.judge(body)
  if (judged instanceof Refused) throw judged
  if (!server.recorded.some((one) => one.uuid === body.uuid)) server.recorded.push(body)
  const changed: Changed = { last: 0, places: [], gone: [], stations: [], parts: null }
  if (body.state === 'withdrawn') changed.gone.push({ check: body.check, position: body.position })
  else changed.places.push(placeOf(body, judged))
  return changed
}

export interface Harness {
  entry: Entry
  state: WalkAroundState
  press: (...keys: string[]) => void
  type: (text: string) => void
  where: () => string
  unmount: () => void
}

export async function hand(
  checks: Check[],
  { units = 'mm' as 'mm' | 'in', sweep = 'check' as 'check' | 'row', positions = ['1', '2', '3'] } = {},
): Promise<Harness> {
  const data = {
    checks,
    places: [],
    stations: [],
    parts: [],
    holds: [{ posture: 'raised', by: 'Tomas', at: '' }],
    postures: [{ name: 'raised' }],
    machine: { name: 'Dunmere 12' },
    walk_around: { finished_at: null },
    last: 0,
    positions: positions.map((key) => ({
      key,
      label: `Row ${key}`,
      thing: 'row',
      number: Number(/\d+/.exec(key)?.[0]),
      side: null,
    })),
    plan: {
      visits: [{ posture: 'raised', via: [], minutes: 0, checks: checks.map((one) => one.key) }],
      minutes: 0,
      minutes_station_order: 0,
    },
  } as unknown as WalkAroundData
  vi.spyOn(api, 'GET').mockResolvedValue({ data, response: { ok: true } } as never)
  outbox.as(TOMAS)
  let made: { entry: Entry; state: WalkAroundState } | undefined
  const page = mount(
    defineComponent({
      setup() {
        const state = useWalkAround(
          'w',
          () => TOMAS.name,
          () => undefined,
        )
        const order = useOrder(state.data)
        order.sweep.value = sweep
        made = {
          state,
          entry: useEntry({
            walkAround: 'w',
            member: TOMAS.id,
            units,
            state,
            order,
            checkKey: ref(checks[0]!.key),
            focusField: () => undefined,
          }),
        }
        return () => h('p')
      },
    }),
  )
  const { entry, state } = made!
  await state.load()
  entry.select(checks[0]!.key)
  const key = useKeys(entry)
  const press = (...keys: string[]): void => {
    for (const pressed of keys) {
      const event = new KeyboardEvent('keydown', {
        key: pressed.replace(/^repeat /, ''),
        cancelable: true,
        repeat: pressed.startsWith('repeat '),
      })
      key(event)
      if (!event.defaultPrevented && event.key.length === 1) entry.text.value += event.key
      if (!event.defaultPrevented && event.key === 'Backspace') entry.text.value = entry.text.value.slice(0, -1)
    }
  }
  return {
    entry,
    state,
    press,
    type: (text) => press(...text),
    where: () => `${entry.check.value.key} ${entry.position.value}`,
    unmount: () => page.unmount(),
  }
}

/** Every place with the figure that stands there, or waits there. */
export function standing(state: WalkAroundState): Record<string, string> {
  const found: Record<string, string> = {}
  for (const [key, place] of state.places) found[key.replace('|', ' ')] = place.raw.join(' ')
  for (const [key, refused] of state.refused.value) found[key.replace('|', ' ')] = (refused.body.raw ?? []).join(' ')
  return found
}

export function fresh(): void {
  localStorage.clear()
  outbox.box.entries = []
  Object.assign(server, { delay: () => 20, judge: sound, recorded: [] })
}

/** The same figures from 0 to 1 for the same seed. */
export function dice(seed: number): () => number {
  let state = seed
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296
    return state / 4294967296
  }
}

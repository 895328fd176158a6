/**
 * The hand on the keyboard: which position is asked for, what is typed, and what each key does. Type, Enter, next.
 * It decides nothing about the readings themselves; the server's core does.
 */
import { computed, nextTick, reactive, ref, watch, type Ref } from 'vue'
import type { Check, NewReading, Place, Refused, WalkAroundData } from '@/api/client'
import { outbox } from '@/api/outbox'
import { newUuid } from '@/api/uuid'
import { keepDraft, readDraft } from './drafts'
import { at, type At, type WalkAroundState } from './useWalkAround'

export const NOT_SEEN_REASONS = ['Cannot be reached today', 'Part is off the machine', 'Too dirty to judge', 'No light']

/** What an undo needs: where, and what stood there before. */
interface Before {
  check: string
  position: string
  body: NewReading | null
}

export function useEntry(id: string, state: WalkAroundState, checkKey: Ref<string>, units: 'mm' | 'in', focusField: () => void) {
  const position = ref('')
  const text = ref('')
  const done = ref<string[]>([])
  const feeler = ref(localStorage.getItem('lumvek:feeler') ?? 'card')
  const notSeen = ref(false)
  const problems = reactive(new Map<At, string>())
  const hint = ref('')
  const lastRaw = reactive(new Map<string, NewReading>())
  const history: Before[] = []

  const data = computed(() => state.data.value as WalkAroundData)
  const check = computed<Check>(() => data.value.checks.find((one) => one.key === checkKey.value) ?? data.value.checks[0]!)
  const here = computed(() => at(check.value.key, position.value))
  const place = computed(() => state.places.get(here.value))
  const label = computed(() => data.value.positions.find((one) => one.key === position.value)?.label ?? '')
  const slots = computed(() => check.value.values)
  const isChoice = computed(() => check.value.options.length > 0)
  const problem = computed(() => problems.get(here.value) ?? '')

  /** Go to a position of a check; what was typed there before comes back. */
  function select(key: string, where?: string): void {
    leaveDraft()
    checkKey.value = key
    const positions = check.value.positions
    position.value = where && positions.includes(where) ? where : (positions.find((one) => state.isOpen(check.value, one)) ?? positions[0]!)
    const draft = readDraft(id, check.value.key, position.value)
    text.value = draft.text
    done.value = draft.done
    notSeen.value = false
    hint.value = ''
    void nextTick(focusField)
  }

  function leaveDraft(): void {
    if (position.value && !notSeen.value) keepDraft(id, check.value.key, position.value, { text: text.value, done: done.value })
  }
  watch([text, done], leaveDraft)

  function record(body: Partial<NewReading>): void {
    const reading: NewReading = {
      uuid: newUuid(), check: check.value.key, position: position.value, state: 'seen', raw: [], reason: '', note: '', confirmed: false,
      feeler: check.value.feelers.length ? feeler.value : '', units, taken_at: new Date().toISOString(), ...body,
    }
    const again = !!place.value
    history.push({ check: reading.check, position: reading.position, body: standing() })
    if (reading.state === 'seen' && !reading.confirmed) lastRaw.set(reading.check, reading)
    problems.delete(here.value)
    keepDraft(id, reading.check, reading.position, { text: '', done: [] })
    text.value = ''
    done.value = []
    notSeen.value = false
    outbox.put(id, reading)
    advance(again && !place.value?.ask)
  }

  /** The reading in force here, in the form it could be sent again. */
  function standing(): NewReading | null {
    const had = place.value
    if (!had) return null
    const state = had.state === 'not-seen' ? 'not-seen' : 'seen'
    return {
      uuid: '', check: had.check, position: had.position, state, raw: had.raw, feeler: had.feeler, units: had.units as NewReading['units'], confirmed: had.confirmed, note: had.note,
      reason: state === 'not-seen' ? had.reason.replace(/^Not seen: /, '') : '', taken_at: had.at,
    }
  }

  /** The next open position of this check, else the next check with anything open. Reading again what was read goes on in order. */
  function advance(again: boolean): void {
    const positions = check.value.positions
    const index = positions.indexOf(position.value)
    if (again && positions[index + 1]) return select(check.value.key, positions[index + 1])
    const ring = [...positions.slice(index + 1), ...positions.slice(0, index)]
    const open = ring.find((one) => state.isOpen(check.value, one))
    if (open) return select(check.value.key, open)
    const checks = data.value.checks
    const from = checks.indexOf(check.value)
    const next = [...checks.slice(from + 1), ...checks.slice(0, from)].find((one) => !one.optional && state.openCount(one) > 0)
    if (next) return select(next.key)
    select(check.value.key, position.value)
    hint.value = 'Every position has been looked at.'
  }

  function enter(): void {
    hint.value = ''
    const typed = text.value.trim()
    if (notSeen.value) return typed ? record({ state: 'not-seen', reason: typed }) : void (hint.value = 'Say why, or press Esc.')
    if (isChoice.value) return choose(typed)
    if (typed === '.') return void (hint.value = 'Measured checks are never marked in bulk: type the figure, or − for not seen.')
    if (!typed && !done.value.length) {
      const had = place.value
      if (had?.ask) return keep(had)
      return had ? step(1) : void (hint.value = 'Type the figure, or − for not seen.')
    }
    if (!typed) return
    const raw = [...done.value, typed]
    if (raw.length < slots.value.length) {
      done.value = raw
      text.value = ''
      return
    }
    const had = place.value
    record({ raw, confirmed: !!had?.ask && raw.join('|') === had.raw.join('|') })
  }

  /** Stand by a figure that was asked about, as it was typed. */
  function keep(had: Place): void {
    record({ raw: had.raw, feeler: had.feeler, units: had.units as NewReading['units'], confirmed: true })
  }

  function choose(typed: string): void {
    const number = Number(typed)
    const option = check.value.options.find((one, i) => one.key === typed || i + 1 === number)
    if (option) return record({ raw: [option.key] })
    if (!typed && place.value) return step(1)
    hint.value = `Choose 1 to ${check.value.options.length}.`
  }

  function repeatLast(): void {
    if (done.value.length) {
      text.value = done.value[done.value.length - 1]!
      return enter()
    }
    const last = lastRaw.get(check.value.key) ?? previousHere()
    if (!last) return void (hint.value = 'Nothing to repeat yet.')
    record({ raw: last.raw, feeler: last.feeler, units: last.units as NewReading['units'] })
  }

  /** After a reload the last value is the one at the position before. */
  function previousHere(): { raw: string[]; feeler: string; units: string } | undefined {
    const positions = check.value.positions
    for (let i = positions.indexOf(position.value) - 1; i >= 0; i--) {
      const had = state.places.get(at(check.value.key, positions[i]!))
      if (had?.state === 'seen' && !had.ask) return had
    }
    return undefined
  }

  function markSound(): void {
    const sound = check.value.options.find((option) => option.severity === 'sound')
    if (sound) record({ raw: [sound.key] })
    else hint.value = 'Measured checks are never marked in bulk: type the figure, or − for not seen.'
  }

  function askNotSeen(): void {
    notSeen.value = true
    text.value = ''
    void nextTick(focusField)
  }

  function step(by: number): void {
    const positions = check.value.positions
    const index = positions.indexOf(position.value) + by
    if (index >= 0 && index < positions.length) return select(check.value.key, positions[index]!)
    stepCheck(by)
  }

  function stepCheck(by: number): void {
    const checks = data.value.checks
    const next = checks[checks.indexOf(check.value) + by]
    if (next) select(next.key, by < 0 ? next.positions[next.positions.length - 1] : undefined)
  }

  function back(): void {
    if (done.value.length) {
      text.value = done.value[done.value.length - 1]!
      done.value = done.value.slice(0, -1)
    } else step(-1)
  }

  /** Put back what stood before the last reading of this visit, or open the position again. Nothing is erased: it is a new reading. */
  function undo(): void {
    const last = history.pop()
    if (!last) return void (hint.value = 'Nothing to undo in this visit.')
    outbox.put(id, last.body ? { ...last.body, uuid: newUuid(), taken_at: new Date().toISOString() } : { uuid: newUuid(), check: last.check, position: last.position, state: 'withdrawn' } as NewReading)
    select(last.check, last.position)
  }

  /** The server could not use what was typed: it comes back into its field, and the hand too if it is free. */
  function refused(check: string, where: string, body: NewReading, trouble: Refused): void {
    const raw = body.raw ?? []
    const slot = /^raw\.(\d+)$/.exec(trouble.field)
    problems.set(at(check, where), `${raw[slot ? Number(slot[1]) : 0] ?? ''} – ${trouble.message}`.replace(/^ – /, ''))
    const index = slot ? Number(slot[1]) : Math.max(0, raw.length - 1)
    keepDraft(id, check, where, { text: raw[index] ?? '', done: raw.slice(0, index) })
    if (state.data.value && !text.value && !done.value.length && !notSeen.value) select(check, where)
  }

  /** A question about a figure came back: return to it if the hand is free. */
  function question(check: string, where: string): void {
    if (state.data.value && !text.value && !done.value.length && !notSeen.value) select(check, where)
  }

  function key(event: KeyboardEvent): void {
    if (event.ctrlKey && event.key.toLowerCase() === 'z' && !text.value) return event.preventDefault(), undo()
    if (event.ctrlKey || event.metaKey || event.altKey) return
    const empty = text.value === ''
    const steps: Record<string, () => void> = { ArrowLeft: () => step(-1), ArrowRight: () => step(1), ArrowUp: () => stepCheck(-1), ArrowDown: () => stepCheck(1) }
    let act: (() => void) | undefined
    if (event.key === 'Enter') act = enter
    else if (event.key === 'Escape' && notSeen.value) act = () => select(check.value.key, position.value)
    else if (notSeen.value) {
      const picked = empty ? NOT_SEEN_REASONS[Number(event.key) - 1] : undefined
      if (picked) act = () => record({ state: 'not-seen', reason: picked })
    } else if (event.key === 'PageDown') act = () => stepCheck(1)
    else if (event.key === 'PageUp') act = () => stepCheck(-1)
    else if (empty && event.key === '=') act = repeatLast
    else if (empty && (event.key === '-' || event.key === '−')) act = askNotSeen
    else if (empty && event.key === 'Backspace') act = back
    else if (empty && event.key === '.' && isChoice.value) act = markSound
    else if (empty && steps[event.key]) act = steps[event.key]
    else if (isChoice.value && event.key.length === 1) act = () => choose(quick(event.key))
    if (act) {
      event.preventDefault()
      act()
    }
  }

  /** y and n answer a question; digits choose a state. */
  function quick(pressed: string): string {
    const yesNo = { y: 'yes', n: 'no' }[pressed.toLowerCase()]
    return yesNo && check.value.options.some((option) => option.key === yesNo) ? yesNo : pressed
  }

  watch(feeler, (name) => localStorage.setItem('lumvek:feeler', name))

  return {
    check, position, text, done, feeler, notSeen, problem, problems, hint, place, label, slots, isChoice,
    select, enter, choose, repeatLast, markSound, askNotSeen, back, step, undo, keep, refused, question, key, record,
  }
}

export type Entry = ReturnType<typeof useEntry>

/**
 * The hand on the keyboard: which position is asked for, what is typed, and what each key does. Type, Enter, next.
 * It decides nothing about the readings themselves; the server's core does.
 */
import { computed, nextTick, reactive, ref, watch, type Ref } from 'vue'
import type { Check, NewReading, Place, Refused, WalkAroundData } from '@/api/client'
import { outbox } from '@/api/outbox'
import { newUuid } from '@/api/uuid'
import { keepDraft, readDraft } from './drafts'
import type { Order } from './useOrder'
import { at, type At, type WalkAroundState } from './useWalkAround'

export const NOT_SEEN_REASONS = ['Cannot be reached today', 'Part is off the machine', 'Too dirty to judge', 'No light']

/** What an undo needs: where, and what stood there before. Marked in bulk is undone in bulk. */
interface Before {
  check: string
  position: string
  body: NewReading | null
}

export function useEntry(id: string, state: WalkAroundState, order: Order, checkKey: Ref<string>, units: 'mm' | 'in', focusField: () => void) {
  const position = ref('')
  const text = ref('')
  const done = ref<string[]>([])
  const feeler = ref(localStorage.getItem('lumvek:feeler') ?? 'card')
  const notSeen = ref(false)
  const problems = reactive(new Map<At, string>())
  const hint = ref('')
  const lastRaw = reactive(new Map<string, NewReading>())
  const history: Before[][] = []
  /** Words that go with the next reading here. */
  const note = ref('')

  const data = computed(() => state.data.value as WalkAroundData)
  const check = computed<Check>(() => data.value.checks.find((one) => one.key === checkKey.value) ?? order.checks.value[0] ?? data.value.checks[0]!)
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
    note.value = draft.note ?? place.value?.note ?? ''
    void nextTick(focusField)
  }

  /** What the machine stands in as far as somebody confirmed it: kept with the reading. */
  const posture = computed(() => (state.holds.value.some((hold) => hold.posture === check.value.posture) ? check.value.posture : ''))

  function leaveDraft(): void {
    if (!position.value || notSeen.value) return
    const words = note.value.trim()
    keepDraft(id, check.value.key, position.value, { text: text.value, done: done.value, ...(words && words !== place.value?.note ? { note: words } : {}) })
  }
  watch([text, done, note], leaveDraft)

  function record(body: Partial<NewReading>): void {
    const reading: NewReading = {
      uuid: newUuid(), check: check.value.key, position: position.value, state: 'seen', raw: [], reason: '', note: note.value.trim(), confirmed: false, bulk: false,
      posture: posture.value, feeler: check.value.feelers.length ? feeler.value : '', units, taken_at: new Date().toISOString(), ...body,
    }
    const again = !!place.value
    history.push([{ check: reading.check, position: reading.position, body: standing(place.value) }])
    if (reading.state === 'seen' && !reading.confirmed) lastRaw.set(reading.check, reading)
    problems.delete(here.value)
    keepDraft(id, reading.check, reading.position, { text: '', done: [] })
    text.value = ''
    done.value = []
    note.value = ''
    notSeen.value = false
    outbox.put(id, reading)
    advance(again && !place.value?.ask)
  }

  /** The reading in force here, in the form it could be sent again. */
  function standing(had: Place | undefined): NewReading | null {
    if (!had) return null
    const state = had.state as NewReading['state']
    return {
      uuid: '', check: had.check, position: had.position, state, raw: had.raw, feeler: had.feeler, units: had.units as NewReading['units'], confirmed: had.confirmed, note: had.note,
      bulk: had.bulk, posture: had.posture, reason: state === 'seen' ? '' : had.reason.replace(/^Not seen: |^Does not apply(: )?|\.$/g, ''), taken_at: had.at,
    }
  }

  /** The next open position of this check, else the next check with anything open. Reading again what was read goes on in order. */
  function advance(again: boolean): void {
    const positions = check.value.positions
    const index = positions.indexOf(position.value)
    if (again && positions[index + 1]) return select(check.value.key, positions[index + 1])
    const steps = order.steps.value
    const from = steps.findIndex((step) => step.check.key === check.value.key && step.position === position.value)
    const ring = [...steps.slice(from + 1), ...steps.slice(0, from)]
    const here = order.sweep.value === 'check' || check.value.optional ? ring.find((step) => step.check.key === check.value.key && state.isOpen(step.check, step.position)) : undefined
    const next = here ?? ring.find((step) => !step.check.optional && state.isOpen(step.check, step.position))
    if (next) return select(next.check.key, next.position)
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

  function doesNotApply(): void {
    record({ state: 'does-not-apply', raw: [] })
  }

  /** The visual checks of this station that are left in this posture: neither measured nor safety items. */
  const leftInBulk = computed(() => {
    const visit = order.visitOf(check.value.key)
    return (visit?.of ?? []).filter((one) => one.bulk && one.station === check.value.station).flatMap((one) => one.positions.filter((where) => state.isOpen(one, where)).map((where) => ({ check: one, where })))
  })

  /** Everything here looks right: each of them recorded by itself, as seen in bulk. */
  function markRest(): void {
    const rest = leftInBulk.value
    if (!rest.length) return void (hint.value = 'Nothing is left here that is only looked at.')
    history.push(rest.map((one) => ({ check: one.check.key, position: one.where, body: null })))
    for (const one of rest) {
      outbox.put(id, {
        uuid: newUuid(), check: one.check.key, position: one.where, state: 'seen', raw: [one.check.options[0]!.key], reason: '', note: '', confirmed: false, bulk: true,
        posture: posture.value, feeler: '', units, taken_at: new Date().toISOString(),
      })
    }
    advance(false)
  }

  /** Keep the words: with what stands here already, or with the next reading. */
  function keepNote(): void {
    const had = standing(place.value)
    if (had) outbox.put(id, { ...had, note: note.value.trim(), uuid: newUuid(), taken_at: new Date().toISOString() })
    hint.value = had ? 'Note kept.' : 'The note goes with the next reading here.'
    void nextTick(focusField)
  }

  /** What was advised has been done: record what it changed, and come back to read again. */
  function followed(had: Place): void {
    const then = had.advice?.then ?? []
    history.push(then.map((one) => ({ check: one.check, position: one.position, body: standing(state.places.get(at(one.check, one.position))) })))
    for (const one of then) {
      outbox.put(id, {
        uuid: newUuid(), check: one.check, position: one.position, state: 'seen', raw: one.raw, reason: '', note: '', confirmed: false, bulk: false,
        posture: posture.value, feeler: '', units: 'mm', taken_at: new Date().toISOString(),
      })
    }
    select(had.check, had.position)
  }

  function step(by: number): void {
    const steps = order.steps.value
    const index = steps.findIndex((one) => one.check.key === check.value.key && one.position === position.value) + by
    const next = steps[index]
    if (next) select(next.check.key, next.position)
  }

  function stepCheck(by: number): void {
    const checks = order.checks.value
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
    for (const one of last) outbox.put(id, one.body ? { ...one.body, uuid: newUuid(), taken_at: new Date().toISOString() } : { uuid: newUuid(), check: one.check, position: one.position, state: 'withdrawn' } as NewReading)
    select(last[0]!.check, last[0]!.position)
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

  /** A gauge sends its sign right before its figure; a hand that means the key does not. */
  const GAUGE_MS = 40
  let sign: { text: string; act: () => void; timer: ReturnType<typeof setTimeout> } | undefined
  function afterSign(event: KeyboardEvent): boolean {
    if (!sign) return false
    const { text: typed, act, timer } = sign
    clearTimeout(timer)
    sign = undefined
    if (!/^[\d.,]$/.test(event.key)) return act(), false
    event.preventDefault()
    text.value = typed + event.key
    return true
  }
  function perhapsSign(typed: string, act: () => void): void {
    sign = { text: typed, act, timer: setTimeout(() => { sign = undefined; act() }, GAUGE_MS) }
  }

  function key(event: KeyboardEvent): void {
    if (afterSign(event)) return
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
    else if (empty && !isChoice.value && (event.key === '-' || event.key === '+')) act = () => perhapsSign(event.key, event.key === '+' ? markRest : askNotSeen)
    else if (empty && (event.key === '-' || event.key === '−')) act = askNotSeen
    else if (empty && event.key === '/') act = doesNotApply
    else if (empty && event.key === '+') act = markRest
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
    note, posture, leftInBulk,
    select, enter, followed, choose, repeatLast, markSound, markRest, doesNotApply, keepNote, askNotSeen, back, step, undo, keep, refused, question, key, record,
  }
}

export type Entry = ReturnType<typeof useEntry>

/**
 * What is typed at the place in hand, and what becomes of it. It decides nothing about the readings themselves; the server's core does.
 * A reading is stored before its field is cleared.
 */
import { computed, nextTick, ref, watch } from 'vue'
import type { Check, NewReading, Place, WalkAroundData } from '@/api/client'
import { typedAt } from '@/api/clock'
import { newUuid } from '@/api/uuid'
import { counted } from '@/app/counted'
import { useBulk } from './useBulk'
import { keepDraft, readDraft, type DraftPlace } from './drafts'
import { useHand, type Spot } from './useHand'
import type { Entry, EntryOptions } from './entry'
import { usePasted } from './usePasted'
import { useQuestions } from './useQuestions'
import { useRecords } from './useRecords'
import { useRepeat } from './useRepeat'
import { useSplit } from './useSplit'
import { at } from './useWalkAround'

export function useEntry({ walkAround, member, units, state, order, checkKey, focusField }: EntryOptions): Entry {
  const text = ref('')
  const done = ref<string[]>([])
  const feeler = ref(localStorage.getItem('lumvek:feeler') ?? 'card')
  const notSeen = ref(false)
  const hint = ref('')
  /** Words that go with the next reading here. */
  const note = ref('')

  const data = computed(() => state.data.value as WalkAroundData)
  const check = computed<Check>(
    () => data.value.checks.find((one) => one.key === checkKey.value) ?? order.checks.value[0] ?? data.value.checks[0]!,
  )
  const hand = useHand(state, order, checkKey, { leave: leaveDraft, arrive })
  const position = hand.position
  const questions = useQuestions(state, order)

  const here = computed(() => at(check.value.key, position.value))
  const place = computed(() => state.places.get(here.value))
  const label = computed(() => data.value.positions.find((one) => one.key === position.value)?.label ?? '')
  const slots = computed(() => check.value.values)
  const isChoice = computed(() => check.value.options.length > 0)
  /** What waits for an answer at the place in hand. */
  const question = computed(() => questions.of(check.value.key, position.value))
  const problem = computed(() => (question.value?.kind === 'refused' ? question.value.text : ''))

  /** What the machine stands in as far as somebody confirmed it: kept with the reading. */
  const posture = computed(() =>
    state.holds.value.some((hold) => hold.posture === check.value.posture) ? check.value.posture : '',
  )

  const records = useRecords({ walkAround, units, state, posture, say: (words) => (hint.value = words) })
  const { reading, keep, standing } = records
  const withFeeler = (): string => (check.value.feelers.length ? feeler.value : '')
  const sheet = usePasted({
    data,
    check,
    following: hand.following,
    cancelled: () => void nextTick(focusField),
    record(rows) {
      const bodies = rows.map((row) =>
        reading({ check: check.value.key, position: row.position }, { feeler: withFeeler(), ...row.body }),
      )
      if (!bodies.length || !keep(bodies)) return void nextTick(focusField)
      text.value = ''
      select(check.value.key, bodies[bodies.length - 1]!.position)
      hand.fix()
      goOn()
    },
  })

  const draftAt = (spot: Spot): DraftPlace => ({ member, walkAround, ...spot })

  function leaveDraft(): void {
    if (!position.value || notSeen.value) return
    const words = note.value.trim()
    keepDraft(draftAt(hand.here()), {
      text: text.value,
      done: done.value,
      ...(words && words !== place.value?.note ? { note: words } : {}),
    })
  }
  watch([text, done, note], leaveDraft)

  /** What was typed here before comes back into the field; what was refused here, too. */
  function arrive(): void {
    const draft = readDraft(draftAt(hand.here()))
    const refused = state.refused.value.get(here.value)
    const raw = refused?.body.raw ?? []
    if (!draft.text && !draft.done.length && raw.length && !isChoice.value) {
      const slot = /^raw\.(\d+)$/.exec(refused?.refused?.field ?? '')
      const index = slot ? Number(slot[1]) : raw.length - 1
      draft.text = raw[index] ?? ''
      draft.done = raw.slice(0, index)
    }
    text.value = draft.text
    done.value = draft.done
    notSeen.value = false
    hint.value = once = ''
    note.value = draft.note ?? place.value?.note ?? ''
    void nextTick(focusField)
  }

  function select(key: string, where?: string): void {
    hand.choose(key, where)
  }

  /** Record what is said of the place in hand, and on to the next. */
  function record(body: Partial<NewReading>): void {
    const spot = hand.here()
    const made = reading(spot, { note: note.value.trim(), feeler: withFeeler(), ...body })
    if (!keep([made])) return
    repeated.remember(made)
    keepDraft(draftAt(spot), { text: '', done: [] })
    text.value = ''
    done.value = []
    note.value = ''
    notSeen.value = false
    goOn()
  }

  function goOn(): void {
    if (hand.advance()) return
    const waiting = questions.all.value.length
    arrive()
    hint.value = `Every place has been looked at.${waiting ? ` ${counted(waiting, 'question')} left: F2.` : ''}`
  }

  function enter(): void {
    hint.value = ''
    const typed = text.value.trim()
    if (notSeen.value)
      return typed ? record({ state: 'not-seen', reason: typed }) : void (hint.value = 'Say why, or press Esc.')
    if (isChoice.value) return choose(typed)
    if (typed === '.')
      return void (hint.value = 'Measured checks are never marked in bulk: type the figure, or − for not seen.')
    // An Enter by itself may be the second one of a gauge: it never moves the hand and never answers a question.
    if (!typed)
      return void (hint.value =
        question.value?.kind === 'asked'
          ? 'Type the figure again, or y to keep it.'
          : place.value
            ? 'Read already: → goes on to the next place.'
            : 'Type the figure, or − for not seen.')
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
  function stand(): void {
    const had = place.value
    if (had?.ask) record({ raw: had.raw, feeler: had.feeler, units: had.units as NewReading['units'], confirmed: true })
  }

  function choose(typed: string): void {
    const number = Number(typed)
    const option = check.value.options.find((one, i) => one.key === typed || i + 1 === number)
    if (option) return record({ raw: [option.key] })
    hint.value = `Choose 1 to ${check.value.options.length}.`
  }

  function markSound(): void {
    const sound = check.value.options.find((option) => option.right && option.severity === 'sound')
    if (sound) record({ raw: [sound.key] })
    else if (check.value.options.length) hint.value = 'For this crop the manual alone says how: choose how it stands.'
    else hint.value = 'Measured checks are never marked in bulk: type the figure, or − for not seen.'
  }

  function askNotSeen(): void {
    leaveDraft()
    notSeen.value = true
    text.value = ''
    void nextTick(focusField)
  }
  /** Out of whatever was begun: the reason, or a look at a question. */
  function escape(): void {
    if (once) [once, hint.value] = ['', '']
    else if (notSeen.value) arrive()
    else hand.comeBack()
  }

  /** What was asked for once, and where: the second time it is meant. */
  let once = ''
  function sure(what: string, words: string): boolean {
    const asked = `${what} ${here.value}`
    const meant = once === asked
    once = meant ? '' : asked
    hint.value = meant ? '' : words
    return meant
  }
  watch(text, () => (once = ''))

  function doesNotApply(): void {
    const had = place.value
    const stands = had?.shown || had?.short
    if (stands && !sure('*', `${stands} stands here. * again: it does not apply here.`)) return
    record({ state: 'does-not-apply', raw: [] })
  }

  const { leftInBulk, markRest } = useBulk({
    state,
    order,
    check,
    records,
    say: (words) => (hint.value = words),
    sure,
    goOn: goOnAfter,
  })
  function goOnAfter(): void {
    hand.fix()
    goOn()
  }

  /** Keep the words: with what stands here already, or with the next reading. */
  function keepNote(): void {
    const had = standing(check.value.key, position.value)
    if (had && !keep([{ ...had, note: note.value.trim(), uuid: newUuid(), taken_at: typedAt() }])) return
    hint.value = had ? 'Note kept.' : 'The note goes with the next reading here.'
    void nextTick(focusField)
  }

  /** What was advised has been done: record what it changed, and come back to read again. */
  function followed(had: Place): void {
    const then = had.advice?.then ?? []
    if (keep(then.map((one) => reading(one, { raw: one.raw, units: 'mm' })))) select(had.check, had.position)
  }

  /** Look at a question: the next one in working order. The hand comes back after it. */
  function visitQuestion(): void {
    const next = questions.after(hand.here())
    if (!next) return void (hint.value = 'No question waits.')
    if (next.check === check.value.key && next.position === position.value) return void focusField()
    hand.visit(next)
  }

  /** Go back to one of the last verdicts that were due or stop: each press one further back. */
  function visitRecent(): void {
    const keys = state.verdicts.recent.value.map((one) => one.key)
    if (!keys.length) return void (hint.value = 'Nothing due or stop has come up here.')
    const now = keys.indexOf(here.value)
    const { place } = state.verdicts.recent.value[(now + 1) % keys.length]!
    hand.visit(place)
  }

  const repeated = useRepeat(state, check, position)
  /** What was typed last, once more: the figure before of this place, or the whole reading. */
  function repeatLast(): void {
    if (done.value.length) {
      text.value = done.value[done.value.length - 1]!
      return enter()
    }
    const last = repeated.last()
    if (!last) return void (hint.value = 'Nothing to repeat yet.')
    record({ raw: last.raw, feeler: last.feeler, units: last.units as NewReading['units'] })
  }

  const { splitting, split } = useSplit({
    state,
    questions,
    question,
    hand,
    records,
    draftAt,
    clear: () => {
      text.value = ''
      done.value = []
    },
    say: (words) => (hint.value = words),
    select,
    goOn: goOnAfter,
  })

  function back(): void {
    if (done.value.length) {
      text.value = done.value[done.value.length - 1]!
      done.value = done.value.slice(0, -1)
    } else hand.step(-1)
  }

  /** Put back what stood before the last act of this visit, or open its places again. */
  function undo(): void {
    const where = records.undo()
    if (where === 'nothing') hint.value = 'Nothing to undo in this visit.'
    else if (where !== 'no room') select(where.check, where.position)
  }

  watch(feeler, (name) => localStorage.setItem('lumvek:feeler', name))

  return {
    check,
    position,
    text,
    done,
    feeler,
    notSeen,
    problem,
    question,
    questions,
    hint,
    place,
    label,
    slots,
    isChoice,
    note,
    posture,
    leftInBulk,
    hand,
    splitting,
    ...sheet,
    select,
    enter,
    followed,
    choose,
    repeatLast,
    markSound,
    markRest,
    doesNotApply,
    keepNote,
    askNotSeen,
    escape,
    back,
    undo,
    stand,
    split,
    record,
    visitQuestion,
    visitRecent,
  }
}

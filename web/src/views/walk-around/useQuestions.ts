/**
 * What waits for an answer: figures the product asked about, and what could not be taken. Each stands at its own place until the
 * technician goes there; none moves the hand.
 */
import { computed } from 'vue'
import type { Check, NewReading, WalkAroundData } from '@/api/client'
import type { Spot } from './useHand'
import type { Order, Step } from './useOrder'
import { at, type WalkAroundState } from './useWalkAround'

export interface Question extends Spot {
  kind: 'asked' | 'refused'
  /** "Row 4 left" */
  label: string
  text: string
  /** All figures typed for the place, with the two that ran together taken apart; empty where none did. */
  figures: string[]
}

/** What taking two figures apart comes to: who gets which figures, and where the hand goes on. */
export interface Split {
  records: { check: Check; position: string; raw: string[]; like: NewReading }[]
  /** Figures that begin the place after the last one. */
  rest: string[]
  next: Step | undefined
  /** How many later figures move one place on. */
  moved: number
}

const slotsOf = (check: Check): number => Math.max(1, check.values.length)

export function useQuestions(state: WalkAroundState, order: Order) {
  const labels = computed(
    () => new Map((state.data.value as WalkAroundData | null)?.positions.map((one) => [one.key, one.label]) ?? []),
  )

  const all = computed<Question[]>(() => {
    const found: Question[] = []
    for (const { check, position } of order.steps.value) {
      const key = at(check.key, position)
      const label = check.positions.length > 1 ? (labels.value.get(position) ?? position) : check.name
      const refused = state.refused.value.get(key)
      const place = state.places.get(key)
      if (refused) {
        const said = refused.refused!
        found.push({
          kind: 'refused',
          check: check.key,
          position,
          label,
          text: `“${refused.body.raw?.join(' · ') ?? ''}” ${said.message}`,
          figures: said.figures ?? [],
        })
      } else if (place?.ask && !state.sending.value.has(key))
        found.push({ kind: 'asked', check: check.key, position, label, text: place.ask, figures: place.split })
    }
    return found
  })
  const of = (check: string, position: string): Question | undefined =>
    all.value.find((one) => one.check === check && one.position === position)

  /** The one after a place in working order, and round again. */
  function after(spot: Spot): Question | undefined {
    const steps = order.steps.value
    const index = (one: Spot): number =>
      steps.findIndex((step) => step.check.key === one.check && step.position === one.position)
    const from = index(spot)
    return all.value.find((one) => index(one) > from) ?? all.value[0]
  }

  /** What this member typed at a place, and when: on its way, refused, or taken. */
  function typedAt(check: Check, position: string): { body: NewReading; at: string } | null {
    const key = at(check.key, position)
    const body = state.sending.value.get(key) ?? state.refused.value.get(key)?.body
    if (body) return body.state === 'seen' ? { body, at: body.taken_at ?? '' } : null
    const place = state.places.get(key)
    if (!place || place.state !== 'seen' || !state.mine(place)) return null
    return {
      body: {
        check: check.key,
        position,
        raw: place.raw,
        feeler: place.feeler,
        units: place.units,
        note: place.note,
        posture: place.posture,
      } as NewReading,
      at: place.at,
    }
  }

  /**
   * An Enter was swallowed: the first figure belongs here, the second to the next place, and whatever was typed after it without a gap
   * stands one place too early. `partial`: figures begun at `hand`, where that follows without a gap.
   */
  function split(question: Question, hand: Spot, partial: string[]): Split | null {
    const steps = order.steps.value
    const first = steps.findIndex((step) => step.check.key === question.check && step.position === question.position)
    const start = steps[first]
    const here = start && typedAt(start.check, start.position)
    if (!start || !here || !question.figures.length) return null
    const run = steps.slice(first).filter((step) => step.run === start.run)
    const chain: { step: Step; like: NewReading }[] = [{ step: start, like: here.body }]
    const figures = [...question.figures]
    for (const step of run.slice(1)) {
      const typed = step.check.options.length ? null : typedAt(step.check, step.position)
      if (!typed || Date.parse(typed.at) < Date.parse(here.at)) {
        if (step.check.key === hand.check && step.position === hand.position) figures.push(...partial)
        break
      }
      chain.push({ step, like: typed.body })
      figures.push(...(typed.body.raw ?? []))
    }
    const records: Split['records'] = []
    for (const step of run) {
      const take = slotsOf(step.check)
      if (figures.length < take) return { records, rest: figures, next: step, moved: chain.length - 1 }
      const like = chain[records.length]?.like ?? here.body
      records.push({ check: step.check, position: step.position, raw: figures.splice(0, take), like })
      if (!figures.length) return { records, rest: [], next: run[records.length], moved: chain.length - 1 }
    }
    return null // a figure is left over: somebody has put something right by hand already
  }

  return { all, of, after, split }
}

export type Questions = ReturnType<typeof useQuestions>

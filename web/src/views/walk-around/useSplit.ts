/** Two figures that ran together: how they would stand apart, and taking them apart. */
import { computed, type ComputedRef } from 'vue'
import { keepDraft, readDraft, type DraftPlace } from './drafts'
import type { Hand, Spot } from './useHand'
import type { Question, Questions, Split } from './useQuestions'
import type { Records } from './useRecords'
import type { WalkAroundState } from './useWalkAround'

export interface SplitOptions {
  state: WalkAroundState
  questions: Questions
  question: ComputedRef<Question | undefined>
  hand: Hand
  records: Records
  draftAt: (spot: Spot) => DraftPlace
  clear: () => void
  say: (words: string) => void
  select: (check: string, position?: string) => void
  goOn: () => void
}

export function useSplit({ state, questions, question, hand, records, draftAt, clear, say, select, goOn }: SplitOptions): {
  splitting: ComputedRef<Split | null>
  split: () => void
} {
  const splitting = computed(() => {
    if (!question.value?.figures.length) return null
    // What was begun where the hand came from follows the chain, if it stands there.
    const back = hand.detour.value?.from
    const partial = back ? readDraft(draftAt(back)) : { done: [], text: '' }
    return questions.split(question.value, back ?? hand.here(), [...partial.done, ...(partial.text ? [partial.text] : [])])
  })

  /** Take them apart, move on what was typed after them, and go on after the last. */
  function split(): void {
    const plan = splitting.value
    if (!plan)
      return void say(
        question.value?.figures.length
          ? 'One figure is too many for the places that follow: put them right one by one.'
          : 'Nothing ran together here.',
      )
    const bodies = plan.records.map((one) =>
      records.reading(
        { check: one.check.key, position: one.position },
        { raw: one.raw, feeler: one.like.feeler, units: one.like.units, posture: one.like.posture, note: one.like.note },
      ),
    )
    if (!records.keep(bodies)) return
    const back = hand.detour.value?.from
    if (back && plan.records.some((one) => one.check.key === back.check && one.position === back.position))
      keepDraft(draftAt(back), { text: '', done: [] })
    clear()
    const last = plan.records[plan.records.length - 1]!
    if (plan.next) {
      if (plan.rest.length)
        keepDraft(draftAt({ check: plan.next.check.key, position: plan.next.position }), { text: '', done: plan.rest })
      const open = plan.rest.length > 0 || state.isOpen(plan.next.check, plan.next.position)
      if (open) return select(plan.next.check.key, plan.next.position)
    }
    select(last.check.key, last.position)
    goOn()
  }

  return { splitting, split }
}

/** What can be done at the place in hand: `useEntry` makes it; panels, keys and questions use it. */
import type { ComputedRef, Ref } from 'vue'
import type { Check, NewReading, Place } from '@/api/client'
import type { Hand } from './useHand'
import type { Order } from './useOrder'
import type { PasteSheet } from './usePasted'
import type { Question, Questions, Split } from './useQuestions'
import type { WalkAroundState } from './useWalkAround'

export const NOT_SEEN_REASONS = ['Cannot be reached today', 'Part is off the machine', 'Too dirty to judge', 'No light']

export interface EntryOptions {
  walkAround: string
  member: number
  units: 'mm' | 'in'
  state: WalkAroundState
  order: Order
  checkKey: Ref<string>
  /** Bring the focus to the field. */
  focusField: () => void
}

/** The place in hand, what is typed there, and all that keys and buttons can do with it. */
export interface Entry extends PasteSheet {
  check: ComputedRef<Check>
  position: Ref<string>
  place: ComputedRef<Place | undefined>
  label: ComputedRef<string>
  /** Names of several figures of one reading. */
  slots: ComputedRef<string[]>
  isChoice: ComputedRef<boolean>
  posture: ComputedRef<string>
  hand: Hand
  text: Ref<string>
  done: Ref<string[]>
  feeler: Ref<string>
  notSeen: Ref<boolean>
  note: Ref<string>
  hint: Ref<string>
  problem: ComputedRef<string>
  question: ComputedRef<Question | undefined>
  questions: Questions
  splitting: ComputedRef<Split | null>
  leftInBulk: ComputedRef<{ check: Check; where: string }[]>
  select: (key: string, where?: string) => void
  record: (body: Partial<NewReading>) => void
  enter: () => void
  choose: (typed: string) => void
  stand: () => void
  split: () => void
  repeatLast: () => void
  markSound: () => void
  markRest: () => void
  doesNotApply: () => void
  askNotSeen: () => void
  escape: () => void
  keepNote: () => void
  followed: (had: Place) => void
  back: () => void
  undo: () => void
  visitQuestion: () => void
  visitRecent: () => void
}

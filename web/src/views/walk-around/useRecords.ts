/** What is recorded as one act: stored before anything is cleared, and taken back as one. */
import type { Ref } from 'vue'
import type { NewReading, WalkAroundData } from '@/api/client'
import { typedAt } from '@/api/clock'
import { outbox } from '@/api/outbox'
import { StorageFull } from '@/api/storage'
import { newUuid } from '@/api/uuid'
import type { Spot } from './useHand'
import { at, type WalkAroundState } from './useWalkAround'

/** What an undo needs: where, and what stood there before. */
interface Before {
  check: string
  position: string
  body: NewReading | null
}

export interface Records {
  /** A reading of a place as it would be sent now. */
  reading: (spot: Spot, body: Partial<NewReading>) => NewReading
  /** Store readings as one act. False where the device has no room for them: then nothing was cleared. */
  keep: (bodies: NewReading[]) => boolean
  /** What stands at a place, in the form it could be sent again: on its way, or in force. */
  standing: (key: string, where: string) => NewReading | null
  /** Put back what stood before the last act, or open its places again. Where that was; nothing where there is nothing to undo. */
  undo: () => Spot | 'nothing' | 'no room'
}

export interface RecordsOptions {
  walkAround: string
  units: 'mm' | 'in'
  state: WalkAroundState
  /** What the machine stands in as far as somebody confirmed it: kept with the reading. */
  posture: Ref<string>
  /** Say why something could not be stored. */
  say: (words: string) => void
}

export function useRecords({ walkAround, units, state, posture, say }: RecordsOptions): Records {
  const history: Before[][] = []

  function reading(spot: Spot, body: Partial<NewReading>): NewReading {
    return {
      uuid: newUuid(),
      check: spot.check,
      position: spot.position,
      state: 'seen',
      raw: [],
      reason: '',
      note: '',
      confirmed: false,
      bulk: false,
      posture: posture.value,
      feeler: '',
      units,
      taken_at: typedAt(),
      ...body,
    }
  }

  function keep(bodies: NewReading[]): boolean {
    const before = bodies.map((body) => ({
      check: body.check,
      position: body.position,
      body: standing(body.check, body.position),
    }))
    const machine = (state.data.value as WalkAroundData).machine.name
    try {
      for (const body of bodies)
        outbox.put(walkAround, body, { what: state.named(body.check, body.position), shown: shown(body), machine })
    } catch (error) {
      if (!(error instanceof StorageFull)) throw error
      say(error.message)
      return false
    }
    history.push(before)
    return true
  }

  function shown(body: NewReading): string {
    if (body.state !== 'seen')
      return (
        { 'not-seen': `not seen, ${body.reason ?? ''}`, 'does-not-apply': 'does not apply', withdrawn: 'taken back' }[
          body.state ?? 'withdrawn'
        ] ?? ''
      )
    const options = (state.data.value as WalkAroundData).checks.find((one) => one.key === body.check)?.options ?? []
    return (body.raw ?? []).map((raw) => options.find((one) => one.key === raw)?.name ?? raw).join(' · ')
  }

  function standing(key: string, where: string): NewReading | null {
    const under = state.sending.value.get(at(key, where))
    if (under) return under.state === 'withdrawn' ? null : under
    const had = state.places.get(at(key, where))
    if (!had) return null
    return {
      uuid: '',
      check: had.check,
      position: had.position,
      state: had.state as NewReading['state'],
      raw: had.raw,
      feeler: had.feeler,
      units: had.units as NewReading['units'],
      confirmed: had.confirmed,
      note: had.note,
      bulk: had.bulk,
      posture: had.posture,
      reason: had.because,
      taken_at: had.at,
    }
  }

  /** Nothing is erased: it is a new reading. */
  function undo(): Spot | 'nothing' | 'no room' {
    const last = history.pop()
    if (!last) return 'nothing'
    const bodies = last.map((one) =>
      one.body ? { ...one.body, uuid: newUuid(), taken_at: typedAt() } : reading(one, { state: 'withdrawn', posture: '' }),
    )
    const undone = keep(bodies)
    if (!undone) {
      history.push(last)
      return 'no room'
    }
    history.pop() // taking back is not itself taken back
    return last[0]!
  }

  return { reading, keep, standing, undo }
}

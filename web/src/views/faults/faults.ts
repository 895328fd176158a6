/** Words of faults: how they end, and how they show. */
import type { Schemas } from '@/api/client'

export type Trace = Schemas['TraceOut']
export type Look = Schemas['FaultLookOut']
export const OUTCOMES = { '': 'Under way', found: 'Found', 'not-found': 'Not found', watched: 'To be watched' } as const
export const SIGNS_OF = {
  when: {
    name: 'When',
    of: { empty: 'empty', loaded: 'under load', starting: 'starting up', turning: 'in a turn', always: 'always' },
  },
  sound: {
    name: 'It sounds',
    of: { hum: 'hums', knock: 'knocks', rumble: 'rumbles', rattle: 'rattles', squeal: 'squeals', growl: 'growls' },
  },
  follows: {
    name: 'It follows',
    of: { 'engine speed': 'engine speed', 'ground speed': 'ground speed', load: 'the load', crop: 'the crop' },
  },
} as const

/** A share as one says it. */
export const percent = (share: number): string =>
  share === 0 ? '0 %' : share < 0.01 ? 'under 1 %' : share > 0.995 && share < 1 ? 'over 99 %' : `${Math.round(share * 100)} %`

/** What a look takes with the way to it. */
export const whole = (look: Look): number => Math.round(look.minutes + look.way_minutes)

/** How common a cause is beside the others of its symptom, the most common first. */
export const HOW_OFTEN = [
  { weight: 4, name: 'often' },
  { weight: 2, name: 'now and then' },
  { weight: 1, name: 'rarely' },
] as const

/** From a check, what was read, and its sisters beside it, to what the check's drawing is told. */
import type { Check, Place, Schemas } from '@/api/client'
import type { Drawing, DrawingKind } from '@/design/drawings/registry'

type Facts = NonNullable<Place['facts']>
type Kind = Facts['kind']
type FactsOf<K extends Kind> = Extract<Facts, { kind: K }>
export interface Sister {
  label: string
  place: Place
}
export type Name = Exclude<Check['drawing'], ''>

/** What of a check its drawing is made from. */
export type Drawable = Pick<Check, 'drawing' | 'limits' | 'figures'>
interface Told {
  check: Drawable
  /** What was read here, if it stands: not what is asked about. */
  place?: Place
  sisters: Sister[]
}

/** Facts of one kind, where a place has such. */
function facts<K extends Kind>(place: Place | undefined, kind: K): FactsOf<K> | undefined {
  return place?.facts?.kind === kind ? (place.facts as FactsOf<K>) : undefined
}
function each<K extends Kind>(sisters: Sister[], kind: K): { label: string; place: Place; told: FactsOf<K> }[] {
  return sisters.flatMap(({ label, place }) => {
    const told = facts(place, kind)
    return told ? [{ label, place, told }] : []
  })
}
const figure = (check: Drawable, key: string): string => check.figures.find((one) => one.key === key)?.brief ?? ''
const limit = (check: Drawable, key: string): number => check.limits[key] ?? 0
const reading = (place?: Place): number | undefined => {
  const told = place?.facts
  return told && 'reading' in told ? told.reading : undefined
}
const marks = (check: Drawable): Schemas['ScaleMark'][] =>
  check.limits.least !== undefined
    ? [{ value: check.limits.least, text: `At least ${figure(check, 'least')}`, kind: 'edge' }]
    : check.limits.new !== undefined && check.limits.limit !== undefined
      ? [
          { value: check.limits.new, text: `New ${figure(check, 'new')}`, kind: 'new' },
          { value: check.limits.limit, text: `Limit ${figure(check, 'limit')}`, kind: 'limit' },
        ]
      : [
          { value: limit(check, 'low'), text: `From ${figure(check, 'low')}`, kind: 'edge' },
          { value: limit(check, 'high'), text: `To ${figure(check, 'high')}`, kind: 'edge' },
        ]

const DRAWN: Record<Name, { kind: DrawingKind; of: (told: Told) => Drawing | undefined }> = {
  disc: {
    kind: 'disc',
    of: ({ check, place }) => ({
      kind: 'disc',
      reading: reading(place),
      shown: place?.shown ?? '',
      fresh: limit(check, 'new'),
      limit: limit(check, 'limit'),
      fresh_shown: figure(check, 'new'),
      limit_shown: figure(check, 'limit'),
    }),
  },
  scale: {
    kind: 'scale',
    of: ({ check, place }) => ({ kind: 'scale', reading: reading(place), shown: place?.shown ?? '', marks: marks(check) }),
  },
  'gauge-wheel-gap': { kind: 'gap', of: ({ place }) => ({ kind: 'gap', reading: reading(place), shown: place?.shown ?? '' }) },
  contact: {
    kind: 'contact',
    of: ({ check, place }) => {
      const told = facts(place, 'contact')
      const wanted = {
        low: limit(check, 'low'),
        high: limit(check, 'high'),
        band_shown: `${figure(check, 'low')} to ${figure(check, 'high')}`,
      }
      const { diameter = null, overlap = 0, equivalent = 0, by_shown = '' } = told ?? {}
      return { kind: 'contact', ...wanted, diameter, overlap, equivalent, shown: place?.contact_shown ?? '', by: by_shown }
    },
  },
  chain: {
    kind: 'chain',
    of: ({ check, place }) => {
      const told = facts(place, 'stretch')
      return (
        told && {
          kind: 'chain',
          used: told.used,
          plus_minus: 0,
          shown: place!.shown,
          fresh_shown: 'new',
          limit_shown: figure(check, 'limit_pct'),
        }
      )
    },
  },
  'take-up': {
    kind: 'slot',
    of: ({ place }) => {
      const told = facts(place, 'travel')
      return (
        told && {
          kind: 'slot',
          used: told.used,
          total: told.total,
          used_shown: `${told.used_shown} used`,
          total_shown: told.total_shown,
          after: told.after,
          after_shown: told.after_shown,
        }
      )
    },
  },
  register: {
    kind: 'register',
    of: ({ place }) => {
      const told = facts(place, 'register')
      return (
        told && {
          kind: 'register',
          left: told.left,
          right: told.right,
          tolerance: told.tolerance,
          left_shown: told.left_shown,
          right_shown: told.right_shown,
        }
      )
    },
  },
  bar: {
    kind: 'bar',
    of: ({ place }) => {
      const told = facts(place, 'bar')
      return (
        told && {
          kind: 'bar',
          pitch: told.pitch,
          shown: told.pitch_shown,
          front_shown: told.front_shown,
          rear_shown: told.rear_shown,
        }
      )
    },
  },
  'hold-downs': {
    kind: 'clearances',
    of: ({ check, place, sisters }) => {
      const clearances = each(sisters, 'gauge').map(({ label, told }) => ({ name: label, state: told.state }))
      const window = {
        low: limit(check, 'go'),
        high: limit(check, 'no_go'),
        low_shown: figure(check, 'go'),
        high_shown: figure(check, 'no_go'),
      }
      return clearances.length ? { kind: 'clearances', clearances, ...window, card: facts(place, 'gauge')?.card } : undefined
    },
  },
  even: {
    kind: 'even',
    of: ({ check, place, sisters }) => {
      const known = each(sisters, 'even')
      const target = known.find(({ told }) => told.target != null)?.told.target ?? reading(place) ?? 0
      const positions = known.map(({ label, place, told }) => ({
        name: label,
        value: told.reading,
        shown: place.short,
        correction: told.correction_shown,
        worst: place.severity !== 'sound',
      }))
      return positions.length
        ? { kind: 'even', positions, target, tolerance: limit(check, 'tolerance'), target_shown: '' }
        : undefined
    },
  },
  furrow: {
    kind: 'furrow',
    of: ({ check, sisters }) => {
      const rows = each(sisters, 'depth').map(({ label, place, told }) => ({
        name: label,
        digs: told.digs ?? [],
        shown: place.short,
        track: false,
        off: told.off,
      }))
      return rows.length
        ? {
            kind: 'furrow',
            rows,
            target: limit(check, 'target'),
            tolerance: limit(check, 'tolerance'),
            target_shown: figure(check, 'target'),
          }
        : undefined
    },
  },
  chopper: {
    kind: 'rotor',
    of: ({ place, sisters }) => {
      const blades = each(sisters, 'knives').map(({ label, told }) => ({
        name: label,
        angle: told.angle,
        mass: told.mass,
        bad: told.bad,
      }))
      const told = facts(place, 'knives')
      return blades.length
        ? {
            kind: 'rotor',
            blades,
            residuals: told?.unbalances ?? [],
            allowed_shown: told?.allowed_shown ?? '',
            recommended: '',
          }
        : undefined
    },
  },
}

/** What the drawing of a check is told; nothing where there is nothing to draw yet. */
export function drawingOf(check: Drawable, place: Place | undefined, sisters: Sister[]): Drawing | undefined {
  if (!check.drawing) return undefined
  const stands = place?.state === 'seen' && !place.ask ? place : undefined
  return DRAWN[check.drawing].of({ check, place: stands, sisters })
}

/** The drawings that these checks may need. */
export const kindsOf = (checks: Check[]): DrawingKind[] =>
  checks.flatMap((check) => (check.drawing ? [DRAWN[check.drawing].kind] : []))

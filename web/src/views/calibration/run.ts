/** Going through one calibration: where one is, what is left to confirm, and what is kept of it in the end. */
import type { Schemas } from '@/api/client'

export type Calibration = Schemas['CalibrationOut']
export type Outcome = Schemas['CalibrationRunIn']['outcome']

/** stage: 0 what must hold before, 1… the steps, then whether it worked, then whether it is saved. held: what was confirmed. */
export interface Run {
  uuid: string
  stage: number
  held: string[]
  begun: string
  values: Record<string, string>
  /** What was typed at the bench. */
  texts: Record<string, string | string[][]>
  /** What the figure was worked out of. */
  given: Record<string, unknown>
}
export const begunRun = (uuid: string): Run => ({ uuid, stage: 0, held: [], begun: '', values: {}, texts: {}, given: {} })

/** What must hold before the first step: the posture's lock, and what the calibration says; at least the posture itself. */
export function conditions(one: Calibration): string[] {
  const told = [one.lock, ...one.before].filter(Boolean)
  return told.length ? told : [one.posture]
}

export type Where =
  { at: 'before' } | { at: 'step'; step: Calibration['steps'][number]; number: number } | { at: 'worked' } | { at: 'saved' }
export function where(one: Calibration, run: Run): Where {
  const step = one.steps[run.stage - 1]
  if (run.stage === 0) return { at: 'before' }
  if (step) return { at: 'step', step, number: run.stage }
  return run.stage === one.steps.length + 1 || !one.save ? { at: 'worked' } : { at: 'saved' }
}

/** How many of the steps are done. */
export const done = (one: Calibration, run: Run): number => Math.max(0, Math.min(run.stage - 1, one.steps.length))

/** The figures as they were typed. */
export const figures = (run: Run): Record<string, string> =>
  Object.fromEntries(Object.entries(run.values).filter(([, text]) => text.trim()))

/** A load as it is typed. */
export interface TypedLoad {
  name: string
  crop: string
  flow: 'normal' | 'low'
  machine_kg: string
  shown_pct: string
}
/** What scale and grain store found of one, as it is typed. */
export interface TypedWeight {
  scale_kg: string
  reference_pct: string
}
/** Where they are typed. */
export const LOAD_FIELDS = ['name', 'machine_kg', 'shown_pct', 'scale_kg', 'reference_pct']
type Loads = Schemas['CollectedLoadOut'][]
const text = (figure: number | null | undefined): string => (figure === null || figure === undefined ? '' : String(figure))

/** What the bench begins with: what is stored now, and the loads that somebody has weighed since: what the machine showed before
 * held the offset or factor of then. */
export function benchTexts(bench: string, one: Calibration, collected: Loads): Record<string, string | string[][]> {
  const loads = collected.filter((load) => !one.saved_at || Date.parse(load.at) > Date.parse(one.saved_at))
  const last = text(one.values[0]?.last)
  if (bench === 'moisture')
    return {
      stored_pct: last || '0',
      pairs: loads
        .filter((load) => load.shown_pct !== null && load.reference_pct !== null)
        .map((load) => [text(load.shown_pct), text(load.reference_pct)]),
    }
  if (bench === 'yield')
    return {
      loads: loads
        .filter((load) => load.machine_kg !== null && load.scale_kg !== null)
        .map((load) => [text(load.machine_kg), text(load.scale_kg), load.flow]),
    }
  return bench === 'sieves' ? { sieves: [['Chaffer'], ['Sieve']] } : {}
}

type Runs = Schemas['SheetOut']['runs']
/** The figures to keep, of what was worked out: an offset as it is stored, a factor multiplied with the one in force, and lengths
 * as whoever reads in these units would type them. */
export function workedOut(runs: Runs, one: Calibration, units: string): Record<string, string> {
  const moisture = runs['moisture_offset']?.result as { offset_pct?: number } | undefined
  if (moisture?.offset_pct !== undefined) return { offset: moisture.offset_pct.toFixed(1) }
  const factor = (runs['yield_factor']?.result as { factor?: number | null } | undefined)?.factor
  if (factor) return { factor: (factor * (one.values[0]?.last ?? 1)).toFixed(4) }
  const sieves = (runs['sieve_zero']?.result as { sieves?: Record<string, { offset_mm: number }> } | undefined)?.sieves ?? {}
  const found: Record<string, string> = {}
  for (const [name, sieve] of Object.entries(sieves))
    found[name.toLowerCase()] = sieve.offset_mm.toFixed(1) + (units === 'mm' ? '' : ' mm')
  return found
}

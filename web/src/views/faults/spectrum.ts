/** Where things stand in a drawn spectrum. */
import type { Schemas } from '@/api/client'

export type Recording = Schemas['RecordingOut']
export const WIDTH = 900
export const HEIGHT = 300
export const LEFT = 40
export const BASE = HEIGHT - 30

/** What the picture shows from left to right: Hz, or turns of the engine where two speeds are laid over each other. */
export interface Scale {
  last: number
  top: number
  x: (hz: number) => number
  y: (amplitude: number) => number
}

/** Everything up to the last peak or order that is worth seeing, no more than half the rate. */
export function scaleOf(spectra: Schemas['SpectrumOut'][], peaks: number[], per: number[] = []): Scale {
  const end = Math.max(...spectra.map((one, i) => (one.hz.at(-1) ?? 1) / (per[i] ?? 1)))
  const told = Math.max(...peaks, 0) * 1.25
  const last = Math.min(end, Math.max(told, end * 0.35))
  const top = Math.max(...spectra.flatMap((one) => one.amplitude), 1e-9) * 1.12
  return {
    last,
    top,
    x: (hz) => LEFT + (hz / last) * (WIDTH - LEFT - 10),
    y: (amplitude) => BASE - (amplitude / top) * (BASE - 16),
  }
}

/** The line of a spectrum; per: Hz of one turn of the engine, where it is drawn by order. */
export const lineOf = (one: Schemas['SpectrumOut'], scale: Scale, per = 1): string =>
  one.hz
    .map((hz, i) => [hz / per, one.amplitude[i]!] as const)
    .filter(([at]) => at <= scale.last)
    .map(([at, amplitude]) => `${scale.x(at).toFixed(1)},${scale.y(amplitude).toFixed(1)}`)
    .join(' ')

/** Round steps for an axis. */
export function stepsTo(last: number): number[] {
  const rough = last / 8
  const size = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].map((one) => one * size).find((one) => one >= rough)!
  return Array.from({ length: Math.floor(last / step) + 1 }, (_, i) => Number((i * step).toPrecision(6)))
}

/** A peak in words: what it is, or that no shaft gives it. */
export const peakWords = (peak: Schemas['ShakePeakOut']): string => {
  const best = peak.matches[0]
  return best ? `${best.shaft}, ${Number(best.order.toFixed(2))} × its turn` : 'no shaft'
}

/** How far a peak lies from where the shaft would have it. */
export const offWords = (pct: number): string => (Math.abs(pct) < 0.05 ? 'on the spot' : `${Math.abs(pct).toFixed(1)} % off`)

/** What its amplitudes are counted in; a file does not say. */
export const unitOf = (one: Recording): string => (one.source === 'file' ? 'as in the file' : 'm/s²')

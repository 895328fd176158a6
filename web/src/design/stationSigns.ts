/**
 * Small line drawings of what stands at a station, 40 × 30, ground at the lower edge, drawn for this product. They lie in a JSON
 * file because the report draws them too. A header's station is looked up without its prefix; one without a sign gets a plain peg.
 */
import drawn from './stationSigns.json'

export const SIGNS: Record<string, string> = drawn
export const PEG = 'M20 8v20M15 28h10M14 8h12'

export const signOf = (station: string): string => SIGNS[station] ?? SIGNS[station.replace(/^.*\./, '')] ?? PEG

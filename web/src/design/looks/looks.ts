/** The drawings of states, written from the core by scripts/api_types.sh: change them there. */
import drawn from './looks.json'

export type Stroke = readonly [role: string, d: string]
interface Motif {
  counted: string[]
  words: Record<string, string>
  states: Record<string, Stroke[]>
}
const MOTIFS = drawn as unknown as Record<string, Motif>

/** The strokes of one state; none where the catalogue is newer than these drawings. */
export const strokesOf = (motif: string, state: string): Stroke[] => MOTIFS[motif]?.states[state] ?? []
/** The states that are shown where faults are counted, the sound one first. */
export const countedOf = (motif: string): string[] => MOTIFS[motif]?.counted ?? []
/** What fingers and ears tell of a state. */
export const wordsOf = (motif: string, state: string): string => MOTIFS[motif]?.words[state] ?? ''

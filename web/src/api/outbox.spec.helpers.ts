/** Boxes for the tests of the outbox, and what is put into them. */
import { Refused, type Changed, type NewReading } from './client'
import { makeOutbox, type Entry, type Outbox } from './outbox'

export const CHANGED: Changed = { last: 0, places: [], gone: [], stations: [], parts: null }
export const TOMAS = { id: 7, name: 'Tomas Vey' }
export const INES = { id: 8, name: 'Ines Marrow' }
export const ABOUT = { what: 'Opener disc diameter, row 1 left', shown: '390' }
export const reading = (uuid: string, raw = '390', position = '1L'): NewReading =>
  ({ uuid, check: 'opener-disc-diameter', position, raw: [raw] }) as NewReading
export const ours = (status: number): Refused => new Refused(status, 'no', 'raw.0', true)
export const kept = (): string[] => Object.keys(localStorage).filter((key) => key.startsWith('lumvek:outbox:'))

export function boxOf(
  send: (entry: Entry) => Promise<unknown>,
  member: typeof TOMAS | null = TOMAS,
  channel: object | null = null,
): Outbox {
  const box = makeOutbox(send, localStorage, channel as never)
  box.as(member)
  return box
}

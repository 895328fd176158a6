/** Beginning a walk-around where there is no signal: what it would show was read before, and is kept under its choices. */
import type { Schemas } from '@/api/client'
import { typedAt } from '@/api/clock'
import { keptAnswer, remember } from '@/api/kept'
import { BEGIN, outbox } from '@/api/outbox'
import { phaseName } from '@/app/words'

export type Start = Schemas['StartIn']
export type Beforehand = Schemas['BeforehandOut']

export const CROPS: { key: Start['crop']; name: string }[] = [
  { key: '', name: 'Not decided yet' },
  { key: 'small-grain', name: 'Small grain' },
  { key: 'pod', name: 'Pod crops' },
  { key: 'ear', name: 'Ear crops' },
  { key: 'fine-seed', name: 'Fine seed' },
]

/** The address under which it is read: what is usual, and what nobody chose, is left out. */
export function beforehandOf(machine: number, wanted?: Partial<Start>, usual?: string): string {
  const query = new URLSearchParams()
  if (wanted?.phase && wanted.phase !== usual) query.set('phase', wanted.phase)
  if (wanted?.crop) query.set('crop', wanted.crop)
  for (const header of [...(wanted?.headers ?? [])].sort((a, b) => a - b)) query.append('headers', String(header))
  if (wanted?.take_in) query.set('take_in', 'true')
  return `/api/machines/${machine}/beforehand${query.size ? `?${query}` : ''}`
}

/** Begin it on this device: it is shown as it would be, and sent with all that is typed in it. Throws StorageFull. */
export async function beginHere(machine: Schemas['MachineOut'], wanted: Start, address: string): Promise<boolean> {
  const ahead = await keptAnswer<Beforehand>(address)
  if (!ahead) return false
  const at = typedAt()
  const about = { what: `${phaseName(wanted.phase ?? 'winter')} walk-around begun`, machine: machine.name }
  outbox.add(BEGIN, { machine_id: machine.id }, { ...wanted, at }, about, { uuid: wanted.id })
  const brief = { ...ahead.walk_around.walk_around, id: wanted.id, started_at: at }
  await remember(`/api/walk-arounds/${wanted.id}`, JSON.stringify({ ...ahead.walk_around, walk_around: brief }))
  return true
}

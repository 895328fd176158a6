/**
 * The map with what was typed since it was read: a figure stands in its cell while it is on its way, with the server's word as soon as
 * that has come, and with the reason where it could not be taken.
 */
import { computed, onBeforeUnmount, type Ref } from 'vue'
import type { Changed, Place, Schemas } from '@/api/client'
import { isReading, outbox, walkAroundOf, type ReadingEntry } from '@/api/outbox'

type Cell = Schemas['CellOut']
export type Line = Schemas['LineOut']
/** Compared with nothing yet: that is done when the map is read again. */
const ALONE = { fitted: '', off: '', change: '', deviation: 0, used: null }
const SENDING = 'Kept on this device, on its way to the server.'
const placeOf = (check: string, position: string): string => `${check}|${position}`

export function useNewest(id: string, data: Ref<Schemas['GridOut'] | null>): Ref<Line[]> {
  const typed = computed(() => {
    const found = new Map<string, Cell>()
    const put = (entry: ReadingEntry, severity: string, reason: string): void => {
      const { check, position, raw } = entry.body
      const short = raw?.join(' · ') ?? ''
      found.set(placeOf(check, position), { ...ALONE, position, severity, short, shown: short, reason })
    }
    for (const entry of outbox.refusedAt(id)) put(entry, 'asked', entry.refused!.message)
    for (const entry of outbox.of(id)) if (isReading(entry)) put(entry, 'sending', SENDING)
    return found
  })

  function take({ check, position, severity, short, shown, ask, reason }: Place): void {
    const cell = data.value?.lines
      .flatMap((line) => (line.check === check ? line.cells : []))
      .find((one) => one?.position === position)
    if (cell) Object.assign(cell, ALONE, { severity: ask ? 'asked' : severity, short, shown, reason: ask || reason })
  }
  const deaf = outbox.on({
    answered: (entry, answer) => {
      if (isReading(entry) && walkAroundOf(entry) === id) (answer as Changed).places.forEach(take)
    },
  })
  onBeforeUnmount(deaf)

  return computed(() =>
    (data.value?.lines ?? []).map((line) => ({
      ...line,
      cells: line.cells.map((cell) => (cell && typed.value.get(placeOf(line.check, cell.position))) || cell),
    })),
  )
}

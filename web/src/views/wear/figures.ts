/** Figures of wear in words and on paper: how many decimals, where a point stands in a plot. */
import type { Schemas } from '@/api/client'

export type Place = Schemas['PlaceAheadOut']
export type Wear = Schemas['PlaceWearOut']

/** A figure with as many decimals as are worth showing, no closing zeros. */
export function figure(value: number, decimals: number): string {
  const text = value.toFixed(decimals)
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text
}

/** A chance as whole per cent, never 0 or 100 while it is neither. */
export function percent(share: number): string {
  if (share < 0.005) return 'under 1 %'
  return `${Math.min(99, Math.round(100 * share))} %`
}

/** As little as names a place in a narrow column: ``4L``, ``3`` of the rotor bars, ``cross``. */
export const shortly = (position: string): string => position.replace(/^.*-(\d+[LR]?)$/, '$1').replaceAll('-', ' ')

export const money = (amount: number, currency: string): string =>
  amount < 0.5 && amount > 0 ? `under 1 ${currency}` : `${Math.round(amount)} ${currency}`

/** What an advice of the core says to whoever decides. */
export const ADVICE: Record<string, string> = { replace: 'Renew now', wait: 'Wait', either: 'Either way' }

export interface Frame {
  x: (counter: number) => number
  y: (value: number) => number
  from: number
  to: number
}

/** Where counters and values stand in a picture; new stands on top, whether the figure falls or grows with wear. */
export function frame(
  places: readonly Wear[],
  fresh: number,
  limit: number,
  end: number,
  box: { left: number; top: number; width: number; height: number },
): Frame {
  const counters = places.flatMap((one) => [
    ...one.readings.map((read) => read.counter ?? end),
    ...one.path.map((told) => told.counter),
    ...one.fitments.map((fit) => fit.counter ?? end),
  ])
  const from = Math.min(end, ...counters)
  const to = Math.max(end, ...counters)
  const values = places.flatMap((one) => [
    ...one.readings.filter((read) => !read.doubted).map((read) => read.value),
    ...one.path.flatMap((told) => [told.low, told.high].map((value) => clamp(value, fresh, limit))),
  ])
  const all = [fresh, limit, ...values]
  const room = 0.06 * (Math.max(...all) - Math.min(...all))
  const [least, most] = [Math.min(...all) - room, Math.max(...all) + room]
  const span = Math.max(most - least, 1e-9)
  return {
    from,
    to,
    x: (counter) => box.left + (box.width * (counter - from)) / Math.max(to - from, 1e-9),
    y: (value) => {
      const share = (Math.min(Math.max(value, least), most) - least) / span
      return box.top + box.height * (limit < fresh ? 1 - share : share)
    },
  }
}

/** A wide range says little by its far ends: no further than half an allowance past new or limit. */
function clamp(value: number, fresh: number, limit: number): number {
  const room = Math.abs(fresh - limit) / 2
  return Math.min(Math.max(value, Math.min(fresh, limit) - room), Math.max(fresh, limit) + room)
}

/** Line, fan and its outline of one place as SVG paths. */
export function paths(place: Wear, now: number, at: Frame): { line: string; fan: string } {
  const ahead = place.path.filter((told) => told.counter >= now - 1e-9)
  const point = (counter: number, value: number): string => `${at.x(counter).toFixed(1)} ${at.y(value).toFixed(1)}`
  return {
    line: place.path.length ? 'M' + place.path.map((told) => point(told.counter, told.value)).join('L') : '',
    fan: ahead.length
      ? 'M' +
        [
          ...ahead.map((told) => point(told.counter, told.low)),
          ...[...ahead].reverse().map((told) => point(told.counter, told.high)),
        ].join('L') +
        'z'
      : '',
  }
}

/** Even steps for an axis: about `wanted` of them, at round figures. */
export function steps(from: number, to: number, wanted = 5): number[] {
  const rough = Math.max(to - from, 1e-9) / wanted
  const unit = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].map((n) => n * unit).find((n) => n >= rough) ?? 10 * unit
  const found = []
  for (let at = Math.ceil(from / step) * step; at <= to + 1e-9; at += step) found.push(Number(at.toPrecision(8)))
  return found
}

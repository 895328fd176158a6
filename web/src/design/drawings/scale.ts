/** From a figure to a place on a drawing, kept inside it. */
export function scale(from: number, to: number, start: number, end: number): (value: number) => number {
  const span = to - from || 1
  return (value) =>
    Math.min(Math.max(start, end), Math.max(Math.min(start, end), start + ((end - start) * (value - from)) / span))
}

/** Where a text is anchored so that it stays inside a drawing of this width. */
export const anchored = (x: number, width = 340): 'start' | 'middle' | 'end' =>
  x < 70 ? 'start' : x > width - 70 ? 'end' : 'middle'

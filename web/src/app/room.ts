/** How much may still be typed into a field with an end; null while that is no matter: it is said of the last tenth, of
 *  a short one of the last fifth. */
export function roomIn(typed: number, most: number): number | null {
  if (most <= 0) return null
  const left = Math.max(0, most - typed)
  return left <= Math.max(Math.min(most / 5, 20), most / 10) ? left : null
}

/** Minutes in words. */

/** ``1 h 15 min`` */
export function span(minutes: number): string {
  const whole = Math.round(minutes)
  const hours = Math.floor(whole / 60)
  return [hours ? `${hours} h` : '', whole % 60 || !hours ? `${whole % 60} min` : ''].filter(Boolean).join(' ')
}

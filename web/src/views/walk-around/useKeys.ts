/** What each key does at the field of the walk-around. A key that is held down does its work once. */
import { NOT_SEEN_REASONS, type Entry } from './entry'

/** A gauge sends its sign right before its figure; a hand that means the key does not. */
const GAUGE_MS = 40

export function useKeys(entry: Entry) {
  let sign: { text: string; act: () => void; timer: ReturnType<typeof setTimeout> } | undefined

  /** True where the key before was the sign of a gauge and this one its first digit. */
  function afterSign(event: KeyboardEvent): boolean {
    if (!sign) return false
    const { text, act, timer } = sign
    clearTimeout(timer)
    sign = undefined
    if (!/^[\d.,]$/.test(event.key)) return (act(), false)
    event.preventDefault()
    entry.text.value = text + event.key
    return true
  }
  function perhapsSign(text: string, act: () => void): void {
    sign = {
      text,
      act,
      timer: setTimeout(() => {
        sign = undefined
        act()
      }, GAUGE_MS),
    }
  }

  /** y and n answer a question; digits choose a state. */
  function quick(pressed: string): string {
    const yesNo = { y: 'yes', n: 'no' }[pressed.toLowerCase()]
    return yesNo && entry.check.value.options.some((option) => option.key === yesNo) ? yesNo : pressed
  }

  function actOf(event: KeyboardEvent): (() => void) | undefined {
    const { key } = event
    const empty = entry.text.value === ''
    const choice = entry.isChoice.value
    if (key === 'F2') return entry.visitQuestion
    if (key === 'F4') return entry.visitRecent
    if (key === 'Enter') return entry.enter
    if (key === 'Escape') return entry.escape
    if (entry.notSeen.value) {
      const reason = empty ? NOT_SEEN_REASONS[Number(key) - 1] : undefined
      return reason ? () => entry.record({ state: 'not-seen', reason }) : undefined
    }
    if (key === 'PageDown') return () => entry.hand.stepCheck(1)
    if (key === 'PageUp') return () => entry.hand.stepCheck(-1)
    if (!empty) return undefined
    const asked = entry.question.value?.kind === 'asked' && !entry.done.value.length
    if (asked && key.toLowerCase() === 'y') return entry.stand
    if (entry.splitting.value && key.toLowerCase() === 's') return entry.split
    if (!choice && (key === '-' || key === '+')) return () => perhapsSign(key, key === '+' ? entry.markRest : entry.askNotSeen)
    const acts: Record<string, () => void> = {
      '=': entry.repeatLast,
      '-': entry.askNotSeen,
      '−': entry.askNotSeen,
      '*': entry.doesNotApply,
      '+': entry.markRest,
      Backspace: entry.back,
      ArrowLeft: () => entry.hand.step(-1),
      ArrowRight: () => entry.hand.step(1),
      ArrowUp: () => entry.hand.stepCheck(-1),
      ArrowDown: () => entry.hand.stepCheck(1),
    }
    if (acts[key]) return acts[key]
    if (choice && key === '.') return entry.markSound
    if (choice && key.length === 1) return () => entry.choose(quick(key))
    return undefined
  }

  function key(event: KeyboardEvent): void {
    // Arrows and erasing may be held; whatever types or records is meant once.
    if (
      event.repeat &&
      !/^Arrow|^Page/.test(event.key) &&
      !(entry.text.value && (event.key === 'Backspace' || event.key === 'Delete'))
    )
      return event.preventDefault()
    if (afterSign(event)) return
    if (event.ctrlKey && event.key.toLowerCase() === 'z' && !entry.text.value) return (event.preventDefault(), entry.undo())
    if (event.ctrlKey || event.metaKey || event.altKey) return
    const act = actOf(event)
    if (!act) return
    event.preventDefault()
    act()
  }

  return key
}

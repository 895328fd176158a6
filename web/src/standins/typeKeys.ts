const pause = (ms: number): Promise<void> => new Promise((go) => setTimeout(go, ms))

/** Type text into the field that has the focus as a gauge's keyboard plug does: a key every few milliseconds, Enter at the end. */
export async function typeKeys(text: string): Promise<void> {
  for (const key of [...text, 'Enter']) {
    await pause(4)
    const field = document.activeElement
    if (!field) return
    const more = field.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
    if (more && key !== 'Enter' && (field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement)) {
      field.setRangeText(key, field.selectionStart ?? field.value.length, field.selectionEnd ?? field.value.length, 'end')
      field.dispatchEvent(new InputEvent('input', { bubbles: true, data: key, inputType: 'insertText' }))
    }
    field.dispatchEvent(new KeyboardEvent('keyup', { key, bubbles: true }))
  }
}

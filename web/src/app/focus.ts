/** v-focus: the field that has just appeared is the one to type in. */
import type { Directive } from 'vue'

export const focus: Directive<HTMLElement> = { mounted: (element) => element.focus() }

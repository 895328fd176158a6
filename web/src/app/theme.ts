/** Light or dark: as the device says until the person chooses. */
import { ref, watchEffect } from 'vue'

type Choice = 'light' | 'dark'
const KEY = 'lumvek:theme'
const stored = localStorage.getItem(KEY)
const device = window.matchMedia?.('(prefers-color-scheme: dark)').matches ? 'dark' : 'light'

export const theme = ref<Choice>(stored === 'dark' || stored === 'light' ? stored : device)

watchEffect(() => {
  document.documentElement.dataset.theme = theme.value
})

export function switchTheme(): void {
  theme.value = theme.value === 'dark' ? 'light' : 'dark'
  localStorage.setItem(KEY, theme.value)
}

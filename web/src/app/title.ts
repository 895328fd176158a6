/** What the window is called: the machine and the place, before the product. */
import { watchEffect } from 'vue'

export function useTitle(title: () => string): void {
  watchEffect(() => {
    const words = title()
    if (words) document.title = `${words} – Lumvek`
  })
}

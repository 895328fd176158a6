import '@fontsource/source-sans-3/latin-400.css'
import '@fontsource/source-sans-3/latin-600.css'
import './design/tokens.css'
import './design/desk.css'
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { createApp } from 'vue'
import { keepLooking } from './api/connection'
import { keepSending } from './api/outbox'
import App from './app/App.vue'
import { focus } from './app/focus'
import { focusHeading, keepFocus } from './app/focusKeeper'
import { watchTyping } from './app/halfTyped'
import { router } from './app/router'
import './app/theme'
import { preset } from './design/preset'
import { openWithoutConnection } from './offline/register'

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content

keepSending()
keepLooking()
keepFocus()
watchTyping()
void openWithoutConnection()
router.afterEach((to, from, failure) => {
  if (failure) return
  const had = document.activeElement
  if (to.name !== from.name || to.params.id !== from.params.id) setTimeout(() => focusHeading(had))
})
createApp(App)
  .use(createPinia())
  .use(router)
  .use(PrimeVue, { theme: { preset, options: { darkModeSelector: '[data-theme="dark"]', cssLayer: false } }, csp: { nonce } })
  .directive('focus', focus)
  .mount('#app')

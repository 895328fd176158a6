/**
 * Keeps the product's own files on the device, so that it opens where nothing can be reached. It knows nothing of any shop: what was
 * read of one is kept by `api/kept.ts`, and what was typed by `api/outbox.ts`.
 */
import { matchPrecache, precache } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

declare const self: ServiceWorkerGlobalScope
/** Every file of this build, and a word that is another with each build: written in by `vite.config.ts`. */
declare const BUILT: { files: string[]; build: string }

const PAGE = '/'
/** Screens whose readings are kept: nobody waits longer for these, where the signal is too weak to be one. */
const BESIDE_A_MACHINE =
  /^\/($|walk-arounds\/[^/]+(\/(map|findings|parts|summary))?$|machines\/\d+(\/(today|field))?$|plan\/mine$|daily$)/
const PATIENCE_MS = 6000

precache([...BUILT.files.map((url) => ({ url, revision: null })), { url: PAGE, revision: BUILT.build }])

self.addEventListener('install', () => void self.skipWaiting())
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))

registerRoute(
  ({ url }) => url.origin === self.location.origin && url.pathname.startsWith('/static/'),
  async ({ request }) => (await matchPrecache(request)) ?? fetch(request),
)
registerRoute(
  new NavigationRoute(async ({ request, url }) => {
    const asked = fetch(request)
    if (!BESIDE_A_MACHINE.test(url.pathname)) return asked.catch(async () => (await matchPrecache(PAGE)) ?? Response.error())
    const late = new Promise<undefined>((go) => setTimeout(go, PATIENCE_MS))
    const page = await Promise.race([asked, late]).catch(() => undefined)
    return (page && page.status < 500 ? page : await matchPrecache(PAGE)) ?? asked
  }),
)

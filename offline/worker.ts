import { clientsClaim } from 'workbox-core'
import { ExpirationPlugin } from 'workbox-expiration'
import { registerRoute } from 'workbox-routing'
import { CacheFirst, NetworkOnly } from 'workbox-strategies'
import { sendWaiting } from './outbox'

// The service worker of respondents’ pages (scope /f/): once opened, a form works without network; what was sent then goes out by itself.

declare const self: ServiceWorkerGlobalScope
/** What a respondent’s page may ask for: set when the application is built. */
declare const RESPONDENT_FILES: readonly string[]

const FILES = 'respondent-files'
const PAGES = 'respondent-pages'
/** So many forms are kept on a device, the one opened longest ago goes first. */
const MOST_PAGES = 20
const DAY = 24 * 60 * 60
/** The tag of a sync (Background Sync): the browser tells it when there is a network, also when no page is open. */
const SYNC = 'send-waiting'

interface SyncEvent extends ExtendableEvent {
  tag: string
}

clientsClaim()
self.addEventListener('install', event => {
  void self.skipWaiting()
  event.waitUntil(keepFiles())
})

/** Each by itself: where one can’t be had now, it is fetched when it is asked for. */
async function keepFiles(): Promise<void> {
  const cache = await caches.open(FILES)
  for (const address of RESPONDENT_FILES) {
    if (await cache.match(address)) continue
    try {
      await cache.add(address)
    } catch {
      return // out of reach: the rest comes with the pages
    }
  }
}

registerRoute(
  ({ url }) => url.pathname.startsWith('/_nuxt/'),
  new CacheFirst({
    cacheName: FILES,
    plugins: [new ExpirationPlugin({ maxEntries: 600, maxAgeSeconds: 60 * DAY })],
  }),
)

// A page is asked of the server, and only without network given as it was kept: the page itself says whether it may be.
const fromNetwork = new NetworkOnly({ networkTimeoutSeconds: 8 })
registerRoute(
  ({ request, url }) => request.mode === 'navigate' && url.pathname.startsWith('/f/'),
  async options => {
    try {
      return await fromNetwork.handle(options)
    } catch (error) {
      const kept = await (
        await caches.open(PAGES)
      ).match(options.request, { ignoreSearch: true, ignoreVary: true })
      if (kept) return kept
      throw error
    }
  },
)

/** Keeps the page of a form as it is now. */
async function keepPage(address: string): Promise<void> {
  const cache = await caches.open(PAGES)
  const page = await fetch(address, { credentials: 'same-origin' })
  if (!page.ok || page.redirected) return
  await cache.delete(address)
  await cache.put(address, page)
  const kept = await cache.keys()
  for (const old of kept.slice(0, Math.max(0, kept.length - MOST_PAGES))) await cache.delete(old)
}

self.addEventListener('message', event => {
  const { data } = event
  if (typeof data?.keepPage === 'string') event.waitUntil(keepPage(data.keepPage))
})

/** Listens for what the platform’s types don’t know yet. */
const listen: (type: string, heard: (event: Event) => void) => void = self.addEventListener.bind(self)
const isSync = (event: Event): event is SyncEvent => 'tag' in event && 'waitUntil' in event
listen('sync', event => {
  if (isSync(event) && event.tag === SYNC) event.waitUntil(sendWaiting())
})

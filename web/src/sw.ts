/// <reference lib="webworker" />
import { cleanupOutdatedCaches, precacheAndRoute } from 'workbox-precaching'

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: { url: string; revision: string | null }[] }

/**
 * The application itself, for where there is no connection: its files by their hashed names, and its page. What gardens
 * hold is not kept here: the walk takes along what it needs, per person.
 */
precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()

const PAGE = 'page'
const PHOTOS = 'photos'
const MOST_PHOTOS = 200

self.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(PAGE)
      .then((cache) => cache.add(new Request('/', { cache: 'reload' })))
      .then(() => self.skipWaiting()),
  )
})
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
self.addEventListener('message', (event) => {
  // Somebody signed out: the next person sees none of their photos.
  if (event.data === 'forget') event.waitUntil(caches.delete(PHOTOS))
})

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (url.origin !== self.location.origin || request.method !== 'GET') return
  if (request.mode === 'navigate' && !url.pathname.startsWith('/api/')) event.respondWith(page(request))
  else if (/^\/api\/gardens\/[^/]+\/photos\/[^/]+$/.test(url.pathname)) event.respondWith(photo(request))
})

/** The page as the server gives it, with its own nonce and policy; the last one where nobody answers. */
async function page(request: Request): Promise<Response> {
  const cache = await caches.open(PAGE)
  try {
    const response = await fetch(request)
    if (!response.ok) throw new Error(`The server answered ${response.status}`)
    await cache.put('/', response.clone())
    return response
  } catch {
    return (await cache.match('/')) ?? Response.error()
  }
}

/** A photo never changes: once fetched it is kept, the oldest going first. */
async function photo(request: Request): Promise<Response> {
  const cache = await caches.open(PHOTOS)
  const known = await cache.match(request)
  if (known) return known
  const response = await fetch(request)
  if (response.ok) {
    await cache.put(request, response.clone())
    const keys = await cache.keys()
    await Promise.all(keys.slice(0, Math.max(0, keys.length - MOST_PHOTOS)).map((k) => cache.delete(k)))
  }
  return response
}

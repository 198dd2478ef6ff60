'use strict'
// Keeps the page and what was last seen of a job, so that both open without a signal. Runs only over https that the
// phone trusts. Changes are never kept here: they wait in the page's own outbox.
const KEPT = 'levelrun-1'
const MOST = 300

self.addEventListener('install', () => self.skipWaiting())
self.addEventListener('activate', (event) => event.waitUntil(tidy().then(() => self.clients.claim())))

async function tidy() {
  for (const name of await caches.keys()) if (name !== KEPT) await caches.delete(name)
}

/** What is asked for by this address; every page of the program is one and the same file. */
const keyOf = (request) =>
  request.mode === 'navigate' ? new Request(new URL('/', self.location.origin)) : request

async function keep(request, answer) {
  const cache = await caches.open(KEPT)
  await cache.put(keyOf(request), answer)
  const keys = await cache.keys()
  for (const old of keys.slice(0, Math.max(keys.length - MOST, 0))) await cache.delete(old)
}

async function found(request) {
  const cache = await caches.open(KEPT)
  return (
    (await cache.match(keyOf(request))) ??
    (await cache.match(keyOf(request), { ignoreSearch: request.url.includes('/stages/') }))
  )
}

async function answered(request) {
  const asset = new URL(request.url).pathname.startsWith('/assets/')
  if (asset) {
    const kept = await found(request)
    if (kept) return kept
  }
  try {
    const answer = await fetch(request)
    if (answer.status === 401) await caches.delete(KEPT)
    else if (answer.ok && !answer.redirected && answer.type === 'basic') await keep(request, answer.clone())
    return answer
  } catch (error) {
    const kept = await found(request)
    if (kept) return kept
    throw error
  }
}

self.addEventListener('fetch', (event) => {
  const { pathname, origin } = new URL(event.request.url)
  if (event.request.method !== 'GET' || origin !== self.location.origin) return
  if (pathname.startsWith('/pair') || pathname.startsWith('/api/pair') || pathname.startsWith('/api/here')) return
  if (/\.(zip|ics|csv|xlsx|dxf|sqlite3)$|\/backup$|\/export$/.test(pathname)) return
  event.respondWith(answered(event.request))
})

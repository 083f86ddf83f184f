/*
 * The shell of the application without a connection: the page and what it is made of. What the server says is never
 * kept here; the stores keep what a student or teacher needs to go on.
 */
const SHELL = 'uchuu-shell-1'
const PATIENCE_MS = 4000

self.addEventListener('install', () => self.skipWaiting())
self.addEventListener('activate', (event) => {
  event.waitUntil(
    (async () => {
      for (const name of await caches.keys()) if (name !== SHELL) await caches.delete(name)
      await self.clients.claim()
    })(),
  )
})
self.addEventListener('fetch', (event) => {
  const { request } = event
  const { pathname, origin } = new URL(request.url)
  if (request.method !== 'GET' || origin !== self.location.origin) return
  if (request.mode === 'navigate') event.respondWith(page(request))
  // named by their content: what is kept under a name is what the name says
  else if (pathname.startsWith('/assets/')) event.respondWith(asset(request))
})

/** The page as the server has it; the one that was kept where there is no answer in a while. */
async function page(request) {
  const shell = await caches.open(SHELL)
  const late = new Promise((_, failed) => setTimeout(() => failed(new Error('late')), PATIENCE_MS))
  try {
    const found = await Promise.race([fetch(request), late])
    if (found.ok && (found.headers.get('content-type') ?? '').startsWith('text/html'))
      await shell.put('/', found.clone())
    return found
  } catch (problem) {
    const kept = await shell.match('/')
    if (kept) return kept
    throw problem
  }
}

async function asset(request) {
  const shell = await caches.open(SHELL)
  const kept = await shell.match(request)
  if (kept) return kept
  const found = await fetch(request)
  if (found.ok) await shell.put(request, found.clone())
  return found
}

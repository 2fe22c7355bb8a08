/* Keeps the pages and scripts last seen, so that Yantrel opens again while its server is away. Figures and rigs come from the page itself and the browser's own store. */
const KEPT = 'yantrel-1';

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (
    request.method !== 'GET' ||
    url.origin !== self.location.origin ||
    url.pathname.startsWith('/api/')
  )
    return;
  if (url.pathname.startsWith('/_next/static/')) event.respondWith(keptFirst(request));
  else if (request.mode === 'navigate') event.respondWith(serverFirst(request));
});

self.addEventListener('message', (event) => event.waitUntil(keep(event.data)));

/** Keeps a page, and all the files of the build that it is of. What other builds left is let go. */
async function keep({ page }) {
  const files = await (await fetch('/api/page-files')).json();
  const cache = await caches.open(KEPT);
  const kept = (await cache.keys())
    .map(({ url }) => new URL(url).pathname)
    .filter((path) => path.startsWith('/_next/static/'));
  const [has, wanted] = [new Set(kept), new Set(files)];
  const missing = files.filter((path) => !has.has(path));
  await Promise.allSettled([cache.add(page), ...missing.map((path) => cache.add(path))]);
  // A page of an older build that is still open may need its own: only once all of this one's are here.
  const pages = await self.clients.matchAll();
  if (pages.length < 2)
    await Promise.all(
      kept.filter((path) => wanted.size && !wanted.has(path)).map((path) => cache.delete(path)),
    );
}

async function keptFirst(request) {
  const cache = await caches.open(KEPT);
  const kept = await cache.match(request);
  if (kept) return asAsked(request, kept);
  const answer = await fetch(request);
  if (answer.ok) await cache.put(request, answer.clone());
  return asAsked(request, answer);
}

/** A worker takes its address, and what to run behind the #, from the answer. A fresh answer has none of its own, so that of the request holds: workers that share a script are told apart. */
const asAsked = (request, answer) =>
  request.destination === 'worker'
    ? new Response(answer.body, {
        status: answer.status,
        statusText: answer.statusText,
        headers: answer.headers,
      })
    : answer;

async function serverFirst(request) {
  const cache = await caches.open(KEPT);
  try {
    const answer = await fetch(request);
    if (answer.ok) await cache.put(request, answer.clone());
    return answer;
  } catch (error) {
    const kept = await cache.match(request, { ignoreSearch: true });
    if (kept) return kept;
    throw error;
  }
}

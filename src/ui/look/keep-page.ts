/**
 * Has the page, as it is now, and its scripts kept by the service worker, so that it opens again while
 * the server is away. Fails where a browser has none.
 */
export async function keepPage(): Promise<void> {
  await navigator.serviceWorker.register('/offline.js');
  const { active } = await navigator.serviceWorker.ready;
  const scripts = performance
    .getEntriesByType('resource')
    .map((e) => e.name)
    .filter((url) => new URL(url).pathname.startsWith('/_next/static/'));
  active?.postMessage({ page: window.location.href, scripts });
}

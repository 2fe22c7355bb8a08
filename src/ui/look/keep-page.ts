/**
 * Has the page as it is now, and all that any place is made of, kept by the service worker: every
 * place then opens while the server is away. Nothing of it is run. Fails where a browser has none.
 */
export async function keepPage(): Promise<void> {
  await navigator.serviceWorker.register('/offline.js');
  const { active } = await navigator.serviceWorker.ready;
  active?.postMessage({ page: window.location.href });
}

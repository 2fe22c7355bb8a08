import { keepPage } from './keep-page';

const waiting = new Set<() => Promise<unknown>>();

/** How long after a page was opened the rest is fetched, in ms: what is in sight comes first. */
const LATER_MS = 2000;

/**
 * What brings a script that the first view does not need: fetched when it is first used, or by
 * {@link fetchRest}, whichever comes first.
 *
 *     const Keys = dynamic(later(() => import('./keys').then((m) => m.Keys)));
 */
export function later<T>(fetch: () => Promise<T>): () => Promise<T> {
  waiting.add(fetch);
  return fetch;
}

/**
 * Fetches all that was left for later, once the page is quiet, one after the other so that none holds
 * it; then has it kept, so that everything opens while the server is away.
 *
 * @returns what calls it off
 */
export function fetchRest(): () => void {
  let isOff = false;
  const rest = async () => {
    for (const fetch of waiting) {
      if (isOff) return;
      await fetch();
      waiting.delete(fetch);
    }
    await keepPage();
  };
  // Where the server is away, what was fetched so far stays; the rest is asked for when it is used.
  const timer = setTimeout(() => void rest().catch(() => undefined), LATER_MS);
  return () => {
    isOff = true;
    clearTimeout(timer);
  };
}

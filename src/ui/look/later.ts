import { keepPage } from './keep-page';

type Fetch = () => Promise<unknown>;
/** What is typed into as soon as it opens, and all else. */
const waiting = { soon: new Set<Fetch>(), rest: new Set<Fetch>() };

/**
 * How long after a page was opened each is fetched, in ms: what is in sight comes first, then what a
 * key opens and the next key is meant for, then the rest.
 */
const LATER_MS = { soon: 100, rest: 2000 };

/**
 * What brings a script that the first view does not need: fetched when it is first used, or by
 * {@link fetchRest}, whichever comes first.
 *
 *     const Keys = dynamic(later(() => import('./keys').then((m) => m.Keys)));
 */
export function later<T>(
  fetch: () => Promise<T>,
  when: keyof typeof waiting = 'rest',
): () => Promise<T> {
  waiting[when].add(fetch);
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
  const all = async (list: Set<Fetch>) => {
    for (const fetch of list) {
      if (isOff) return;
      await fetch();
      list.delete(fetch);
    }
  };
  const rest = async () => {
    await all(waiting.soon);
    await all(waiting.rest);
    if (!isOff) await keepPage();
  };
  // Where the server is away, what was fetched so far stays; the rest is asked for when it is used.
  const away = () => undefined;
  const timers = [
    setTimeout(() => void all(waiting.soon).catch(away), LATER_MS.soon),
    setTimeout(() => void rest().catch(away), LATER_MS.rest),
  ];
  return () => {
    isOff = true;
    timers.forEach(clearTimeout);
  };
}

import type { ComponentType } from 'react';
import { NotHere } from './not-here';

const waiting = new Map<string, () => Promise<unknown>>();

/**
 * What brings a script that the first view does not need: fetched when it is first used, or before
 * that by {@link fetchSoon}, by its name. It fails where the server is away and this browser has not
 * kept it yet.
 */
export function later<T>(name: string, fetch: () => Promise<T>): () => Promise<T> {
  waiting.set(name, fetch);
  return fetch;
}

/**
 * The same for a part of the page; where it cannot be fetched, something stands there that says so.
 *
 *     const Keys = dynamic(
 *       laterPart('keys', () => import('./keys').then((m) => m.Keys)),
 *       { ssr: false },
 *     );
 *
 * What comes with a hand is not drawn on the server: it leaves a gap of its own while it is fetched.
 * Without that all of the place that it stands in is hidden until it is there, and loses the focus.
 */
export function laterPart<P>(
  name: string,
  fetch: () => Promise<ComponentType<P>>,
): () => Promise<ComponentType<P>> {
  later(name, fetch);
  return () => fetch().catch((): ComponentType<P> => NotHere);
}

/** Fetches what is about to be used; where that does not come, its use says so. */
export function fetchSoon(name: string): void {
  void waiting
    .get(name)?.()
    .catch(() => undefined);
}

/**
 * Fetches all that was left for later, one after the other so that none holds the page: for browsers
 * that keep nothing for a page.
 */
export async function fetchRest(): Promise<void> {
  for (const fetch of waiting.values()) await fetch();
}

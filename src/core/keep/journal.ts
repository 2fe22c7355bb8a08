import type { Clash, Side } from '../rig/merge';
import type { Rig } from '../rig/schema';

/** A revision as the database holds it: its number, its unguessable identity, its document. */
export interface Head {
  revision: number;
  identity: string;
  rig: Rig;
  /** Who saved it, and what was changed in words. */
  by?: string;
  words?: string;
}

/** A save on its way: a revision-to-be, always sent again as it is until it is answered. */
export interface Attempt {
  identity: string;
  base: Pick<Head, 'revision' | 'identity'>;
  rig: Rig;
  words: string;
  /** How many of the changes that wait are in it. */
  count: number;
}

/** What every state knows: the revision that the page is based on, and what was changed since. */
export interface Held {
  /** The last revision that was taken in. It moves only with the document that belongs to it. */
  base: Head;
  /** The document on the screen: that of the base with the changes. */
  rig: Rig;
  /** The changes that are in no revision yet, in words. */
  pending: readonly string[];
}

/**
 * What becomes of the changes on a page:
 *
 * - `saved`: there are none;
 * - `changed`: they wait to be sent;
 * - `sending`: an attempt is on its way;
 * - `away`: the attempt was not answered, and is sent again as it is;
 * - `refused`: the server will not have them; the next change tries again;
 * - `clash`: somebody changed the same things, and the person is asked, thing by thing;
 * - `astray`: the database does not know the revision that the page is based on (it was set back),
 *   and the person is asked before anything is written.
 */
export type Keeping = Held &
  (
    | { state: 'saved' }
    | { state: 'changed' }
    | { state: 'sending'; attempt: Attempt; newer?: Head }
    | { state: 'away'; attempt: Attempt; newer?: Head; why: string }
    | { state: 'refused'; why: string }
    | { state: 'clash'; theirs: Head; clashes: Clash[]; chosen: Readonly<Record<string, Side>> }
    | { state: 'astray'; theirs: Head }
  );

/** What a page keeps in its browser, to be taken up after a crash. */
export interface Journal {
  base: Head;
  rig: Rig;
  pending: readonly string[];
  attempt?: Attempt;
}

/** A page that was just opened on a revision. */
export const opened = (base: Head): Keeping => ({
  state: 'saved',
  base,
  rig: base.rig,
  pending: [],
});

/** What is to be kept in the browser. */
export const journalOf = (k: Keeping): Journal => ({
  base: k.base,
  rig: k.rig,
  pending: k.pending,
  ...((k.state === 'sending' || k.state === 'away') && { attempt: k.attempt }),
});

import { type Merged, mergeRigs, type Side } from '../rig/merge';
import { sameJson } from '../rig/same-json';
import type { Rig } from '../rig/schema';
import { type Attempt, type Head, type Held, type Journal, type Keeping, opened } from './journal';

/** What happens to a page, or comes from the server. */
export type Happening =
  /** The person changed something. */
  | { is: 'edited'; rig: Rig; words: string }
  /** It is time to send; the revision-to-be gets this identity. */
  | { is: 'due'; identity: string }
  /** The attempt of this identity is a revision now; `newer` came after it. */
  | { is: 'saved'; identity: string; revision: number; newer?: Head }
  /** Others have saved since: nothing was written. */
  | { is: 'behind'; head: Head }
  /** The database does not know the base: nothing was written. */
  | { is: 'unknown base'; head: Head }
  /** There was no answer, or none that says anything about the attempt. */
  | { is: 'failed'; why: string }
  /** The server says that the attempt can never be saved. */
  | { is: 'refused'; why: string }
  /** Others have saved, as the live line tells. */
  | { is: 'arrived'; head: Head }
  /**
   * What an earlier page of this browser left behind. `fresh`: the page's own base came from the
   * database just now, so that it is known to be the newest.
   */
  | { is: 'recovered'; journal: Journal; fresh: boolean }
  /** The person chose a side of one clash. */
  | { is: 'chosen'; where: string; side: Side }
  /** The person has chosen; where nothing was said, theirs holds. */
  | { is: 'settled' }
  /** The person said whose document holds, where the database was set back. */
  | { is: 'decided'; side: Side };

/**
 * The next state of a page. What happens at the wrong moment (an answer to an attempt that is
 * settled already, news of a revision that was taken in) changes nothing.
 *
 *     let k = opened(head);
 *     k = next(k, { is: 'edited', rig, words: 'renamed the rig to Ferry' });
 *     k = next(k, { is: 'due', identity: crypto.randomUUID() }); // now k.attempt is to be sent
 */
export function next(k: Keeping, e: Happening): Keeping {
  switch (e.is) {
    case 'edited':
      return edited(k, e.rig, e.words);
    case 'due':
      return due(k, e.identity);
    case 'saved':
      return saved(k, e);
    case 'behind':
      return k.state === 'sending' ? takeIn(held(k), e.head) : k;
    case 'unknown base':
      return k.state === 'sending' ? { ...held(k), state: 'astray', theirs: e.head } : k;
    case 'failed':
      return k.state === 'sending' ? { ...k, state: 'away', why: e.why } : k;
    case 'refused':
      return k.state === 'sending' ? { ...held(k), state: 'refused', why: e.why } : k;
    case 'arrived':
      return arrived(k, e.head);
    case 'recovered':
      return recovered(k, e.journal, e.fresh);
    case 'chosen':
      return k.state === 'clash' ? asked({ ...k, chosen: { ...k.chosen, [e.where]: e.side } }) : k;
    case 'settled':
      return k.state === 'clash' ? onto(k.theirs, merged(k).rig, k.pending) : k;
    case 'decided':
      return k.state === 'astray' ? decided(k, e.side) : k;
  }
}

const held = ({ base, rig, pending }: Keeping): Held => ({ base, rig, pending });

function edited(k: Keeping, rig: Rig, words: string): Keeping {
  const pending = [...k.pending, words];
  if (k.state === 'saved' || k.state === 'refused')
    return { ...held(k), state: 'changed', rig, pending };
  const now = { ...k, rig, pending };
  return now.state === 'clash' ? asked(now) : now;
}

function due(k: Keeping, identity: string): Keeping {
  if (k.state === 'away')
    return { ...held(k), state: 'sending', attempt: k.attempt, newer: k.newer };
  if (k.state !== 'changed') return k;
  const { revision, identity: base } = k.base;
  const attempt: Attempt = {
    identity,
    base: { revision, identity: base },
    rig: k.rig,
    words: k.pending.join('; '),
    count: k.pending.length,
  };
  return { ...held(k), state: 'sending', attempt };
}

/** The attempt is a revision: the base moves to it, with the document that was sent. */
function saved(k: Keeping, e: Extract<Happening, { is: 'saved' }>): Keeping {
  if ((k.state !== 'sending' && k.state !== 'away') || k.attempt.identity !== e.identity) return k;
  const { attempt } = k;
  const base: Head = { revision: e.revision, identity: e.identity, rig: attempt.rig };
  const pending = k.pending.slice(attempt.count);
  const now: Keeping = { base, rig: k.rig, pending, state: pending.length ? 'changed' : 'saved' };
  const newer = [e.newer, k.newer].reduce((a, b) =>
    (b?.revision ?? 0) > (a?.revision ?? 0) ? b : a,
  );
  return newer ? arrived(now, newer) : now;
}

/** News of a revision. While an attempt is out, it is remembered: only the answer tells what became of that. */
function arrived(k: Keeping, head: Head): Keeping {
  if (head.revision <= k.base.revision) return k;
  switch (k.state) {
    case 'sending':
    case 'away':
      return head.revision > (k.newer?.revision ?? 0) ? { ...k, newer: head } : k;
    case 'clash':
      return head.revision > k.theirs.revision ? asked({ ...k, theirs: head }) : k;
    case 'astray':
      return k;
    default:
      return takeIn(held(k), head);
  }
}

/** Brings a newer revision in under the changes; where they touch the same thing, the person is asked. */
function takeIn(h: Held, head: Head): Keeping {
  if (h.rig === h.base.rig || !h.pending.length) return opened(head);
  return asked({ ...h, state: 'clash', theirs: head, clashes: [], chosen: {} });
}

type Clashing = Extract<Keeping, { state: 'clash' }>;

const merged = (k: Clashing): Merged =>
  mergeRigs(k.base.rig, k.rig, k.theirs.rig, (where) => k.chosen[where]);

/** Asks where two sides clash; goes on where they do not. */
function asked(k: Clashing): Keeping {
  const { rig, clashes } = merged(k);
  return clashes.length ? { ...k, clashes } : onto(k.theirs, rig, k.pending);
}

/** Goes on from a revision with a document that holds it and the changes. */
const onto = (base: Head, rig: Rig, pending: readonly string[]): Keeping =>
  sameJson(rig, base.rig)
    ? opened(base)
    : { base, rig, pending: pending.length ? pending : ['took both sides'], state: 'changed' };

/**
 * Takes up what an earlier page left. Its attempt is sent again as it is, which tells whether it was
 * saved. A page that has changes of its own, or is asked something, takes nothing up yet: tell it
 * again once it is `saved`.
 */
function recovered(k: Keeping, journal: Journal, fresh: boolean): Keeping {
  if (k.state !== 'saved') return k;
  const { base, rig, pending, attempt } = journal;
  const newer = k.base.identity === base.identity ? undefined : k.base;
  if (attempt)
    return { base, rig, pending, state: 'away', attempt, newer, why: 'the page was closed' };
  if (newer && newer.revision <= base.revision) {
    if (fresh) return { base, rig, pending, state: 'astray', theirs: newer };
    return { base, rig, pending, state: pending.length ? 'changed' : 'saved' };
  }
  if (!pending.length) return k;
  return newer ? takeIn({ base, rig, pending }, newer) : { base, rig, pending, state: 'changed' };
}

/** Where the database was set back: my document becomes its next revision, or its own is taken. */
const decided = (k: Extract<Keeping, { state: 'astray' }>, side: Side): Keeping =>
  side === 'theirs'
    ? opened(k.theirs)
    : onto(k.theirs, k.rig, [...k.pending, 'put back what the database had lost']);

import { del, get, keys, set } from 'idb-keyval';
import type { Head, Journal } from '../../core/keep';
import type { Rig } from '../../core/rig';
import { fetchWorking } from '../store/fetch-working';

/**
 * Every page keeps a journal of its own in this browser: the revision that it is based on, and what
 * is not saved yet. A page writes its own and no other; it may take over one whose page is gone.
 */
const keyOf = (rig: string, tab: string) => `yantrel journal ${rig} ${tab}`;
const lockOf = (tab: string) => `yantrel page ${tab}`;
/** Where a journal goes that this program cannot read: it is put aside, and never thrown away. */
const aside = (key: string) => `${key} (unreadable)`;

/** Writes a page's journal; `false` where this browser keeps nothing (a private window, a full disk). */
export const writeJournal = (rig: string, tab: string, journal: Journal): Promise<boolean> =>
  set(keyOf(rig, tab), journal).then(
    () => {
      passing()?.removeItem(keyOf(rig, tab));
      return true;
    },
    () => false,
  );

/** The store that is written at once; nothing where the browser has none to give. */
function passing(): Storage | undefined {
  try {
    return localStorage;
  } catch {
    return undefined;
  }
}

/**
 * Writes a page's journal at once, for a page that goes while its last writing is still under way:
 * that is given up with the page. What is written so goes before what was kept the slow way.
 */
export function writeInPassing(rig: string, tab: string, journal: Journal): void {
  try {
    passing()?.setItem(keyOf(rig, tab), JSON.stringify(journal));
  } catch {
    // There is no room: the slow way may still come to its end.
  }
}

/** Takes a journal out of this browser, whichever way it was written. */
async function forget(key: string): Promise<void> {
  passing()?.removeItem(key);
  await del(key);
}

/** Says to the other pages of this browser that this one is there, for as long as it is. */
export function holdPage(tab: string): void {
  void locks()?.request(lockOf(tab), () => new Promise(() => undefined));
}

const locks = (): LockManager | undefined =>
  typeof navigator === 'undefined' ? undefined : navigator.locks;

/** A journal whose page is gone, in the hands of this one until it is settled. */
export interface Left {
  journal: Journal;
  /** What was in it is in a revision, or in this page's own journal: it goes. */
  settle: () => void;
}

/**
 * What pages that are gone left behind of a rig, checked as a file is. A page that is open keeps
 * its own until it goes (a page that was just reloaded may take a moment to go): what it leaves is
 * then given to `later`, unless `closed` says that nobody waits any more.
 */
export async function takeLeft(
  rig: string,
  tab: string,
  later: (left: Left) => void,
  closed: AbortSignal,
): Promise<Left[]> {
  const left: Left[] = [];
  for (const key of await journalKeys(rig)) {
    const other = key.slice(keyOf(rig, '').length);
    if (other === tab) continue;
    const letGo = await claim(other, { ifAvailable: true });
    const found = letGo && (await leftAt(key, letGo));
    if (found) left.push(found);
    if (letGo) continue;
    void claim(other, { signal: closed })
      .then((gone) => gone && leftAt(key, gone))
      .then((late) => late && later(late));
  }
  const old = await readOld(rig);
  return [...left, ...(old ? [old] : [])];
}

/** The journal of a page that is gone; `letGo` is called when it is settled, or where there is none. */
async function leftAt(key: string, letGo: () => void): Promise<Left | undefined> {
  const journal = await readJournal(key);
  if (journal) return { journal, settle: () => void forget(key).finally(letGo) };
  letGo();
  return undefined;
}

const journalKeys = async (rig: string): Promise<string[]> => {
  try {
    const prefix = keyOf(rig, '');
    const quick = passing();
    const all = Array.from({ length: quick?.length ?? 0 }, (_, i) => quick?.key(i) ?? '');
    all.push(...(await keys<string>()));
    return [...new Set(all)].filter((k) => k.startsWith(prefix) && !k.endsWith(')'));
  } catch {
    return [];
  }
};

/** Takes the place of a page that is gone; gives how to leave it, or nothing where it was not to be had. */
async function claim(tab: string, how: LockOptions): Promise<(() => void) | undefined> {
  const manager = locks();
  if (!manager) return () => undefined;
  return new Promise((found) => {
    manager
      .request(lockOf(tab), how, (lock) => {
        if (!lock) return found(undefined);
        return new Promise<void>((leave) => found(leave));
      })
      .catch(() => found(undefined));
  });
}

async function readJournal(key: string): Promise<Journal | undefined> {
  try {
    const quick = passing()?.getItem(key);
    const journal = quick ? (JSON.parse(quick) as Journal) : await get<Journal>(key);
    if (!journal) return undefined;
    const { checkRig } = await fetchWorking();
    const [base, rig] = [checkRig(journal.base.rig), checkRig(journal.rig)];
    const sent = journal.attempt && checkRig(journal.attempt.rig);
    if (base.ok && rig.ok && (!sent || sent.ok))
      return {
        base: { ...journal.base, rig: base.value },
        rig: rig.value,
        pending: journal.pending,
        ...(journal.attempt && sent && { attempt: { ...journal.attempt, rig: sent.value } }),
      };
    await set(aside(key), journal);
    await forget(key);
    return undefined;
  } catch {
    return undefined;
  }
}

/** The one copy of a rig that an earlier version of this program kept for all pages. */
async function readOld(rig: string): Promise<Left | undefined> {
  const key = `yantrel rig ${rig}`;
  try {
    const copy = await get<{ rig: Rig; base: number; words: string[] }>(key);
    if (!copy) return undefined;
    const { checkRig } = await fetchWorking();
    const read = checkRig(copy.rig);
    const settle = () => void del(key);
    if (!read.ok) {
      await set(`yantrel unreadable rig ${rig}`, copy);
      settle();
      return undefined;
    }
    // Its base is known by number alone; the keeper asks the server for the document.
    const base: Head = { revision: copy.base, identity: '', rig: read.value };
    return { journal: { base, rig: read.value, pending: copy.words }, settle };
  } catch {
    return undefined;
  }
}

/** The newest that this browser has of a rig, for when the server cannot give it. */
export async function newestJournal(rig: string): Promise<Journal | undefined> {
  const found: Journal[] = [];
  for (const key of await journalKeys(rig)) {
    const journal = await readJournal(key);
    if (journal) found.push(journal);
  }
  return found.sort((a, b) => b.base.revision - a.base.revision)[0];
}

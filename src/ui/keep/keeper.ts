import { at } from '../../core/outcome';
import { type Conflict, mergeRigs, type Problem, type Rig } from '../../core/rig';
import type { RigStore } from '../store/rig-store';
import { askServer, problemText } from './ask-server';
import { type LocalCopy, readLocalCopy, writeLocalCopy } from './local-copy';

/** Two people changed the same thing: both sides, to choose from. */
export interface Clash {
  conflicts: Conflict[];
  problems: Problem[];
  theirs: { rig: Rig; revision: number };
}

interface Saved {
  revision: number;
  rig?: Rig;
}

const SETTLE_MS = 350;
const PATIENCE_MS = [1000, 2000, 4000, 8000, 15_000];

/**
 * Saves every change as a revision, and keeps what is not saved in the browser. While the server or
 * its database is away, it tries again by itself. `onClash` is called when two people changed the
 * same thing; saving waits until it is settled.
 */
export class Keeper {
  private base: number;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private busy = false;
  /** While an earlier copy is being looked for, nothing is written over it. */
  private looking = false;
  private waits = 0;
  private clash: Clash | null = null;
  private readonly stopWatching: () => void;

  constructor(
    private readonly store: RigStore,
    revision: number,
    private readonly onClash: (clash: Clash | null) => void,
  ) {
    this.base = revision;
    store.setState({ revision });
    this.stopWatching = store.subscribe((now, before) => {
      if (now.unsaved.length > before.unsaved.length) {
        if (!this.looking) this.keep();
      }
    });
    window.addEventListener('online', this.tryNow);
  }

  private get id(): string {
    return this.store.getState().history.rig.id;
  }

  /** Takes up work that a reload or a lost server left behind in this browser. */
  async recover(): Promise<void> {
    const opened = this.store.getState().history.rig;
    this.looking = true;
    const copy = await readLocalCopy(this.id);
    this.looking = false;
    const { history, unsaved } = this.store.getState();
    if (!copy?.words.length) return unsaved.length ? this.keep() : this.freshen(copy);
    // What was changed meanwhile goes on top; where the two clash, it is a step back with undo.
    const both = mergeRigs(opened, history.rig, copy.rig);
    this.base = copy.base;
    this.store.getState().adopt(both.merged ? both.rig : copy.rig, 'took up unsaved work');
    this.store.setState({ unsaved: [...copy.words, ...unsaved] });
  }

  /** Writes what is not saved yet into this browser, and saves it. */
  private keep(): void {
    const { history, unsaved, save, setSave } = this.store.getState();
    void writeLocalCopy(this.id, { rig: history.rig, base: this.base, words: unsaved });
    if (save.state === 'saved') setSave({ state: 'saving' });
    this.schedule(SETTLE_MS);
  }

  /**
   * A page kept for when the server is away may be older than what was seen last: then the newer is
   * opened.
   */
  private async freshen(copy: LocalCopy | undefined): Promise<void> {
    if (copy && copy.base > this.base) {
      const now = await askServer<{ rig: Rig; revision: number }>(`/api/rigs/${this.id}`);
      const newer = now.ok
        ? { rig: now.value.rig, base: now.value.revision }
        : now.status === 0 || now.status === 503
          ? copy
          : undefined;
      if (newer && newer.base > this.base && this.store.getState().unsaved.length === 0) {
        this.base = newer.base;
        this.store.getState().adopt(newer.rig, 'opened the newest revision');
      }
    }
    const { history, unsaved } = this.store.getState();
    await writeLocalCopy(this.id, { rig: history.rig, base: this.base, words: unsaved });
  }

  close(): void {
    clearTimeout(this.timer);
    window.removeEventListener('online', this.tryNow);
    this.stopWatching();
  }

  tryNow = (): void => {
    this.waits = 0;
    this.schedule(0);
  };

  private schedule(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), ms);
  }

  private async save(): Promise<void> {
    const { unsaved, history, setSave } = this.store.getState();
    if (!unsaved.length || this.clash) return;
    if (this.busy) return this.schedule(SETTLE_MS);
    this.busy = true;
    if (this.waits === 0) setSave({ state: 'saving' });
    const sent = history.rig;
    const reply = await askServer<Saved>(`/api/rigs/${sent.id}/revisions`, 'POST', {
      base: this.base,
      rig: sent,
      words: unsaved.join('; ').slice(0, 2000),
    });
    this.busy = false;
    if (reply.ok) return this.saved(reply.value, sent, unsaved.length);
    if (reply.status === 409) {
      this.clash = reply.problem as unknown as Clash;
      setSave({ state: 'unsaved', why: 'somebody else changed the same thing; choose below' });
      return this.onClash(this.clash);
    }
    setSave({ state: 'unsaved', why: problemText(reply.problem) });
    if (reply.status === 0 || reply.status >= 500)
      this.schedule(at(PATIENCE_MS, Math.min(this.waits++, PATIENCE_MS.length - 1)));
  }

  private saved(answer: Saved, sent: Rig, count: number): void {
    this.waits = 0;
    this.base = answer.revision;
    this.store.setState({ revision: answer.revision });
    this.store.getState().takeSaved(count);
    if (answer.rig) this.takeIn(answer.rig, sent);
    const { unsaved, history, setSave } = this.store.getState();
    if (unsaved.length) {
      void writeLocalCopy(this.id, { rig: history.rig, base: this.base, words: unsaved });
      return this.schedule(0);
    }
    void writeLocalCopy(this.id, { rig: history.rig, base: this.base, words: [] });
    setSave({ state: 'saved' });
  }

  /**
   * Brings in what the server merged; what was changed here while the save ran is merged on top,
   * and mine wins where they clash.
   */
  private takeIn(merged: Rig, sent: Rig): void {
    const { history, adopt, setNotice } = this.store.getState();
    if (history.rig === sent) adopt(merged, 'took in changes made elsewhere');
    else {
      const both = mergeRigs(sent, history.rig, merged);
      if (both.merged) adopt(both.rig, 'took in changes made elsewhere');
    }
    setNotice('Somebody else changed this rig too. Both changes are in.');
  }

  /**
   * Settles a clash: with my side, mine is saved on top of theirs; with theirs, my unsaved changes
   * are dropped.
   */
  settle(side: 'mine' | 'theirs'): void {
    const { clash } = this;
    if (!clash) return;
    this.clash = null;
    this.base = clash.theirs.revision;
    this.store.setState({ revision: clash.theirs.revision });
    if (side === 'theirs') {
      this.store.getState().adopt(clash.theirs.rig, 'took the other side');
      this.store.setState({ unsaved: [], save: { state: 'saved' } });
      void writeLocalCopy(this.id, { rig: clash.theirs.rig, base: this.base, words: [] });
    } else this.tryNow();
    this.onClash(null);
  }
}

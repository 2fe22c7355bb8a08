import { at } from '../../core/outcome';
import type { Happening, Head, Keeping } from '../../core/keep';
import { journalOf, opened } from '../../core/keep/journal';
import type { Rig, Side } from '../../core/rig';
import { cutText } from '../../core/rig/text';
import type { RigStore, SaveState } from '../store/rig-store';
import { askServer, problemText, type Reply } from './ask-server';
import { holdPage, type Left, takeLeft, writeInPassing, writeJournal } from './journal';

/** A page that waits for an answer of the person: who is right, thing by thing or as a whole. */
export type Question = Extract<Keeping, { state: 'clash' | 'astray' }>;

const SETTLE_MS = 350;
const PATIENCE_MS = [1000, 2000, 4000, 8000, 15_000];

/**
 * Keeps what is changed on a page: in this browser at once, on the server soon, and brings in what
 * others change. What is to be done follows from the states of {@link Keeping}; this class does it,
 * with timers, the network and the browser. `onQuestion` is called when a person has to be asked;
 * `by` says who they are.
 */
export class Keeper {
  readonly tab = crypto.randomUUID();
  private k: Keeping;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private failures = 0;
  /** What earlier pages left: the first is being taken up, the others wait until that is saved. */
  private left: Left[] = [];
  private taking: Left | undefined;
  /** It is not known yet what they left. */
  private looking = false;
  private isTaking = false;
  /** The page's base came from the database, not from a copy in this browser. */
  private fresh = false;
  private refreshing: 'no' | 'yes' | 'again' = 'no';
  private closed = false;
  private readonly closing = new AbortController();
  /** How many writings of the journal are under way; a page that goes gives them up. */
  private writing = 0;
  private readonly stopWatching: () => void;

  constructor(
    private readonly store: RigStore,
    head: Head,
    private readonly onQuestion: (question: Question | null) => void,
    private readonly by: () => string | null = () => null,
  ) {
    this.k = opened(head);
    store.setState({ revision: head.revision });
    holdPage(this.tab);
    this.stopWatching = store.subscribe((now, before) => {
      if (now.lastEdit && now.lastEdit !== before.lastEdit)
        this.happen({ is: 'edited', ...now.lastEdit });
    });
    window.addEventListener('online', this.tryNow);
    window.addEventListener('pagehide', this.goes);
  }

  private get id(): string {
    return this.k.rig.id;
  }

  /** The revision that the page is based on. */
  get base(): Head {
    return this.k.base;
  }

  /** Looks what the database has, and takes up what earlier pages of this browser left behind. */
  async recover(): Promise<void> {
    this.looking = true;
    await this.refresh();
    const later = (left: Left) => {
      this.left.push(left);
      void this.takeUp();
    };
    this.left.push(...(await takeLeft(this.id, this.tab, later, this.closing.signal)));
    void this.keep();
    await this.takeUp();
    this.looking = false;
    if (!this.closed) this.mark();
  }

  /** Asks for the newest revision and brings it in. */
  async refresh(): Promise<void> {
    if (this.refreshing !== 'no') {
      this.refreshing = 'again';
      return;
    }
    this.refreshing = 'yes';
    const reply = await askServer<Head>(`/api/rigs/${this.id}`);
    const again = (this.refreshing as string) === 'again';
    this.refreshing = 'no';
    if (this.closed) return;
    if (reply.ok) this.hear(reply.value);
    if (again) await this.refresh();
  }

  /**
   * A head as the database has it now. One that is older than what the page knows means that the
   * database was set back.
   */
  private hear(head: Head): void {
    const { base, state } = this.k;
    const isKnown = head.revision === base.revision && head.identity === base.identity;
    if (!isKnown && this.isEarly()) return this.once(() => this.hear(head));
    const first = !this.fresh;
    this.fresh = true;
    if (isKnown) return;
    const lost =
      head.revision < base.revision ||
      (head.revision === base.revision && head.identity !== base.identity);
    if (!lost) return this.happen({ is: 'arrived', head });
    // Only a page at rest asks at once; any other finds out with its next save.
    if (!first || state !== 'saved') return;
    const journal = journalOf(this.k);
    this.k = opened(head);
    this.happen({ is: 'recovered', journal, fresh: true });
  }

  /** Takes up what was left, one after the other. */
  private async takeUp(): Promise<void> {
    if (this.isTaking || this.closed) return;
    this.isTaking = true;
    const ready = () => this.store.getState().ready();
    const canTake =
      this.left.length === 0 ||
      (await ready().then(
        () => true,
        // What takes it up cannot be fetched now: it stays where it was left.
        () => false,
      ));
    if (canTake) await this.takeNext();
    this.isTaking = false;
  }

  /** Takes up the next of what was left, until one has to be saved first; what is settled goes. */
  private async takeNext(): Promise<void> {
    while (this.k.state === 'saved') {
      this.taking?.settle();
      this.taking = this.left.shift();
      if (!this.taking) return;
      let { journal } = this.taking;
      if (journal.base.identity === '') {
        const base = await this.known(journal.base.revision);
        if (!base || (this.k.state as string) !== 'saved') {
          this.left.unshift(this.taking);
          this.taking = undefined;
          return;
        }
        journal = { ...journal, base };
      }
      this.happen({ is: 'recovered', journal, fresh: this.fresh });
    }
  }

  /** A revision that is known by number alone. */
  private async known(revision: number): Promise<Head | undefined> {
    if (revision === this.k.base.revision) return this.k.base;
    const reply = await askServer<Rig>(`/api/rigs/${this.id}/revisions/${revision}`);
    return reply.ok ? { revision, identity: '', rig: reply.value } : undefined;
  }

  /** Whether what joins and changes documents is still to be fetched. */
  private isEarly = (): boolean => this.store.getState().working === null;

  /** Does something once that is there; where the server is away, what it would be done with is kept. */
  private once(then: () => void): void {
    this.store
      .getState()
      .ready()
      .then(
        () => !this.closed && then(),
        () => undefined,
      );
  }

  /** Lets something happen, and does what follows from the state that it leads to. */
  private happen(e: Happening): void {
    const before = this.k;
    const { working } = this.store.getState();
    if (!working) return this.once(() => this.happen(e));
    const k = working.next(before, e);
    if (k === before) return;
    this.k = k;
    this.show(before);
    void this.keep();
    if (k.state === 'sending' && before.state !== 'sending') void this.send(k.attempt);
    else if (k.state === 'changed') this.schedule(SETTLE_MS);
    else if (k.state === 'away' && before.state !== 'away')
      this.schedule(at(PATIENCE_MS, Math.min(this.failures++, PATIENCE_MS.length - 1)));
    if (e.is === 'saved') this.failures = 0;
    const question = k.state === 'clash' || k.state === 'astray' ? k : null;
    if (question || before.state === 'clash' || before.state === 'astray')
      this.onQuestion(question);
    if (k.state === 'saved' && before.state !== 'saved') void this.takeUp();
  }

  /** Brings the page up to the state. */
  private show(before: Keeping): void {
    const { k, store } = this;
    const { adopt, history, setNotice } = store.getState();
    if (history.rig !== k.rig) {
      adopt(k.rig);
      if (k.base.revision > before.base.revision && k.state !== 'clash') setNotice(newsOf(k.base));
    }
    this.mark();
  }

  /** Says how the work is kept. */
  private mark(): void {
    const { k, store } = this;
    const save = saveState(k, store.getState().save);
    store.setState({
      revision: k.base.revision,
      unsaved: k.pending,
      save: this.looking && save.state === 'saved' ? { state: 'looking' } : save,
    });
  }

  /** Keeps what is not saved yet in this browser. */
  private async keep(): Promise<void> {
    this.writing++;
    const keeps = await writeJournal(this.id, this.tab, journalOf(this.k));
    this.writing--;
    if (keeps !== this.store.getState().keeps) this.store.setState({ keeps });
  }

  /** The page goes: what is still being kept is written at once. */
  private goes = (): void => {
    if (this.writing) writeInPassing(this.id, this.tab, journalOf(this.k));
  };

  private async send(attempt: Extract<Keeping, { state: 'sending' }>['attempt']): Promise<void> {
    const { identity, base, rig, words } = attempt;
    const reply = await askServer<{ revision: number; newer?: Head }>(
      `/api/rigs/${this.id}/revisions`,
      'POST',
      { base: base.identity, identity, rig, words, by: this.by() },
    );
    if (!this.closed) this.happen(answerOf(identity, reply));
  }

  private schedule(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.happen({ is: 'due', identity: crypto.randomUUID() }), ms);
  }

  /** Tries to save now, whatever the patience. */
  tryNow = (): void => {
    this.failures = 0;
    this.schedule(0);
  };

  /** The person chose a side of one clash. */
  choose(where: string, side: Side): void {
    this.happen({ is: 'chosen', where, side });
  }

  /** The person has chosen. */
  settle(): void {
    this.happen({ is: 'settled' });
  }

  /** The person said whose document holds after the database was set back. */
  decide(side: Side): void {
    this.happen({ is: 'decided', side });
  }

  close(): void {
    this.closed = true;
    this.closing.abort();
    clearTimeout(this.timer);
    window.removeEventListener('online', this.tryNow);
    window.removeEventListener('pagehide', this.goes);
    this.stopWatching();
  }
}

/** What an answer means for the attempt of this identity. */
function answerOf(identity: string, reply: Reply<{ revision: number; newer?: Head }>): Happening {
  if (reply.ok) return { is: 'saved', identity, ...reply.value };
  const why = problemText(reply.problem);
  const { outcome, head } = reply.problem as { outcome?: string; head?: Head };
  if (reply.status === 409 && head)
    return { is: outcome === 'behind' ? 'behind' : 'unknown base', head };
  const passing = reply.status === 0 || reply.status === 429 || reply.status >= 500;
  return { is: passing ? 'failed' : 'refused', why };
}

/** What the save mark says. While the server is away it goes on saying why, until it is heard of again. */
function saveState(k: Keeping, before: SaveState): SaveState {
  switch (k.state) {
    case 'saved':
      return { state: 'saved' };
    case 'changed':
      return before.state === 'unsaved' ? before : { state: 'saving' };
    case 'sending':
      return before.state === 'unsaved' ? before : { state: 'saving' };
    case 'away':
    case 'refused':
      return { state: 'unsaved', why: k.why };
    case 'clash':
      return { state: 'unsaved', why: 'somebody else changed the same thing; choose below' };
    case 'astray':
      return { state: 'unsaved', why: 'the database was set back; say what holds' };
  }
}

/** Who changed what, when it has been brought in. */
const newsOf = (head: Head): string =>
  `${head.by ?? 'Somebody'} changed this rig too` +
  `${head.words ? `: ${head.words.length > 80 ? `${cutText(head.words, 80)} …` : head.words}` : ''}. ` +
  'Both are in; the history shows every step.';

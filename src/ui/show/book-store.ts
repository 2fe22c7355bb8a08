import { createStore, type StoreApi } from 'zustand';
import {
  type Book,
  type Change,
  changeTo,
  type Differs,
  EMPTY,
  EMPTY_BOOK,
  type RecordOf,
  type RecordType,
} from '../../core/show/book';
import { askServer, problemText } from '../keep/ask-server';
import { later as laterScript } from '../look/later';

/** Fetches what makes changes and checks them: a book that is only read needs none of it. */
const fetchChanging = laterScript('logbook', () => import('./changing'));

/** A unit that another rig wants on the same day, as the server tells. */
export interface Double {
  date: string;
  serial: string;
  name: string;
  otherRig: string;
  otherVenue: string;
}

interface Answer {
  book: Book;
  double: Double[];
  refused?: { id: string; problems: string[] }[];
  differs?: Differs[];
}

/** What is written down beside a rig, as this browser has it: with what is not saved yet. */
export interface BookState {
  book: Book;
  double: Double[];
  /** How many changes wait to be saved, and whether the server was reached last. */
  waiting: number;
  away: boolean;
  trouble: string | null;
  differs: Differs[];
  put: <T extends RecordType>(is: T, id: string, fields: Partial<RecordOf<T>>) => void;
  settle: (differs: Differs, take: 'theirs' | 'yours') => void;
  refresh: () => Promise<void>;
}

const RETRY_MS = 3000;
const LOOK_MS = 15_000;
const AT_ONCE = 200;

const waitingKey = (rig: string, tab: string) => `yantrel show ${rig} ${tab}`;
const knownKey = (rig: string) => `yantrel show known ${rig}`;

function readKept<T>(key: string): T | undefined {
  try {
    const kept = localStorage.getItem(key);
    return kept ? (JSON.parse(kept) as T) : undefined;
  } catch {
    return undefined;
  }
}

/** Writes at once; what this browser cannot keep stays in the page. */
function keep(key: string, value: unknown): void {
  try {
    if (value === undefined) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // A full or private browser: the page goes on trying to save.
  }
}

/** Changes that pages before this one left behind; making them twice does no harm. */
function leftBehind(rig: string): { keys: string[]; changes: Change[] } {
  const prefix = waitingKey(rig, '');
  try {
    const keys = Object.keys(localStorage).filter((k) => k.startsWith(prefix));
    return { keys, changes: keys.flatMap((k) => readKept<Change[]>(k) ?? []) };
  } catch {
    return { keys: [], changes: [] };
  }
}

/**
 * Keeps what is written down beside a rig. The idea: every change is written into this browser before
 * anything else, shown at once, and sent until the server has it; the server makes changes field by
 * field, so that two people who write at once both keep what they wrote.
 */
export function openBook(rig: string): { store: StoreApi<BookState>; close: () => void } {
  const tab = Math.random().toString(36).slice(2);
  let known: Book = EMPTY_BOOK;
  let waiting: Change[] = [];
  let changing: Awaited<ReturnType<typeof fetchChanging>> | undefined;
  let sending = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let closed = false;

  const show = (more: Partial<BookState> = {}) => {
    if (waiting.length && !changing) void changingComes();
    store.setState({
      book: (waiting.length && changing?.withChanges(known, waiting)) || known,
      waiting: waiting.length,
      ...more,
    });
  };

  const changingComes = () =>
    fetchChanging().then(
      (come) => {
        changing = come;
        if (!closed) show();
      },
      // Without it what was written is kept and sent all the same, and seen once it is saved.
      () => undefined,
    );

  const later = (ms: number) => {
    clearTimeout(timer);
    if (!closed) timer = setTimeout(() => void send(), ms);
  };

  const take = (answer: Answer) => {
    known = answer.book;
    keep(knownKey(rig), answer);
  };

  async function send(): Promise<void> {
    if (sending || closed) return;
    sending = true;
    const now = waiting.slice(0, AT_ONCE);
    const reply = now.length
      ? await askServer<Answer>(`/api/rigs/${rig}/log`, 'POST', { changes: now })
      : await askServer<Answer>(`/api/rigs/${rig}/log`);
    sending = false;
    if (closed) return;
    if (reply.ok) {
      waiting = waiting.slice(now.length);
      keep(waitingKey(rig, tab), waiting.length ? waiting : undefined);
      take(reply.value);
      const refused = reply.value.refused ?? [];
      show({
        double: reply.value.double,
        away: false,
        differs: [...store.getState().differs, ...(reply.value.differs ?? [])],
        ...(refused.length && {
          trouble: `Not kept: ${refused.flatMap((r) => r.problems).join('; ')}`,
        }),
      });
      later(waiting.length ? 0 : LOOK_MS);
      return;
    }
    show({
      away: true,
      ...(reply.status >= 400 && reply.status !== 503 && { trouble: problemText(reply.problem) }),
    });
    later(RETRY_MS);
  }

  /** A record as the page shows it, or would, once what makes changes is there. */
  const asShown = <T extends RecordType>(is: T, id: string): RecordOf<T> | undefined => {
    const list = store.getState().book[is] as unknown as RecordOf<T>[];
    const shown = list.find((r) => r.id === id);
    const early = changing ? [] : waiting.filter((c) => c.is === is && c.id === id);
    if (!early.length) return shown;
    const typed = early.flatMap((c) =>
      Object.entries(c.fields).map(([field, { now }]) => [field, now]),
    );
    return { ...EMPTY[is], ...shown, ...Object.fromEntries(typed), id } as RecordOf<T>;
  };

  const put: BookState['put'] = (is, id, fields) => {
    const change = changeTo(is, id, asShown(is, id), fields);
    if (!Object.keys(change.fields).length) return;
    waiting = [...waiting, change];
    keep(waitingKey(rig, tab), waiting);
    show();
    later(0);
  };

  const store = createStore<BookState>(() => ({
    book: EMPTY_BOOK,
    double: [],
    waiting: 0,
    away: false,
    trouble: null,
    differs: [],
    put,
    settle: (d, taken) => {
      store.setState({ differs: store.getState().differs.filter((x) => x !== d) });
      if (taken === 'yours') put(d.is, d.id, { [d.field]: d.yours });
    },
    refresh: send,
  }));

  const kept = readKept<Answer>(knownKey(rig));
  // An earlier version kept fewer sorts of records.
  if (kept) known = { ...EMPTY_BOOK, ...kept.book };
  const left = leftBehind(rig);
  waiting = left.changes;
  if (waiting.length) keep(waitingKey(rig, tab), waiting);
  for (const key of left.keys) keep(key, undefined);
  show({ double: kept?.double ?? [] });
  void send();
  const online = () => void send();
  window.addEventListener('online', online);
  return {
    store,
    close: () => {
      closed = true;
      clearTimeout(timer);
      window.removeEventListener('online', online);
    },
  };
}

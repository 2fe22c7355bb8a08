import { type Book, type Change, EMPTY_BOOK, withChanges } from '../../core/show/book';
import { type BookState, openBook } from './book-store';

/** A server of one rig's logbook that can be away, slow to answer, or refuse. */
class Server {
  book: Book = EMPTY_BOOK;
  away = false;
  refuses: string[] = [];
  asked: Change[][] = [];
  /** It keeps what it is sent and dies before it can say so. */
  diesAfter = false;

  answer = (_: unknown, init?: { body?: string }): Promise<Response> => {
    if (this.away) return Promise.reject(new Error('no network'));
    const { changes = [] } = init?.body ? (JSON.parse(init.body) as { changes: Change[] }) : {};
    if (init?.body) this.asked.push(changes);
    const taken = changes.filter((c) => !this.refuses.includes(c.id));
    this.book = withChanges(this.book, taken);
    if (this.diesAfter) return Promise.reject(new Error('died'));
    const refused = changes
      .filter((c) => this.refuses.includes(c.id))
      .map(({ id }) => ({ id, problems: ['text: write something'] }));
    return Promise.resolve(
      new Response(JSON.stringify({ book: this.book, double: [], refused, differs: [] })),
    );
  };
}

let server: Server;
const open: (() => void)[] = [];
const page = () => {
  const opened = openBook('rig');
  open.push(opened.close);
  return opened;
};
/** Until what is on its way to the page has come. */
const moment = () => jest.advanceTimersByTimeAsync(1);
const settle = async () => {
  for (let i = 0; i < 20; i++) await jest.advanceTimersByTimeAsync(200);
};
const texts = (book: Book) => book.line.map((l) => l.text).sort();
const write = (state: BookState, id: string, text: string) =>
  state.put('line', id, { at: '2026-11-27T20:00:00.000Z', text });

beforeEach(() => {
  jest.useFakeTimers();
  server = new Server();
  const kept = new Map<string, string>();
  const storage = {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => {
      kept.set(k, v);
      (storage as Record<string, unknown>)[k] = v;
    },
    removeItem: (k: string) => {
      kept.delete(k);
      delete (storage as Record<string, unknown>)[k];
    },
  };
  Object.assign(globalThis, {
    localStorage: storage,
    fetch: server.answer,
    window: { addEventListener: () => undefined, removeEventListener: () => undefined },
  });
});
afterEach(() => {
  open.splice(0).forEach((close) => close());
  jest.useRealTimers();
});

test('what is written is shown at once and is on the server soon', async () => {
  const { store } = page();
  write(store.getState(), 'a', 'kiln crackles');
  expect(store.getState().waiting).toBe(1);
  // What makes changes is fetched with the first of them.
  await moment();
  expect(texts(store.getState().book)).toEqual(['kiln crackles']);
  write(store.getState(), 'b', 'at once now');
  expect(texts(store.getState().book)).toEqual(['at once now', 'kiln crackles']);
  store.getState().put('line', 'b', { text: 'at once' });
  write(store.getState(), 'b', 'at once, too');
  await settle();
  expect(texts(server.book)).toEqual(['at once, too', 'kiln crackles']);
  expect(store.getState().waiting).toBe(0);
});

test('what is written again before anything makes changes is no change of somebody else', async () => {
  const { store } = page();
  write(store.getState(), 'a', 'half');
  store.getState().put('line', 'a', { text: 'whole' });
  store.getState().put('line', 'a', { text: 'whole' });
  store.getState().put('line', 'a', { by: 'Odda' });
  expect(store.getState().waiting).toBe(3);
  await settle();
  expect(store.getState()).toMatchObject({ differs: [], trouble: null, waiting: 0 });
  expect(server.asked.flat().map((c) => c.fields)).toEqual([
    expect.objectContaining({ text: { was: '?', now: 'half' } }),
    { text: { was: 'half', now: 'whole' } },
    { by: { was: '', now: 'Odda' } },
  ]);
  expect(server.book.line).toEqual([expect.objectContaining({ text: 'whole', by: 'Odda' })]);
});

test('without a server everything is kept, said so, and sent when it is back', async () => {
  server.away = true;
  const { store } = page();
  for (const n of [1, 2, 3]) write(store.getState(), `a${n}`, `line ${n}`);
  await settle();
  expect(store.getState()).toMatchObject({ waiting: 3, away: true });
  expect(texts(store.getState().book)).toHaveLength(3);
  server.away = false;
  await settle();
  expect(texts(server.book)).toEqual(['line 1', 'line 2', 'line 3']);
  expect(store.getState()).toMatchObject({ waiting: 0, away: false });
});

test('a page that goes leaves what waited to the next one', async () => {
  server.away = true;
  const first = page();
  write(first.store.getState(), 'a', 'half gone');
  await settle();
  first.close();
  server.away = false;
  const second = page();
  await moment();
  expect(texts(second.store.getState().book)).toEqual(['half gone']);
  await settle();
  expect(texts(server.book)).toEqual(['half gone']);
});

test('a server that keeps it and dies before it says so is sent it again, and has it once', async () => {
  server.diesAfter = true;
  const { store } = page();
  write(store.getState(), 'a', 'once');
  await settle();
  server.diesAfter = false;
  await settle();
  expect(server.asked.length).toBeGreaterThan(1);
  expect(texts(server.book)).toEqual(['once']);
  expect(store.getState().waiting).toBe(0);
});

test('what the server knew is there without it, after a reload too', async () => {
  const first = page();
  write(first.store.getState(), 'a', 'known');
  await settle();
  first.close();
  server.away = true;
  const second = page();
  expect(texts(second.store.getState().book)).toEqual(['known']);
});

test('what is refused is told with why, and does not hold up the others', async () => {
  server.refuses = ['bad'];
  const { store } = page();
  write(store.getState(), 'bad', 'refused');
  write(store.getState(), 'good', 'kept');
  await settle();
  expect(store.getState().trouble).toBe('Not kept: text: write something');
  expect(texts(server.book)).toEqual(['kept']);
  expect(store.getState().waiting).toBe(0);
});

test('what changes nothing is not sent; of what differs one is taken', async () => {
  const { store } = page();
  write(store.getState(), 'a', 'same');
  await settle();
  const before = server.asked.length;
  store.getState().put('line', 'a', { text: 'same' });
  await settle();
  expect(server.asked).toHaveLength(before);
  const differs = { is: 'line', id: 'a', field: 'text', theirs: 'same', yours: 'mine' } as const;
  store.setState({ differs: [differs] });
  store.getState().settle(differs, 'yours');
  await settle();
  expect(store.getState().differs).toEqual([]);
  expect(texts(server.book)).toEqual(['mine']);
});

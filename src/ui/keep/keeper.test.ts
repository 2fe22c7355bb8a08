import { analyse } from '../../core/report';
import { touringRig } from '../../core/demo';
import type { Head, Journal } from '../../core/keep';
import type { Rig } from '../../core/rig';
import { createRigStore } from '../store/rig-store';
import * as working from '../store/working';
import { Keeper, type Question } from './keeper';

const kept = new Map<string, unknown>();
let full = false;
/** Nothing that is written comes to its end. */
let slow = false;
jest.mock('idb-keyval', () => ({
  get: async (k: string) => kept.get(k),
  set: async (k: string, v: unknown) => {
    if (full) throw new Error('the disk is full');
    if (slow) await new Promise(() => undefined);
    kept.set(k, structuredClone(v));
  },
  del: async (k: string) => void kept.delete(k),
  keys: async () => [...kept.keys()],
}));

interface Sent {
  base: string;
  identity: string;
  rig: Rig;
  words: string;
  by: string | null;
}
type Answer = { status: number; body: unknown } | 'away';
let sent: Sent[];
let answers: Answer[];
/** What the database has. */
let head: Head;

beforeEach(() => {
  jest.useFakeTimers();
  kept.clear();
  full = false;
  slow = false;
  sent = [];
  answers = [];
  head = { revision: 7, identity: 'seven', rig: touringRig };
  Object.assign(globalThis, { window: new EventTarget() });
  globalThis.fetch = (async (_path: string, init: { method: string; body?: string }) => {
    const reply = (status: number, body: unknown) => ({
      ok: status < 300,
      status,
      json: async () => body,
    });
    if (init.method !== 'POST') {
      if (answers[0] === 'away') throw new TypeError('fetch failed');
      return reply(200, head);
    }
    const save = JSON.parse(init.body ?? '') as Sent;
    sent.push(save);
    const answer = answers.shift();
    if (answer === 'away') throw new TypeError('fetch failed');
    if (answer) return reply(answer.status, answer.body);
    if (save.base !== head.identity)
      return reply(409, { title: 'Others have saved since.', outcome: 'behind', head });
    head = { revision: head.revision + 1, identity: save.identity, rig: save.rig };
    return reply(201, { revision: head.revision });
  }) as unknown as typeof fetch;
});
afterEach(() => jest.useRealTimers());

const theirs = (change: Partial<Rig>, words = 'changed it') => {
  head = {
    revision: head.revision + 1,
    identity: `theirs-${head.revision}`,
    by: 'Ada',
    words,
    rig: { ...head.rig, ...change },
  };
};

function opened(on = head) {
  const store = createRigStore(on.rig, analyse(on.rig), false, working);
  const questions: (Question | null)[] = [];
  const keeper = new Keeper(
    store,
    on,
    (q) => questions.push(q),
    () => 'Bea',
  );
  const rename = (name: string) => store.getState().edit({ edit: 'renameRig', name });
  return {
    store,
    keeper,
    questions,
    rename,
    note: (notes: string) => store.getState().edit({ edit: 'setRigNotes', notes }),
    get: store.getState,
    wait: (ms: number) => jest.advanceTimersByTimeAsync(ms),
    journal: () => kept.get(`yantrel journal ${touringRig.id} ${keeper.tab}`) as Journal,
  };
}
/** What a page that is gone left in this browser. */
const leave = (tab: string, journal: Journal) =>
  kept.set(`yantrel journal ${touringRig.id} ${tab}`, journal);

test('changes made close together are one save, on the right revision, in words; then it says "saved"', async () => {
  const { get, rename, wait, journal } = opened();
  rename('One');
  rename('Two');
  expect(get().save.state).toBe('saving');
  await wait(0);
  expect(journal().pending).toHaveLength(2);
  await wait(1000);
  expect(sent).toMatchObject([
    {
      base: 'seven',
      by: 'Bea',
      rig: { name: 'Two' },
      words: 'renamed the rig to One; renamed the rig to Two',
    },
  ]);
  expect(get().save).toEqual({ state: 'saved' });
  expect(journal()).toMatchObject({ base: { revision: 8 }, pending: [], rig: { name: 'Two' } });
  rename('Three');
  await wait(1000);
  expect(sent[1]!.base).toBe(sent[0]!.identity);
  expect(get().revision).toBe(9);
});

test(
  'with the server away it says why, keeps the work, sends the same again more and more slowly, ' +
    'and saves when it is back',
  async () => {
    const { get, rename, wait, journal } = opened();
    answers = ['away', 'away', { status: 503, body: { title: 'The database is away.' } }];
    rename('Kept');
    await wait(400);
    expect(get().save).toMatchObject({
      state: 'unsaved',
      why: expect.stringContaining('The server cannot be reached.') as string,
    });
    expect(journal().rig.name).toBe('Kept');
    await wait(3100);
    expect(get().save).toMatchObject({ state: 'unsaved', why: 'The database is away.' });
    rename('Kept too');
    await wait(8000);
    expect(get().save).toEqual({ state: 'saved' });
    expect(sent.map((s) => s.rig.name)).toEqual(['Kept', 'Kept', 'Kept', 'Kept', 'Kept too']);
    expect(new Set(sent.slice(0, 4).map((s) => s.identity)).size).toBe(1);
  },
);

test('a save whose answer was lost is not stored twice, and what others did since comes in', async () => {
  const { get, rename, note, wait } = opened();
  answers = ['away', { status: 201, body: null }];
  rename('Mine');
  await wait(400);
  const saved = { revision: 8, identity: sent[0]!.identity, rig: sent[0]!.rig };
  head = saved;
  theirs({ notes: 'theirs' }, 'noted it');
  answers = [{ status: 201, body: { revision: 8, newer: head } }];
  await wait(1500);
  expect(get().history.rig).toMatchObject({ name: 'Mine', notes: 'theirs' });
  expect(get().notice).toBe(
    'Ada changed this rig too: noted it. Both are in; the history shows every step.',
  );
  note('and on');
  await wait(1000);
  expect(sent.at(-1)?.base).toBe('theirs-8');
  expect(get().save).toEqual({ state: 'saved' });
});

test('the base never moves past its document: what others saved while mine was out is joined, not written over', async () => {
  const { get, rename, wait, keeper, questions } = opened();
  theirs({ name: 'Theirs', notes: 'theirs' });
  // Behind without knowing it: a save of mine, and one more change of the same name meanwhile.
  get().edit({ edit: 'setDevice', device: 'kiln', notes: 'mine' });
  rename('Mine');
  await wait(1000);
  expect(sent).toHaveLength(1);
  expect(questions.at(-1)).toMatchObject({
    state: 'clash',
    clashes: [{ where: 'name', mine: 'Mine', theirs: 'Theirs' }],
  });
  expect(get().history.rig.name).toBe('Mine');
  keeper.choose('name', 'mine');
  keeper.settle();
  await wait(1000);
  expect(questions.at(-1)).toBeNull();
  expect(head.rig).toMatchObject({ name: 'Mine', notes: 'theirs' });
  expect(get().history.rig).toEqual(head.rig);
});

test('what others save comes in as soon as it is told, and mine stays on top', async () => {
  const { get, keeper, rename, wait } = opened();
  theirs({ notes: 'theirs' }, 'noted it');
  await keeper.refresh();
  expect(get().history.rig.notes).toBe('theirs');
  expect(get().history.past).toEqual([]);
  rename('Mine');
  theirs({ notes: 'more' });
  await keeper.refresh();
  expect(get().history.rig).toMatchObject({ name: 'Mine', notes: 'more' });
  await wait(1000);
  expect(head).toMatchObject({ revision: 10, rig: { name: 'Mine', notes: 'more' } });
});

test('a reload takes up what was not saved; two closed pages one after the other, and neither is lost', async () => {
  leave('gone-1', { base: head, rig: { ...touringRig, name: 'From one' }, pending: ['renamed'] });
  leave('gone-2', { base: head, rig: { ...touringRig, notes: 'from two' }, pending: ['noted'] });
  const { keeper, get, wait } = opened();
  await keeper.recover();
  expect(get().history.rig.name).toBe('From one');
  await wait(3000);
  expect(head.rig).toMatchObject({ name: 'From one', notes: 'from two' });
  expect(get().history.rig).toEqual(head.rig);
  expect([...kept.keys()]).toEqual([`yantrel journal ${touringRig.id} ${keeper.tab}`]);
});

test('a page that goes while its journal is still being written loses nothing', async () => {
  const quick = new Map<string, string>();
  Object.assign(globalThis, {
    localStorage: {
      getItem: (k: string) => quick.get(k) ?? null,
      setItem: (k: string, v: string) => void quick.set(k, v),
      removeItem: (k: string) => void quick.delete(k),
      key: (i: number) => [...quick.keys()][i] ?? null,
      get length() {
        return quick.size;
      },
    },
  });
  const first = opened();
  slow = true;
  first.rename('Only just');
  window.dispatchEvent(new Event('pagehide'));
  first.keeper.close();
  slow = false;
  const { keeper, get, wait } = opened();
  await keeper.recover();
  expect(get().history.rig.name).toBe('Only just');
  await wait(3000);
  expect(head.rig.name).toBe('Only just');
  expect(quick.size).toBe(0);
});

test('nothing is called saved before it is known what was left; then it is', async () => {
  const { keeper, get } = opened();
  expect(get().save.state).toBe('looking');
  const found = keeper.recover();
  expect(get().save.state).toBe('looking');
  await found;
  expect(get().save.state).toBe('saved');
});

test('what is changed while earlier work is looked for is saved first, and the earlier work comes in after it', async () => {
  leave('gone-1', { base: head, rig: { ...touringRig, name: 'Earlier' }, pending: ['renamed'] });
  const { keeper, note, wait } = opened();
  const found = keeper.recover();
  note('quick');
  await found;
  await wait(3000);
  expect(head.rig).toMatchObject({ name: 'Earlier', notes: 'quick' });
});

test('a journal of a page that is still open is left alone until that page goes, and is then taken up', async () => {
  leave('open-1', { base: head, rig: { ...touringRig, name: 'Open' }, pending: ['renamed'] });
  let goes = () => {};
  const gone = new Promise<void>((resolve) => (goes = resolve));
  const request = async (name: string, ...rest: unknown[]) => {
    const held = name.endsWith('open-1');
    const take = rest.at(-1) as (lock: unknown) => unknown;
    if (held && (rest[0] as LockOptions).ifAvailable) return take(null);
    if (held) await gone;
    return take({});
  };
  Object.defineProperty(globalThis, 'navigator', {
    configurable: true,
    value: { locks: { request } },
  });
  const { keeper, get, wait } = opened();
  await keeper.recover();
  await wait(1000);
  expect(get().history.rig.name).toBe(touringRig.name);
  expect(kept.has(`yantrel journal ${touringRig.id} open-1`)).toBe(true);
  goes();
  await wait(1000);
  expect(head.rig.name).toBe('Open');
  expect(get().history.rig).toEqual(head.rig);
  expect(kept.has(`yantrel journal ${touringRig.id} open-1`)).toBe(false);
  Object.defineProperty(globalThis, 'navigator', { configurable: true, value: {} });
});

test('the one copy that an earlier version kept is taken up, too', async () => {
  kept.set(`yantrel rig ${touringRig.id}`, {
    rig: { ...touringRig, name: 'From before' },
    base: 7,
    words: ['renamed'],
  });
  const { keeper, wait } = opened();
  await keeper.recover();
  await wait(1000);
  expect(head.rig.name).toBe('From before');
  expect(kept.has(`yantrel rig ${touringRig.id}`)).toBe(false);
});

test('a database that was set back is asked about before anything is written', async () => {
  const later = { revision: 9, identity: 'nine', rig: { ...touringRig, name: 'Later' } };
  leave('gone-1', { base: later, rig: later.rig, pending: [] });
  const { keeper, questions, wait } = opened();
  await keeper.recover();
  await wait(1000);
  expect(questions.at(-1)).toMatchObject({ state: 'astray', theirs: { revision: 7 } });
  expect(sent).toEqual([]);
  keeper.decide('mine');
  await wait(1000);
  expect(head).toMatchObject({ revision: 8, rig: { name: 'Later' } });
  expect(sent[0]).toMatchObject({ base: 'seven', words: 'put back what the database had lost' });
});

test('a page that was kept for when the server is away is brought up to what was seen last', async () => {
  const seen = { revision: 9, identity: 'nine', rig: { ...touringRig, name: 'Seen last' } };
  leave('gone-1', { base: seen, rig: seen.rig, pending: [] });
  answers = ['away'];
  const { keeper, get, note, wait, questions } = opened();
  await keeper.recover();
  expect(get().history.rig.name).toBe('Seen last');
  head = seen;
  answers = [];
  note('And on');
  await wait(1000);
  expect(sent[0]!.base).toBe('nine');
  expect(questions).toEqual([]);
});

test('a browser that keeps nothing says so, and no longer once it does', async () => {
  const { get, rename, wait } = opened();
  full = true;
  rename('One');
  await wait(0);
  expect(get().keeps).toBe(false);
  full = false;
  rename('Two');
  await wait(0);
  expect(get().keeps).toBe(true);
});

test('a document that the server refuses is not sent again and again', async () => {
  const { get, rename, wait } = opened();
  const problems = [{ where: 'leads[0]', what: 'is wrong' }];
  answers = [{ status: 422, body: { title: 'The rig was not saved.', problems } }];
  rename('Refused');
  await wait(60_000);
  expect(sent).toHaveLength(1);
  expect(get().save).toEqual({
    state: 'unsaved',
    why: 'The rig was not saved. leads[0]: is wrong',
  });
});

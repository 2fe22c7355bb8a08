import { analyse } from '../../core/report';
import { touringRig } from '../../core/demo';
import type { Rig } from '../../core/rig';
import { createRigStore } from '../store/rig-store';
import { type Clash, Keeper } from './keeper';
import type { LocalCopy } from './local-copy';

const kept = new Map<string, LocalCopy>();
jest.mock('idb-keyval', () => ({
  get: async (k: string) => kept.get(k),
  set: async (k: string, v: LocalCopy) => void kept.set(k, v),
}));

interface Sent {
  base: number;
  rig: Rig;
  words: string;
}
type Answer = { status: number; body: unknown } | 'away';
let sent: Sent[];
let answers: Answer[];

beforeEach(() => {
  jest.useFakeTimers();
  kept.clear();
  sent = [];
  answers = [];
  Object.assign(globalThis, { window: new EventTarget() });
  globalThis.fetch = (async (_path: string, init: { body: string }) => {
    sent.push(JSON.parse(init.body) as Sent);
    const answer = answers.shift() ?? { status: 201, body: { revision: sent.at(-1)!.base + 1 } };
    if (answer === 'away') throw new TypeError('fetch failed');
    return { ok: answer.status < 300, status: answer.status, json: async () => answer.body };
  }) as unknown as typeof fetch;
});
afterEach(() => jest.useRealTimers());

function opened() {
  const store = createRigStore(touringRig, analyse(touringRig));
  const clashes: (Clash | null)[] = [];
  const keeper = new Keeper(store, 7, (c) => clashes.push(c));
  const rename = (name: string) => store.getState().edit({ edit: 'renameRig', name });
  return {
    store,
    keeper,
    clashes,
    rename,
    get: store.getState,
    wait: (ms: number) => jest.advanceTimersByTimeAsync(ms),
    copy: () => kept.get(`yantrel rig ${touringRig.id}`),
  };
}

test('changes made close together are one save, on the right revision, in words; then it says "saved"', async () => {
  const { get, rename, wait, copy } = opened();
  rename('One');
  rename('Two');
  expect(get().save.state).toBe('saving');
  expect(copy()!.words).toHaveLength(2);
  await wait(1000);
  expect(sent.map((s) => [s.base, s.rig.name, s.words])).toEqual([
    [7, 'Two', 'renamed the rig to One; renamed the rig to Two'],
  ]);
  expect(get().save).toEqual({ state: 'saved' });
  expect(copy()).toMatchObject({ base: 8, words: [], rig: { name: 'Two' } });
  rename('Three');
  await wait(1000);
  expect(sent[1]!.base).toBe(8);
});

test(
  'with the server away it says why, keeps the work, tries again more and more ' +
    'slowly, and saves when it is back',
  async () => {
    const { get, rename, wait, copy } = opened();
    answers = ['away', 'away', { status: 503, body: { title: 'The database is away.' } }];
    rename('Kept');
    await wait(400);
    expect(get().save).toMatchObject({
      state: 'unsaved',
      why: expect.stringContaining('The server cannot be reached.') as string,
    });
    expect(copy()!.rig.name).toBe('Kept');
    await wait(3100);
    expect(get().save).toMatchObject({ state: 'unsaved', why: 'The database is away.' });
    rename('Kept too');
    await wait(6000);
    expect(get().save).toEqual({ state: 'saved' });
    expect(sent.at(-1)).toMatchObject({ base: 7, rig: { name: 'Kept too' } });
  },
);

test('a reload takes up what was not saved', async () => {
  kept.set(`yantrel rig ${touringRig.id}`, {
    rig: { ...touringRig, name: 'From before' },
    base: 5,
    words: ['renamed'],
  });
  const { keeper, get, wait } = opened();
  await keeper.recover();
  expect(get().history.rig.name).toBe('From before');
  await wait(400);
  expect(sent[0]).toMatchObject({ base: 5, rig: { name: 'From before' } });
});

test(
  'what is changed while earlier work is being looked for is not lost, nor does it ' +
    'overwrite that work',
  async () => {
    const earlier = { rig: { ...touringRig, name: 'From before' }, base: 5, words: ['renamed'] };
    kept.set(`yantrel rig ${touringRig.id}`, earlier);
    const { keeper, store, get, wait, copy } = opened();
    const found = keeper.recover();
    store.getState().edit({ edit: 'setDevice', device: 'kiln', notes: 'quick' });
    expect(copy()).toEqual(earlier);
    await found;
    expect(get().history.rig.name).toBe('From before');
    expect(get().history.rig.devices.find((d) => d.id === 'kiln')!.notes).toBe('quick');
    expect(copy()!.words).toHaveLength(2);
    await wait(1000);
    expect(sent).toHaveLength(1);
    expect(sent[0]!.words).toMatch(/^renamed; /);
  },
);

test('where it clashes with earlier work, that work is taken up, and the quick change is a step back', async () => {
  kept.set(`yantrel rig ${touringRig.id}`, {
    rig: { ...touringRig, name: 'From before' },
    base: 5,
    words: ['renamed'],
  });
  const { keeper, get, rename } = opened();
  const found = keeper.recover();
  rename('Quick');
  await found;
  expect(get().history.rig.name).toBe('From before');
  get().undo();
  expect(get().history.rig.name).toBe('Quick');
});

test('a copy without unsaved work does not go before what the server gave', async () => {
  kept.set(`yantrel rig ${touringRig.id}`, {
    rig: { ...touringRig, name: 'Stale' },
    base: 3,
    words: [],
  });
  const { keeper, get } = opened();
  await keeper.recover();
  expect(get().history.rig.name).toBe(touringRig.name);
});

test('a page that was kept for when the server is away is brought up to what was seen last', async () => {
  kept.set(`yantrel rig ${touringRig.id}`, {
    rig: { ...touringRig, name: 'Seen last' },
    base: 9,
    words: [],
  });
  const fetching = globalThis.fetch;
  globalThis.fetch = () => Promise.reject(new TypeError('fetch failed'));
  const { keeper, get, rename, wait } = opened();
  await keeper.recover();
  expect(get().history.rig.name).toBe('Seen last');
  globalThis.fetch = fetching;
  rename('And on');
  await wait(1000);
  expect(sent[0]!.base).toBe(9);
});

test('what the server merged is taken in; what was changed meanwhile is saved on top', async () => {
  const { get, rename, wait, store } = opened();
  rename('Mine');
  answers = [
    { status: 201, body: { revision: 12, rig: { ...touringRig, name: 'Mine', notes: 'theirs' } } },
  ];
  const saving = wait(360);
  await saving;
  expect(get().history.rig).toMatchObject({ name: 'Mine', notes: 'theirs' });
  expect(get().notice).toContain('Both changes are in');
  store.getState().edit({ edit: 'setDevice', device: 'kiln', notes: 'later' });
  await wait(1000);
  expect(sent.at(-1)).toMatchObject({ base: 12, rig: { notes: 'theirs' } });
});

test.each(['mine', 'theirs'] as const)('a clash stops saving until %s is chosen', async (side) => {
  const { get, rename, wait, keeper, clashes } = opened();
  answers = [
    {
      status: 409,
      body: {
        title: 'Somebody else changed the same thing.',
        conflicts: [{ where: 'name' }],
        problems: [],
        theirs: { rig: { ...touringRig, name: 'Theirs' }, revision: 9 },
      },
    },
  ];
  rename('Mine');
  await wait(1000);
  expect(clashes).toHaveLength(1);
  rename('Mine again');
  await wait(5000);
  expect(sent).toHaveLength(1);
  keeper.settle(side);
  await wait(1000);
  expect(clashes.at(-1)).toBeNull();
  expect(get().save).toEqual({ state: 'saved' });
  expect(get().history.rig.name).toBe(side === 'mine' ? 'Mine again' : 'Theirs');
  expect(sent.slice(1).map((s) => [s.base, s.rig.name])).toEqual(
    side === 'mine' ? [[9, 'Mine again']] : [],
  );
});

test('a document that the server refuses is not sent again and again', async () => {
  const { get, rename, wait } = opened();
  answers = [
    {
      status: 422,
      body: {
        title: 'The rig was not saved.',
        problems: [{ where: 'leads[0]', what: 'is wrong' }],
      },
    },
  ];
  rename('Refused');
  await wait(60_000);
  expect(sent).toHaveLength(1);
  expect(get().save).toEqual({
    state: 'unsaved',
    why: 'The rig was not saved. leads[0]: is wrong',
  });
});

import type { Rig } from '../core/rig';
import { chainOf } from '../core/testing/rigs';
import {
  type Door,
  keepAnalysis,
  LIMIT_S,
  loseAnalysis,
  openDoor,
  type Page,
  startAnalysis,
} from './door';
import type { Asked } from './messages';

const rig = chainOf(['guitar-active', 'console-input']);

/** A worker that does what the test says. */
class Fake {
  onmessage: ((e: { data: unknown }) => void) | null = null;
  onerror: ((e: { message: string }) => void) | null = null;
  onmessageerror: (() => void) | null = null;
  isEnded = false;
  readonly asked: Asked[] = [];
  postMessage = (data: Asked | { announce: string }) =>
    void ('id' in data && this.asked.push(data));
  terminate = () => void (this.isEnded = true);
  first = (i: number, first: unknown) =>
    this.onmessage?.({ data: { id: this.asked[i]?.id, first } });
  answer = (i: number, answer: unknown) =>
    this.onmessage?.({ data: { id: this.asked[i]?.id, answer } });
}

function asleep(watch?: Page['watch'], more: Partial<Page> = {}) {
  const workers: Fake[] = [];
  const restarts: [string, Promise<unknown>][] = [];
  const door: Door = openDoor({
    start: () => {
      const worker = new Fake();
      workers.push(worker);
      return worker as unknown as Worker;
    },
    document: (): Rig => rig,
    onRestart: (why, report) => void restarts.push([why, report.catch((e: Error) => e.message)]),
    watch,
    ...more,
  });
  return { door, workers, restarts };
}

/** A door whose worker runs and has the document. */
function opened(watch?: Page['watch'], more: Partial<Page> = {}) {
  const all = asleep(watch, more);
  all.door.wake();
  all.workers[0]?.answer(0, { changed: [] });
  all.workers[0]?.asked.splice(0);
  return all;
}

test('nothing runs until something is asked; then the document comes first, and once', async () => {
  const { door, workers } = asleep();
  expect(workers).toHaveLength(0);
  const asked = door.ask('boosts', { sound: 'a' });
  expect(workers[0]?.asked).toMatchObject([
    { question: 'open', ask: { rig } },
    { question: 'boosts' },
  ]);
  door.wake();
  expect([workers.length, workers[0]?.asked.length]).toEqual([1, 2]);
  workers[0]?.answer(1, ['worth']);
  expect(await asked).toEqual(['worth']);
  door.close();
});

test('whoever opens the document asks for nothing twice; a door that was never used has nothing to end', () => {
  const [used, never] = [asleep(), asleep()];
  void used.door.ask('open', { rig }).catch(() => undefined);
  expect(used.workers[0]?.asked.map((a) => a.question)).toEqual(['open']);
  used.door.close();
  never.door.close();
  never.door.wake();
  expect(never.workers).toHaveLength(0);
});

test('an answer comes to whoever asked, in whatever order answers come', async () => {
  const { door, workers } = opened();
  const [a, b] = [door.ask('boosts', { sound: 'a' }), door.ask('boosts', { sound: 'b' })];
  workers[0]?.answer(1, ['second']);
  workers[0]?.answer(0, ['first']);
  expect([await a, await b]).toEqual([['first'], ['second']]);
  door.close();
});

test('what comes ahead of an answer is told to whoever asked, and to nobody else', async () => {
  const { door, workers } = opened();
  const told: string[] = [];
  const asked = door.ask('patch', { patches: [], shown: 'a' }, (first) => told.push(first.sound));
  const other = door.ask('boosts', { sound: 'b' });
  workers[0]?.first(0, { sound: 'a' });
  workers[0]?.first(1, { sound: 'b' });
  expect(told).toEqual(['a']);
  workers[0]?.answer(1, []);
  workers[0]?.answer(0, { changed: [] });
  expect([await other, await asked]).toEqual([[], { changed: [] }]);
  door.close();
});

test.each([
  ['an error', (w: Fake) => w.onerror?.({ message: 'no memory' }), 'no memory'],
  ['an answer that cannot be read', (w: Fake) => w.onmessageerror?.(), 'could not be read'],
])(
  'a worker that dies of %s is told, and started again with the document as it stands',
  async (_, die, why) => {
    const { door, workers, restarts } = opened();
    const waiting = door.ask('boosts', { sound: 'a' });
    die(workers[0] as Fake);
    await expect(waiting).rejects.toThrow(why);
    expect(workers).toHaveLength(2);
    expect(workers[0]?.isEnded).toBe(true);
    expect(workers[1]?.asked[0]).toMatchObject({ question: 'open', ask: { rig } });
    workers[1]?.answer(0, { changed: [] });
    expect(restarts[0]?.[0]).toContain(why);
    expect(await restarts[0]?.[1]).toEqual({ changed: [] });
    const next = door.ask('boosts', { sound: 'a' });
    workers[1]?.answer(1, ['again']);
    expect(await next).toEqual(['again']);
    door.close();
  },
);

test('a worker that is gone without a word is noticed by its lock', async () => {
  let gone: () => void = () => undefined;
  const { door, workers, restarts } = opened((_, onGone) => (gone = onGone));
  const waiting = door.ask('boosts', { sound: 'a' });
  gone();
  await expect(waiting).rejects.toThrow('it stopped');
  expect([workers.length, restarts.length]).toEqual([2, 1]);
  door.close();
});

test('a question that is not answered within the limit ends the worker; none stays unanswered', async () => {
  jest.useFakeTimers();
  const { door, workers } = opened();
  const waiting = expect(door.ask('boosts', { sound: 'a' })).rejects.toThrow(`${LIMIT_S} seconds`);
  jest.advanceTimersByTime(LIMIT_S * 1000 + 1);
  await waiting;
  expect(workers).toHaveLength(2);
  door.close();
  jest.useRealTimers();
});

test('one that dies again and again is left alone, and questions are refused at once', async () => {
  const { door, workers, restarts } = opened();
  for (let i = 0; i < 6; i++) workers.at(-1)?.onerror?.({ message: 'no memory' });
  expect(workers).toHaveLength(4);
  expect(await restarts.at(-1)?.[1]).toBe('no memory');
  await expect(door.ask('boosts', { sound: 'a' })).rejects.toThrow('has ended');
});

test('a door that is closed answers nobody late, and starts nothing again', async () => {
  const { door, workers } = opened();
  const waiting = door.ask('boosts', { sound: 'a' });
  door.close();
  await expect(waiting).rejects.toThrow('was left');
  workers[0]?.onerror?.({ message: 'late' });
  expect(workers).toHaveLength(1);
});

test('a worker that owes nobody an answer is kept for the next rig, one that works is ended', async () => {
  const left: Worker[] = [];
  const leave = (w: Worker) => void left.push(w);
  const idle = opened(undefined, { leave });
  const asked = idle.door.ask('boosts', { sound: 'a' });
  idle.workers[0]?.answer(0, ['told']);
  await asked;
  idle.door.close();
  expect(left).toEqual(idle.workers);
  expect(idle.workers[0]?.isEnded).toBe(false);

  const busy = opened(undefined, { leave });
  const waiting = busy.door.ask('boosts', { sound: 'a' });
  busy.door.close();
  await expect(waiting).rejects.toThrow('was left');
  expect(busy.workers[0]?.isEnded).toBe(true);
  expect(left).toHaveLength(1);
});

test('a worker that is kept is taken once; one that died meanwhile never is', () => {
  const begun: Fake[] = [];
  const before = globalThis.Worker;
  Object.assign(globalThis, {
    Worker: class extends Fake {
      constructor() {
        super();
        begun.push(this);
      }
    },
  });
  let gone: () => void = () => undefined;
  const openAnd = () => {
    const door = openDoor({
      start: startAnalysis,
      leave: keepAnalysis,
      lost: loseAnalysis,
      document: () => rig,
      onRestart: () => undefined,
      watch: (_, onGone) => (gone = onGone),
    });
    door.wake();
    const [worker] = begun.slice(-1);
    worker?.answer(worker.asked.length - 1, { changed: [] });
    return door;
  };
  openAnd().close();
  openAnd().close();
  expect(begun).toHaveLength(1);
  gone();
  expect(begun[0]?.isEnded).toBe(true);
  openAnd().close();
  expect(begun).toHaveLength(2);
  Object.assign(globalThis, { Worker: before });
});

import type { ProposalAsked } from './messages';
import { CANCELLED, IDLE_MS, propose } from './solver';

/** A worker that does what the test says; all that were started are in `workers`. */
class Fake {
  onmessage: ((e: { data: object }) => void) | null = null;
  onerror: ((e: { message: string }) => void) | null = null;
  isEnded = false;
  readonly asked: ProposalAsked[] = [];
  constructor() {
    workers.push(this);
  }
  postMessage = (asked: ProposalAsked) => void this.asked.push(asked);
  terminate = () => void (this.isEnded = true);
  say = (data: object) => this.onmessage?.({ data });
}
const workers: Fake[] = [];

const rig = { id: 'r' } as never;
const join = (answers: readonly object[]) => Object.assign({}, ...answers) as never;
/** Fixes tried in so many pieces, on a machine of so many processors; the workers listen. */
function tried(pieces: number, processors: number) {
  Object.defineProperty(navigator, 'hardwareConcurrency', {
    value: processors,
    configurable: true,
  });
  const told: number[] = [];
  const work = propose('trials', { rig }, (share) => told.push(share), { pieces, join });
  workers.forEach((w) => w.say({ listens: true }));
  return { ...work, told };
}

const before = Object.getOwnPropertyDescriptors(globalThis);
beforeEach(() => {
  jest.useFakeTimers();
  workers.length = 0;
  Object.assign(globalThis, { Worker: Fake });
  Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });
});
afterEach(() => {
  // Nobody waits any longer.
  jest.advanceTimersByTime(IDLE_MS);
  jest.useRealTimers();
});
afterAll(() => {
  for (const name of ['Worker', 'navigator']) {
    Reflect.deleteProperty(globalThis, name);
    const was = before[name as keyof typeof before];
    if (was) Object.defineProperty(globalThis, name, was);
  }
});

test.each([
  [3, 8, 1],
  [16, 8, 2],
  [100, 8, 4],
  [100, 2, 2],
  [100, 0, 1],
])('%d pieces on %d processors are done by %d workers', (pieces, processors, expected) => {
  tried(pieces, processors).answer.catch(() => undefined);
  expect(workers.map((w) => w.asked[0]?.share)).toEqual(
    Array.from({ length: expected }, (_, part) => ({ part, of: expected })),
  );
});

test('answers become one; how far it is, is how far all are together', async () => {
  const { answer, told } = tried(16, 2);
  workers[0]!.say({ id: 0, share: 0.5, words: 'a' });
  workers[1]!.say({ id: 0, share: 1, words: 'b' });
  expect(told).toEqual([0.25, 0.75]);
  workers[1]!.say({ id: 0, answer: { b: [] } });
  workers[0]!.say({ id: 0, answer: { a: [] } });
  expect(await answer).toEqual({ a: [], b: [] });
  expect(workers.every((w) => !w.isEnded)).toBe(true);
});

test('a worker that is done waits for more work, once it says that it listens; then its time is over', async () => {
  const first = tried(3, 2);
  workers[0]!.say({ id: 0, answer: { a: [] } });
  await first.answer;
  first.cancel();
  const second = tried(3, 2);
  expect(workers).toHaveLength(1);
  expect(workers[0]!.asked.map((a) => Object.keys(a)[0])).toEqual(['id', 'wakes', 'id']);
  workers[0]!.say({ id: 0, answer: { b: [] } });
  expect(await second.answer).toEqual({ b: [] });
  expect(workers[0]!.isEnded).toBe(false);
  jest.advanceTimersByTime(IDLE_MS);
  expect(workers[0]!.isEnded).toBe(true);
  void propose('trials', { rig }, () => undefined);
  expect(workers).toHaveLength(2);
});

test('a worker that does not wake, or died while it waited, is not waited for', async () => {
  const first = tried(3, 2);
  workers[0]!.say({ id: 0, answer: {} });
  await first.answer;
  const second = propose('trials', { rig }, () => undefined);
  jest.advanceTimersByTime(30_000);
  expect(workers.map((w) => w.isEnded)).toEqual([true, false]);
  workers[1]!.say({ listens: true });
  workers[1]!.say({ id: 0, answer: { b: [] } });
  expect(await second.answer).toEqual({ b: [] });
  workers[1]!.onerror?.({ message: 'no memory' });
  void propose('trials', { rig }, () => undefined);
  expect(workers).toHaveLength(3);
});

test('what one cannot do ends the others, and is told', async () => {
  const { answer } = tried(16, 2);
  workers[1]!.say({ id: 0, error: 'no room' });
  await expect(answer).rejects.toThrow('no room');
  expect(workers.every((w) => w.isEnded)).toBe(true);
});

test('who stops it stops all of them', async () => {
  const { answer, cancel } = tried(100, 4);
  cancel();
  await expect(answer).rejects.toThrow(CANCELLED);
  expect(workers.map((w) => w.isEnded)).toEqual([true, true, true, true]);
});

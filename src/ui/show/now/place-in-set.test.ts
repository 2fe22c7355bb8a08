import { touringRig } from '../../../core/demo';
import { callPlace } from './place-in-set';
import { stopsOf } from './stops';

const [set] = touringRig.sets!;
const key = `yantrel place ${touringRig.id} ${set!.id}`;
let kept: Map<string, string>;
beforeEach(() => {
  kept = new Map();
  Object.assign(globalThis, {
    localStorage: {
      getItem: (k: string) => kept.get(k) ?? null,
      setItem: (k: string, v: string) => void kept.set(k, v),
    },
  });
});

test('the n-th section that a stand-in calls is the n-th that is played, gaps not counted', () => {
  const stops = stopsOf(touringRig, set!);
  const played = stops.flatMap((s, at) => (s.section ? [at] : []));
  for (const [n, at] of played.entries()) {
    callPlace(touringRig, set!.id, n);
    expect(Number(kept.get(key))).toBe(at);
    expect(stops[at]!.section).toBeDefined();
  }
});

test('beyond the end, and without a set, nothing is moved', () => {
  callPlace(touringRig, set!.id, 10_000);
  callPlace(touringRig, null, 0);
  callPlace(touringRig, 'no such set', 0);
  expect(kept.size).toBe(0);
});

test('a browser that keeps nothing goes on', () => {
  Object.assign(globalThis, {
    localStorage: {
      setItem: () => {
        throw new Error('full');
      },
    },
  });
  expect(() => callPlace(touringRig, set!.id, 1)).not.toThrow();
});

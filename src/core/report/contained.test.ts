import { touringRig } from '../demo';
import { PROMISE_CHECKS, PromiseChecker, type PromiseCheck } from '../promises';
import type { PromiseType, Rig, RigPromise } from '../rig/schema';
import { chainOf } from '../testing/rigs';
import { CHECKS, type Checks } from './checks';
import { Analyser } from './report';

const rig = chainOf(['guitar-single-coil', 'drive-low', 'console-input'], 3);
const hole = () => {
  throw new TypeError('a hole');
};

/** Everything as it is, but for one check that throws. */
function withHole(group: keyof Checks, name: string): Checks {
  const broken = group === 'sound' ? hole : { reads: CHECKS[group][name]?.reads ?? [], look: hole };
  return { ...CHECKS, [group]: { ...CHECKS[group], [name]: broken } };
}

const everyCheck = (['sound', 'control', 'build'] as const).flatMap((group) =>
  Object.keys(CHECKS[group]).map((name) => [group, name] as const),
);

test.each(everyCheck)(
  'where the check of %s "%s" throws, one finding says so and the others stand',
  (group, name) => {
    const isFirst = everyCheck.find(([g]) => g === group)?.[1] === name;
    for (const some of isFirst ? [rig, touringRig] : [rig]) {
      const told: string[] = [];
      const whole = new Analyser().analyse(some);
      const report = new Analyser((check) => told.push(check), withHole(group, name)).analyse(some);
      const failed = report.findings.filter((f) => f.rule === 'check-failed');
      expect(failed.map((f) => f.what)).toEqual([
        `This check failed on ${name}; the others stand.`,
      ]);
      expect(failed[0]?.why).toContain('a hole');
      expect(new Set(told)).toEqual(new Set([name]));
      const others = report.findings.filter((f) => f.rule !== 'check-failed');
      const without = new Analyser(undefined, {
        ...CHECKS,
        [group]: { ...CHECKS[group], [name]: { reads: [], look: () => [] } },
        ...(group === 'sound' && { sound: { ...CHECKS.sound, [name]: () => [] } }),
      }).analyse(some);
      expect(others).toEqual(without.findings);
      expect(report.sounds.map((s) => s.destinations)).toEqual(
        whole.sounds.map((s) => s.destinations),
      );
    }
  },
);

const promiseOf: { [T in PromiseType]: RigPromise } = {
  hears: { id: 'p', type: 'hears', destination: 'd2', source: 'd0' },
  'never-hears': { id: 'p', type: 'never-hears', destination: 'd2', source: 'd0' },
  'moves-only': {
    id: 'p',
    type: 'moves-only',
    device: 'd1',
    setting: 'drive',
    destinations: ['d2'],
  },
  'control-moves-only': { id: 'p', type: 'control-moves-only', control: 'c', destinations: ['d2'] },
  stereo: { id: 'p', type: 'stereo', destination: 'd2' },
  'levels-within': { id: 'p', type: 'levels-within', destination: 'd2', db: 3 },
  'tuner-hears': { id: 'p', type: 'tuner-hears', source: 'd0' },
  'muted-silent': { id: 'p', type: 'muted-silent', sounds: ['s1'] },
  'tails-survive': { id: 'p', type: 'tails-survive', from: 's1', to: 's1' },
  'one-press': { id: 'p', type: 'one-press', from: 's1', to: 's1' },
  'no-tube-unloaded': { id: 'p', type: 'no-tube-unloaded' },
  'noise-under': { id: 'p', type: 'noise-under', destination: 'd2', db: 20 },
  'latency-under': { id: 'p', type: 'latency-under', destination: 'd2', ms: 10 },
  survives: { id: 'p', type: 'survives', device: 'd1', destination: 'd2', actions: 2 },
};

test.each(Object.keys(promiseOf) as PromiseType[])(
  'where the check of the promise "%s" throws, that promise is not kept and the others stand',
  (type) => {
    const other: RigPromise = { id: 'q', type: 'hears', destination: 'd2', source: 'd0' };
    const promised: Rig = { ...rig, promises: [promiseOf[type], other] };
    const { sounds } = new Analyser().analyse(promised);
    const broken: { [T in PromiseType]: PromiseCheck<T> } = {
      ...PROMISE_CHECKS,
      [type]: 'inSound' in PROMISE_CHECKS[type] ? { inSound: hole } : { over: hole },
    };
    const told: string[] = [];
    const results = new PromiseChecker(broken).check(promised, sounds, (check) => told.push(check));
    expect(results[0]).toMatchObject({ id: 'p', kept: false, failed: true });
    expect(results[0]?.breaches[0]?.why).toMatch(/cannot be told.*a hole.*the others stand/);
    expect(told[0]).toContain('the promise');
    if (type !== 'hears') expect(results[1]).toMatchObject({ id: 'q', kept: true });
  },
);

test('a sound whose figures cannot be worked out is one finding; the other sounds have theirs', () => {
  const two = chainOf(['guitar-single-coil', 'drive-low', 'console-input'], 3, [
    { id: 'a', name: 'A', states: {} },
    { id: 'b', name: 'B', states: { d1: { engaged: true } } },
  ]);
  // A state that throws when it is read stands for whatever may be wrong in one sound.
  const [a, b] = two.sounds;
  const spoiled = Object.defineProperty({ ...b!.states }, 'd1', { enumerable: true, get: hole });
  const report = new Analyser(undefined, { ...CHECKS, control: {}, build: {} }).analyse({
    ...two,
    sounds: [a!, { ...b!, states: spoiled }],
  });
  expect(report.sounds[0]?.destinations[0]?.levelDbu).not.toBeNull();
  expect(report.sounds[1]?.destinations).toEqual([]);
  const failed = report.findings.filter((f) => f.rule === 'check-failed').map((f) => f.what);
  expect(failed.join()).toContain('figures of B');
});

import fc from 'fast-check';
import { DEMO_RIGS, touringRig } from '../demo';
import { evidenceOf, figuresIn } from '../analysis';
import { effectiveRig } from '../control/effective';
import type { Rig, RigPromise } from '../rig/schema';
import { kindOf } from '../kinds';
import { showRig } from '../testing/show-rigs';
import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import { PromiseChecker, promiseRemarks, rescue } from '.';

const results = (written: Rig) => {
  const rig = effectiveRig(written);
  return new PromiseChecker().check(
    rig,
    rig.sounds.map((s) => figuresIn(evidenceOf(rig, s))),
  );
};

test('promises are kept and broken as they were, in the same words', () => {
  const now: Record<string, string> = {};
  for (const { name, rig } of variants(2, 8)) {
    const found = results(rig);
    now[name] =
      `${found.filter((r) => r.kept).length} kept ${digest([found, promiseRemarks(found)])}`;
  }
  expect(now).toMatchSnapshot();
}, 120_000);

test('every type of promise, about each destination, says what it said', () => {
  const rig = { ...touringRig, sounds: touringRig.sounds.slice(0, 4) };
  const [a, b] = rig.sounds.map((s) => s.id);
  const ends = ['house', 'ears', 'cab', 'deckcab', 'wide'];
  const promises = ends.flatMap((destination, i): RigPromise[] => [
    { id: `h${i}`, type: 'hears', destination, source: 'steel' },
    { id: `n${i}`, type: 'never-hears', destination, source: 'bari' },
    { id: `s${i}`, type: 'stereo', destination },
    { id: `l${i}`, type: 'levels-within', destination, db: 1, solos: [b ?? ''], soloDb: 3 },
    { id: `o${i}`, type: 'noise-under', destination, db: 40 },
    { id: `t${i}`, type: 'latency-under', destination, ms: 6 },
    { id: `d${i}`, type: 'survives', device: 'comp', destination, actions: 0 },
  ]);
  const more: RigPromise[] = [
    { id: 't', type: 'tuner-hears', source: 'steel' },
    { id: 'm', type: 'muted-silent', sounds: [a ?? '', b ?? ''] },
    { id: 'a', type: 'tails-survive', from: a ?? '', to: b ?? '' },
    { id: 'p', type: 'one-press', from: a ?? '', to: b ?? '' },
    { id: 'u', type: 'no-tube-unloaded' },
    { id: 'g', type: 'hears', destination: 'nobody', source: 'steel' },
    { id: 'v', type: 'moves-only', device: 'kiln', setting: 'drive', destinations: ['house'] },
  ];
  const found = results({ ...rig, promises: [...promises, ...more] });
  expect(
    found.map((r) => `${r.id} ${r.kept ? 'kept' : 'broken'} ${r.sounds} ${digest(r)}`),
  ).toMatchSnapshot();
});

test('the way back when a device dies is the one it was', () => {
  const now: Record<string, string> = {};
  for (const rig of DEMO_RIGS)
    for (const device of rig.devices.filter((_, i) => i % 3 === 0)) {
      const [sound] = rig.sounds;
      if (sound) now[`${rig.id} ${device.id}`] = digest(rescue(rig, sound, device.id, 'house'));
    }
  expect(now).toMatchSnapshot();
}, 120_000);

test('whatever rig stands on a stage: what is promised of it, and every way back, is what it was', () => {
  const now = fc.sample(showRig, { numRuns: 16, seed: 23 }).map((rig) => {
    const ends = rig.devices.filter((d) => kindOf(d.kind).destination).map((d) => d.id);
    const promises = ends.flatMap((destination, i): RigPromise[] => [
      { id: `h${i}`, type: 'hears', destination, source: 'g' },
      { id: `n${i}`, type: 'never-hears', destination, source: 'p0' },
      { id: `o${i}`, type: 'noise-under', destination, db: 60 },
      { id: `t${i}`, type: 'latency-under', destination, ms: 1 },
      ...rig.devices.map((d, k): RigPromise => ({
        id: `s${i}-${k}`,
        type: 'survives',
        device: d.id,
        destination,
        actions: k % 2,
      })),
      ...rig.devices.flatMap((d): RigPromise[] =>
        kindOf(d.kind)
          .parameters.slice(0, 1)
          .map((p) => ({
            id: `m${i}-${d.id}`,
            type: 'moves-only' as const,
            device: d.id,
            setting: p.id,
            destinations: [destination],
          })),
      ),
    ]);
    const found = results({ ...rig, promises });
    const [sound] = rig.sounds;
    const back = rig.devices.flatMap((d) =>
      ends.map((end) => sound && rescue(rig, sound, d.id, end)),
    );
    return `${found.filter((r) => r.kept).length} of ${found.length} kept ${digest(found)} ${digest(back)}`;
  });
  expect(now).toMatchSnapshot();
}, 120_000);

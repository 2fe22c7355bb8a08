import fc from 'fast-check';
import { brokenRig, DEMO_RIGS, touringRig } from '../demo';
import { applyEdits, type Rig } from '../rig';
import { anyRig } from '../testing/any-rig';
import { HAND_WIRED } from '../testing/hand-wired';
import { valueOf } from '../testing/value-of';
import { CHECKS, type Checks } from './checks';
import { analyse, Analyser } from './report';

/** A rig with other names for all of its devices. */
const called = (rig: Rig, name: (id: string) => string): Rig => ({
  ...rig,
  devices: rig.devices.map((d) => ({ ...d, name: name(d.id) })),
});

/** Every check there is, and how often any of them was asked. */
function counted(): { checks: Checks; asked: () => number } {
  let asked = 0;
  const counting =
    <A extends unknown[], R>(look: (...args: A) => R) =>
    (...args: A): R => {
      asked++;
      return look(...args);
    };
  const all = <T>(checks: Record<string, T>, of: (check: T) => T) =>
    Object.fromEntries(Object.entries(checks).map(([name, check]) => [name, of(check)]));
  return {
    asked: () => asked,
    checks: {
      sound: all(CHECKS.sound, counting),
      control: all(CHECKS.control, (c) => ({ ...c, look: counting(c.look) })),
      build: all(CHECKS.build, (c) => ({ ...c, look: counting(c.look) })),
    },
  };
}

test('another name is told wherever the device is, and asks no check again', () => {
  const { checks, asked } = counted();
  const analyser = new Analyser(undefined, checks);
  const before = analyser.analyse(brokenRig);
  const first = asked();
  expect(first).toBeGreaterThan(100);
  const { rig } = valueOf(
    applyEdits(brokenRig, [{ edit: 'setDevice', device: 'ember', name: 'Cinder 9' }]),
  );
  const after = analyser.analyse(rig);
  expect(asked()).toBe(first);
  expect(after).toEqual(new Analyser().analyse(structuredClone(rig)));
  const was = brokenRig.devices.find((d) => d.id === 'ember')!.name;
  const told = (of: typeof before) => JSON.stringify(of.findings.map((f) => [f.what, f.why]));
  expect(told(before)).toContain(was);
  expect(told(after)).toContain('Cinder 9');
  expect(told(after)).not.toContain(was);
});

test('a sound in which nobody is told by that name stays the same object', () => {
  const analyser = new Analyser();
  const before = analyser.analyse(touringRig);
  const named = before.sounds.map((s) => JSON.stringify(s).includes('"name":"House'));
  expect(named).toContain(true);
  const drive = valueOf(
    applyEdits(touringRig, [{ edit: 'setDevice', device: 'kiln', name: 'Other' }]),
  ).rig;
  analyser.analyse(drive).sounds.forEach((s, i) => expect(s).toBe(before.sounds[i]));
});

test('whatever devices are called, of each is told what is told of it under its own name', () => {
  // What a hand may write, and what a file may hold besides.
  const names = fc.oneof(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 40 }), fc.string());
  for (const rig of DEMO_RIGS) {
    const plain = JSON.stringify(new Analyser().analyse(called(rig, (id) => `<${id}>`)));
    fc.assert(
      fc.property(fc.array(names, { minLength: 8, maxLength: 8 }), (list) => {
        const name = (id: string) => `${list[id.length % 8]} ${id}`;
        const odd = JSON.stringify(new Analyser().analyse(called(rig, name)));
        const ids = rig.devices.map((d) => d.id);
        const put = plain.replace(/<([a-z0-9-]+)>/g, (all, id: string) =>
          ids.includes(id) ? JSON.stringify(name(id)).slice(1, -1) : all,
        );
        expect(odd).toBe(put);
      }),
      { numRuns: 4 },
    );
  }
});

test('no placeholder is left in what is told of any rig', () => {
  const left = (rig: Rig) =>
    JSON.stringify(analyse(rig)).match(/.{0,40}[\uE000\uE001].{0,40}/)?.[0];
  for (const rig of [...DEMO_RIGS, ...Object.values(HAND_WIRED)])
    expect([rig.name, left(rig)]).toEqual([rig.name, undefined]);
  fc.assert(
    fc.property(anyRig, (rig) => {
      expect(left(rig)).toBeUndefined();
    }),
    { numRuns: 30 },
  );
});

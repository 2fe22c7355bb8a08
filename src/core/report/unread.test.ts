import fc from 'fast-check';
import { budgetOf, pressedDevices } from '../build';
import { DEMO_RIGS } from '../demo';
import { kindOf } from '../kinds';
import { between } from '../testing/between';
import { cases } from '../testing/cases';
import { HAND_WIRED } from '../testing/hand-wired';
import type { Rig } from '../rig';
import { CHECKS, type RigCheck } from './checks';

/** The rig with limits that it is over: whatever makes it heavier or lighter, dearer or longer to build is told. */
const overLimits = (rig: Rig): Rig => ({
  ...rig,
  limits: Object.fromEntries(budgetOf(rig).map((b) => [b.id, b.value / 2])),
});

const RIGS: [string, Rig][] = [
  ...DEMO_RIGS.map((r): [string, Rig] => [r.name, overLimits(r)]),
  ...Object.entries(HAND_WIRED).map(([name, rig]): [string, Rig] => [name, overLimits(rig)]),
];

/** Chance: of numbers as such most would be next to nothing, all knobs shut and all leads short. */
const EVENLY = fc.infiniteStream(between(0, 1));

/** The rig with every knob, every length and every place on a board anew, each as chance has it. */
function turned(rig: Rig, chance: () => number): Rig {
  return {
    ...rig,
    leads: rig.leads.map((l) => ({ ...l, metres: 0.2 + 9 * chance() })),
    devices: rig.devices.map((d) => ({
      ...d,
      ...(d.at && { at: { ...d.at, x: d.at.x + Math.round(500 * chance()) } }),
    })),
    sounds: rig.sounds.map((s) => ({
      ...s,
      states: Object.fromEntries(
        rig.devices.map((d) => {
          const knobs = kindOf(d.kind).parameters.filter((p) => p.type === 'knob');
          const settings = Object.fromEntries(knobs.map((p) => [p.id, Math.round(10 * chance())]));
          const was = s.states[d.id];
          return [d.id, { ...was, settings: { ...was?.settings, ...settings } }];
        }),
      ),
    })),
  };
}

/** Of a rig that differs, each thing that a check calls the same; all else as it was. */
function sameTo({ isSame }: RigCheck, was: Rig, now: Rig): Rig {
  let rig = was;
  const take = (part: keyof Rig, next: Rig) => {
    if (isSame?.[part]?.(was, next)) rig = next;
  };
  now.leads.forEach((l, i) => take('leads', { ...rig, leads: rig.leads.with(i, l) }));
  now.devices.forEach((d, i) => take('devices', { ...rig, devices: rig.devices.with(i, d) }));
  now.sounds.forEach((s, i) => {
    for (const [device, state] of Object.entries(s.states)) {
      const before = rig.sounds[i]!;
      const sound = { ...before, states: { ...before.states, [device]: state } };
      take('sounds', { ...rig, sounds: rig.sounds.with(i, sound) });
    }
  });
  return rig;
}

test.each(RIGS)(
  'what a check does not read of %s may be anything: it says the same, in the same words',
  (_, rig) => {
    const checks = Object.entries({ ...CHECKS.control, ...CHECKS.build });
    let differed = 0;
    fc.assert(
      fc.property(EVENLY, (stream) => {
        const now = turned(rig, () => stream.next().value as number);
        for (const [name, check] of checks) {
          const same = sameTo(check, rig, now);
          if (JSON.stringify(same) !== JSON.stringify(rig)) differed++;
          for (const part of check.reads)
            expect(rig[part] === same[part] || check.isSame?.[part]?.(rig, same)).toBe(true);
          expect({ name, said: check.look(same) }).toEqual({ name, said: check.look(rig) });
        }
      }),
      { numRuns: cases(1, 8) },
    );
    expect(differed).toBeGreaterThan(0);
  },
);

test.each(DEMO_RIGS.map((r) => [r.name, r] as const))(
  'which devices of %s a foot goes to hangs on no knob that a hand turns',
  (_, rig) => {
    fc.assert(
      fc.property(EVENLY, (stream) => {
        pressedDevices(rig);
        const now = turned(rig, () => stream.next().value as number);
        const kept = pressedDevices(now);
        // Asked of a rig that differs in its leads, nothing is kept.
        pressedDevices({ ...rig, leads: [] });
        expect([...pressedDevices(structuredClone(now))].sort()).toEqual([...kept].sort());
      }),
      { numRuns: cases(2, 10) },
    );
  },
);

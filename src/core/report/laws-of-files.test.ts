import fc from 'fast-check';
import { DEMO_RIGS } from '../demo';
import { isControlJack, kindOf } from '../kinds';
import type { Device, Lead, Rig } from '../rig';
import { anyRig } from '../testing/any-rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { analyse } from './report';
import { cases } from '../testing/cases';

/** Numbers to nine places: sums taken in another order differ in the last. */
const rounded = (value: unknown): unknown =>
  typeof value === 'number'
    ? Number(value.toPrecision(9))
    : Array.isArray(value)
      ? value.map(rounded)
      : value !== null && typeof value === 'object'
        ? Object.fromEntries(Object.entries(value).map(([k, x]) => [k, rounded(x)]))
        : value;

/** A report without the order of its lists; leads are told by their ends, not by their numbers. */
function told(rig: Rig, without: readonly string[] = []): Record<string, unknown> {
  const { sounds, findings, promises } = analyse(rig);
  const isMeant = (subjects: readonly string[]) => !subjects.some((s) => without.includes(s));
  return {
    figures: sounds.flatMap((s) =>
      sorted(
        s.destinations
          .filter((d) => isMeant([d.device]))
          .map(({ route, sources, wideners, ...figures }) => [
            s.sound,
            rounded(figures),
            [...sources].sort(),
            sorted(wideners),
            route.length,
          ]),
      ),
    ),
    speakers: sounds.flatMap((s) =>
      sorted(s.speakers.map((l) => rounded([l.amp, l.loadOhms, l.lossDb]))),
    ),
    circles: sounds.flatMap((s) =>
      sorted(s.cycles.map((c) => rounded([[...c.devices].sort(), c.gainDb]))),
    ),
    findings: findings
      .filter((f) => isMeant(f.subjects))
      .map((f) =>
        [
          ...[f.rule, f.severity, [...f.subjects].sort()],
          ...[f.what.replace(/\bW\d+\b/g, 'W'), [...f.sounds].sort()],
        ].join(),
      )
      .sort(),
    promises: promises.map((p) => [p.id, p.kept].join()).sort(),
  };
}

/** In an order of their contents. */
const sorted = <T>(list: readonly T[]): T[] =>
  [...list].sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1));

const shuffledBy = <T>(list: readonly T[], dice: readonly number[]): T[] =>
  list
    .map((entry, i) => ({ entry, at: (dice[i % dice.length]! * (i + 7)) % 1009 }))
    .sort((a, b) => a.at - b.at)
    .map((x) => x.entry);
const shuffled = (rig: Rig, dice: readonly number[]): Rig => ({
  ...rig,
  devices: shuffledBy(rig.devices, dice),
  leads: shuffledBy(rig.leads, [...dice].reverse()),
});
const someDice = fc.array(fc.integer({ min: 1, max: 1008 }), { minLength: 11, maxLength: 11 });

test.each(DEMO_RIGS.map((rig) => [rig.name, rig] as const))(
  '%s: the order of devices and leads in a file means nothing',
  (_, rig) => {
    const before = told(rig);
    for (const dice of fc.sample(someDice, { numRuns: 2, seed: 3 }))
      expect(told(shuffled(rig, dice))).toEqual(before);
  },
);

test('nor does it in any rig, with circles too', () => {
  fc.assert(
    fc.property(anyRig, someDice, (rig, dice) =>
      expect(told(shuffled(rig, dice))).toEqual(told(rig)),
    ),
    { numRuns: cases(80, 250), seed: 11 },
  );
});

test('renamed throughout, only names change', () => {
  const renamed = (rig: Rig): Rig => ({
    ...rig,
    devices: rig.devices.map((d) => ({ ...d, name: `X${d.name}X` })),
  });
  const plain = (rig: Rig) => {
    const { figures, findings, ...rest } = told(rig);
    const known = rig.devices.map((d) => d.name).sort((a, b) => b.length - a.length);
    const names = (text: string) => known.reduce((t, name) => t.replaceAll(name, '·'), text);
    return {
      ...rest,
      figures: names(JSON.stringify(figures)),
      findings: (findings as string[]).map(names).sort(),
    };
  };
  fc.assert(
    fc.property(anyRig, (rig) => expect(plain(renamed(rig))).toEqual(plain(rig))),
    { numRuns: cases(25, 60), seed: 5 },
  );
});

test('a device that is joined to nothing changes no figure, and is one finding at most', () => {
  for (const rig of DEMO_RIGS) {
    const more = device('unjoined', 'delay', 'Nobody joined it', { place: 'floor' });
    const before = told(rig);
    const after = told({ ...rig, devices: [...rig.devices, more] });
    expect({ ...after, findings: [] }).toEqual({ ...before, findings: [] });
    const fresh = (after.findings as string[]).filter(
      (f) => !(before.findings as string[]).includes(f),
    );
    expect(fresh.length).toBeLessThanOrEqual(1);
  }
});

/** Audio leads of metal that run between two devices of the rig, not into hosts or speakers. */
const isPlain = (rig: Rig, l: Lead): boolean => {
  const ends = [l.from, l.to].map((end) => {
    const kind = kindOf(rig.devices.find((d) => d.id === end.device)!.kind);
    return kind.jacks.find((j) => j.id === end.jack)!;
  });
  return (
    l.type === 'instrument' &&
    !l.conductor &&
    ends.every((j) => j.signal === 'audio' && !isControlJack(j) && !j.stereo && !j.insert)
  );
};
/** A lead split in two of the same capacitance in all, with a true-bypassed box between them that is off. */
function boxed(rig: Rig, l: Lead, box: Device): Rig {
  const half = l.metres / 2;
  return {
    ...rig,
    devices: [...rig.devices, box],
    leads: [
      ...rig.leads.filter((x) => x !== l),
      { ...l, metres: half, to: { device: box.id, jack: 'in' } },
      { ...l, id: 'boxed', metres: half, from: { device: box.id, jack: 'out' } },
    ],
  };
}

test('a true-bypassed box that is off, on a lead split in two, changes no figure', () => {
  const box = device('box', 'drive-low', 'Box');
  for (const rig of DEMO_RIGS.slice(0, 2)) {
    const first = { ...rig, sounds: rig.sounds.slice(0, 1) };
    const before = told(first);
    for (const l of first.leads.filter((x) => isPlain(first, x)).slice(0, 6)) {
      const after = told(boxed(first, l, box));
      const figures = (t: Record<string, unknown>) =>
        (t.figures as unknown[][]).map(
          (f) => f[1] as { levelDbu: unknown; thdPercent: unknown; latencyMs: unknown },
        );
      expect(figures(after).map((f) => [f.levelDbu, f.thdPercent, f.latencyMs])).toEqual(
        figures(before).map((f) => [f.levelDbu, f.thdPercent, f.latencyMs]),
      );
    }
  }
});

/** A fork whose second output comes back into the mixer before it, at a level of the mixer's. */
const circle = (levelB: number) =>
  rigOf(
    [
      device('g', 'guitar-active', 'G'),
      device('m', 'mixer-line', 'Mix', { settings: { levelB } }),
      device('f', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
      device('v', 'boost', 'Back', { settings: { gain: 1 } }),
      device('desk', 'console-input', 'Desk', { settings: { input: 'line' } }),
    ],
    [
      lead('1', 'g.out', 'm.a', 1),
      lead('2', 'm.out', 'f.in', 1),
      lead('3', 'f.a', 'desk.in', 1),
      lead('4', 'f.b', 'v.in', 1),
      lead('5', 'v.out', 'm.b', 1),
    ],
    [sound('s1', 'One', ['v'])],
  );

test('a circle that rests has the level of its geometric sum; one that howls is told', () => {
  let rested = 0;
  for (const level of [0.5, 2, 4, 6, 8, 10]) {
    const rig = circle(level);
    const report = analyse(rig);
    const gainDb = report.sounds[0]!.cycles[0]?.gainDb ?? -Infinity;
    const at = (r: Rig) => analyse(r).sounds[0]!.destinations[0]!.levelDbu!.soft;
    const open = at({ ...rig, leads: rig.leads.filter((l) => l.id !== '5') });
    if (gainDb >= 0) expect(report.findings.map((f) => f.rule)).toContain('howl');
    else if (gainDb < -1) {
      rested++;
      expect(at(rig) - open).toBeCloseTo(-20 * Math.log10(1 - 10 ** (gainDb / 20)), 1);
    }
  }
  expect(rested).toBeGreaterThan(2);
});

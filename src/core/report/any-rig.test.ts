import fc from 'fast-check';
import { placeWalk, walkView } from '../draw';
import { isControlJack, KINDS, kindOf } from '../kinds';
import { insideOf, integrityProblems, leadTypeFor, type Rig } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { analyse } from './';

/** Any rig: any kinds, any legal leads between them (circles too), any states. */
const anyRig: fc.Arbitrary<Rig> = fc
  .record({
    kinds: fc.array(fc.constantFrom(...KINDS.map((k) => k.id)), { minLength: 2, maxLength: 14 }),
    pairs: fc.array(
      fc.tuple(fc.nat(), fc.nat(), fc.nat(), fc.nat(), fc.double({ min: 0, max: 30, noNaN: true })),
      { maxLength: 24 },
    ),
    engaged: fc.array(fc.boolean(), { minLength: 28, maxLength: 28 }),
    knobs: fc.array(fc.integer({ min: 0, max: 10 }), { minLength: 14, maxLength: 14 }),
  })
  .map(({ kinds, pairs, engaged, knobs }) => {
    const devices = kinds.map((k, i) =>
      device(`d${i}`, k, `D${i}`, {
        settings: Object.fromEntries(
          kindOf(k).parameters.flatMap((p) =>
            p.type === 'knob' ? [[p.id, Math.min(p.max, Math.max(p.min, knobs[i]!))]] : [],
          ),
        ),
      }),
    );
    const host = devices.find((d) => kindOf(d.kind).hosts);
    if (host)
      for (const d of devices.slice(devices.indexOf(host) + 1))
        if (kindOf(d.kind).block) d.host = host.id;
    const bare = rigOf(devices, []);
    const taken = new Set<string>();
    const leads = pairs.flatMap(([a, b, x, y, metres], n) => {
      const [from, to] = [devices[a % devices.length]!, devices[b % devices.length]!];
      const outs = kindOf(from.kind).jacks.filter((j) => j.direction !== 'in');
      const ins = kindOf(to.kind).jacks.filter((j) => j.direction !== 'out');
      const [out, into] = [outs[x % outs.length], ins[y % ins.length]];
      if (
        !out ||
        !into ||
        (out.signal === 'air') !== (into.signal === 'air') ||
        (out.signal === 'digital') !== (into.signal === 'digital') ||
        ((isControlJack(out) || isControlJack(into)) &&
          (out.signal !== into.signal || from.host !== undefined || to.host !== undefined))
      )
        return [];
      const ends = [
        { device: from.id, jack: out.id },
        { device: to.id, jack: into.id },
      ] as const;
      if (insideOf(bare, ends[0]) !== insideOf(bare, ends[1])) return [];
      const type = leadTypeFor(bare, ...ends);
      const keys = [`${from.id} ${out.id}`, `${to.id} ${into.id}`];
      if (keys[0] === keys[1]) return [];
      if (type !== 'inside' && ((!out.many && taken.has(keys[0]!)) || taken.has(keys[1]!)))
        return [];
      keys.forEach((k) => taken.add(k));
      return [lead(`l${n}`, `${from.id}.${out.id}`, `${to.id}.${into.id}`, metres, type)];
    });
    const states = (offset: number) =>
      Object.fromEntries(devices.map((d, i) => [d.id, { engaged: engaged[offset + i]! }]));
    return rigOf(devices, leads, [sound('a', 'A', [], states(0)), sound('b', 'B', [], states(14))]);
  });

const numbersIn = (value: unknown): number[] =>
  typeof value === 'number'
    ? [value]
    : Array.isArray(value)
      ? value.flatMap(numbersIn)
      : typeof value === 'object' && value !== null
        ? Object.values(value).flatMap(numbersIn)
        : [];

test('whatever is joined to whatever: no crash, no endless circle, no figure that is none', () => {
  fc.assert(
    fc.property(anyRig, (rig) => {
      if (integrityProblems(rig).length) return false;
      const report = analyse(rig);
      return report.sounds.every((s) => {
        const figures = numbersIn(s.destinations).concat(
          numbersIn(s.tones),
          numbersIn(
            s.stations.map((x) => [
              x.output.levelDbu,
              x.output.noiseDbu,
              x.output.peakDbu,
              x.output.lossDb,
              x.output.latencyMs,
              x.output.thdPercent,
            ]),
          ),
        );
        return figures.every((x) => Number.isFinite(x));
      });
    }),
    { numRuns: 250 },
  );
});

test('distortion stays under that of a square wave, and no resonance lifts 1 kHz by more than 12 dB', () => {
  fc.assert(
    fc.property(anyRig, (rig) =>
      analyse(rig).sounds.every((s) =>
        s.stations.every((x) => {
          const { input, output } = x;
          if (
            output.thdPercent &&
            Math.max(output.thdPercent.soft, output.thdPercent.normal, output.thdPercent.hard) > 49
          )
            return false;
          return (
            input?.lossDb === null ||
            input === null ||
            input.sourceOhms === null ||
            x.ins.length === 0 ||
            input.lossDb < 12
          );
        }),
      ),
    ),
    { numRuns: 150 },
  );
});

test('the walk can be drawn: every strip has a place of its own', () => {
  fc.assert(
    fc.property(anyRig, (rig) =>
      analyse(rig).sounds.every((s) => {
        const g = placeWalk(
          walkView(rig, s, {
            quiet: true,
            folded: new Set(rig.devices.filter((d) => kindOf(d.kind).hosts).map((d) => d.id)),
          }),
          rig.leads,
          6,
        );
        return (
          new Set(g.stations.map((p) => `${p.x} ${p.y}`)).size === g.stations.length &&
          g.ways.every((w) => !w.d.includes('NaN'))
        );
      }),
    ),
    { numRuns: 150 },
  );
});

test('what one sound says does not depend on the others, nor on the order of devices and leads', () => {
  fc.assert(
    fc.property(anyRig, (rig) => {
      const one = analyse({ ...rig, sounds: [rig.sounds[1]!] }).sounds[0]!;
      const both = analyse(rig).sounds[1]!;
      const turned = analyse({ ...rig, leads: [...rig.leads].reverse() }).sounds[1]!;
      if (JSON.stringify(one.destinations) !== JSON.stringify(both.destinations)) return false;
      const hasCircle =
        both.remarks.some((r) => r.rule === 'howl') || both.steps.some((x) => x.back);
      return (
        hasCircle ||
        both.destinations.every(
          (d, i) =>
            Math.abs(
              (d.levelDbu?.normal ?? -200) - (turned.destinations[i]!.levelDbu?.normal ?? -200),
            ) < 1e-6,
        )
      );
    }),
    { numRuns: 120 },
  );
});

import fc from 'fast-check';
import { placeWalk, walkView } from '../draw';
import { kindOf } from '../kinds';
import { integrityProblems } from '../rig';
import { anyRig } from '../testing/any-rig';
import { analyse } from './';
import { cases } from '../testing/cases';

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
    { numRuns: cases(80, 250) },
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
    { numRuns: cases(50, 150) },
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
    { numRuns: cases(50, 150) },
  );
});

test('what one sound says does not depend on the others, nor on the order of devices and leads', () => {
  fc.assert(
    fc.property(anyRig, (rig) => {
      const one = analyse({ ...rig, sounds: [rig.sounds[1]!] }).sounds[0]!;
      const report = analyse(rig);
      const both = report.sounds[1]!;
      const turned = analyse({ ...rig, leads: [...rig.leads].reverse() }).sounds[1]!;
      if (JSON.stringify(one.destinations) !== JSON.stringify(both.destinations)) return false;
      const hasCircle =
        report.findings.some((f) => f.rule === 'howl' && f.sounds.includes(both.sound)) ||
        both.steps.some((x) => x.back);
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
    { numRuns: cases(40, 120) },
  );
});

import fc from 'fast-check';
import { device, lead, rigOf } from '../testing/rigs';
import type { Device } from '../rig';
import { FixTrial } from '../report';
import { analyse } from '../report/report';
import { leadOhmsPerMetre, speakerLeadLossDb, type SpeakerLine } from './speakers';

const sheet = (values: Record<string, number>): Partial<Device> => ({
  figures: Object.fromEntries(
    Object.entries(values).map(([id, value]) => [id, { value, from: 'sheet' as const }]),
  ),
});

/** A head into cabinets, each plugged into the link of the one before: parallel. */
const stack = (loads: readonly number[], tap = 8, watts = 50, rated = 300, metres = 1) =>
  rigOf(
    [
      device('g', 'guitar-active', 'G'),
      device('h', 'head-tube', 'Head', sheet({ tapOhms: tap, watts })),
      ...loads.map((ohms, i) =>
        device(`c${i}`, 'cabinet', `Cab ${i}`, sheet({ ohms, watts: rated })),
      ),
    ],
    [
      lead('1', 'g.out', 'h.in', 3),
      ...loads.map((_, i) =>
        lead(`s${i}`, i === 0 ? 'h.speaker' : `c${i - 1}.link`, `c${i}.in`, metres, 'speaker'),
      ),
    ],
  );
const line = (rig: ReturnType<typeof stack>): SpeakerLine =>
  analyse(rig).sounds[0]!.speakers.find((s) => s.amp === 'h')!;
const found = (rig: ReturnType<typeof stack>, rule: string) =>
  analyse(rig).findings.filter((f) => f.rule === rule);
const anyLoads = fc.array(fc.constantFrom(4, 8, 16), { minLength: 1, maxLength: 4 });

test('a parallel load is the reciprocal of the sum of reciprocals, under its smallest member', () => {
  fc.assert(
    fc.property(anyLoads, (loads) => {
      const z = line(stack(loads)).loadOhms!;
      expect(z).toBeCloseTo(1 / loads.reduce((s, l) => s + 1 / l, 0), 6);
      expect(z).toBeLessThanOrEqual(Math.min(...loads) + 1e-9);
    }),
    { numRuns: 20 },
  );
});

test('the shares of power add up to the rated power; the lower impedance takes more', () => {
  fc.assert(
    fc.property(anyLoads, (loads) => {
      const { loads: shares, watts } = line(stack(loads));
      expect(shares.reduce((s, x) => s + x.watts, 0)).toBeCloseTo(watts, 6);
      shares.forEach((a, i) =>
        shares.forEach((b, k) => expect(a.watts * loads[i]!).toBeCloseTo(b.watts * loads[k]!, 6)),
      );
    }),
    { numRuns: 20 },
  );
});

test.each([
  [[8], 8, undefined],
  [[16], 16, undefined],
  [[16, 16], 8, undefined],
  [[16], 8, 'caution'],
  [[8], 16, 'caution'],
  [[4], 8, 'caution'],
  [[4], 16, 'danger'],
  [[16], 4, 'danger'],
  [[8, 8, 8], 8, 'danger'],
])('cabinets of %p Ω on a tap of %d Ω: %s', (loads, tap, severity) =>
  expect(found(stack(loads, tap), 'impedance')[0]?.severity).toBe(severity),
);

test.each([
  [49, 'fault'],
  [51, 'caution'],
  [74, 'caution'],
  [76, undefined],
])('a cabinet rated %d W on 50 W: %s', (rated, severity) => {
  const about = analyse(stack([8], 8, 50, rated)).findings.filter(
    (f) => f.subjects.includes('c0') && /rated|W\b/.test(f.what),
  );
  expect(about[0]?.severity).toBe(severity);
});

test('nothing plugged in is a danger in every sound; a lead of another sort is too', () => {
  const bare = stack([]);
  expect(found(bare, 'no-load')[0]).toMatchObject({ severity: 'danger', subjects: ['h'] });
  const thin = stack([8]);
  const wrong = {
    ...thin,
    leads: thin.leads.map((l) => (l.id === 's0' ? { ...l, type: 'instrument' as const } : l)),
  };
  expect(found(wrong, 'speaker-lead')[0]).toMatchObject({ severity: 'danger' });
  expect(found(thin, 'speaker-lead')).toEqual([]);
});

test('lead loss by hand: 10 m of 1.5 mm² into 4 Ω lose half a decibel; twice the copper, about half of it', () => {
  expect(leadOhmsPerMetre(2.5)).toBeCloseTo(0.0069, 4);
  expect(leadOhmsPerMetre(1.5)).toBeCloseTo(0.0115, 4);
  expect(speakerLeadLossDb(4, 10, 1.5)).toBeCloseTo(20 * Math.log10(4 / 4.23), 3);
  expect(speakerLeadLossDb(4, 10, 3) / speakerLeadLossDb(4, 10, 1.5)).toBeCloseTo(0.5, 1);
  expect(speakerLeadLossDb(8, 0)).toBeCloseTo(0, 12);
  expect(line(stack([8], 8, 50, 300, 20)).lossDb).toBeCloseTo(speakerLeadLossDb(8, 20), 6);
});

test.each([
  [[8], 16, 8],
  [[8, 8], 8, 4],
  [[16], 4, 16],
])('loads of %p Ω on a tap of %d: the tap that matches cures it', (loads, tap, right) => {
  const rig = stack(loads, tap);
  const trial = new FixTrial(rig);
  const finding = trial.report.findings.find((f) => f.rule === 'impedance')!;
  expect(finding.fix?.words).toBe(`Set the tap of Head to ${right} Ω`);
  expect(trial.try(finding, finding.fix!)).toMatchObject({ cures: true, breaks: [] });
});

test('where no usual tap matches, none is proposed', () => {
  expect(found(stack([8, 8, 8]), 'impedance')[0]!.fix).toBeUndefined();
});

import fc from 'fast-check';
import { device, lead, rigOf } from '../testing/rigs';
import { applyEdits, type Device, type Rig } from '../rig';
import { FixTrial } from '../report';
import { analyse } from '../report/report';
import { leadOhmsPerMetre, speakerLeadLossDb, type SpeakerLine } from './speaker-lines';

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

test('the only cabinet is never taken off: without it nothing is left to bear', () => {
  for (const [ohms, tap] of [
    [8, 16],
    [16, 4],
    [3, 8],
  ] as const) {
    const ways = found(stack([ohms], tap), 'impedance').flatMap((r) => [
      r.fix,
      ...(r.others ?? []),
    ]);
    expect(ways.filter((w) => w?.edits.some((e) => e.edit === 'disconnect'))).toEqual([]);
  }
});

test('where no usual tap matches, a cabinet comes off and the tap is set to what is left', () => {
  const trial = new FixTrial(stack([8, 8, 8]));
  const finding = trial.report.findings.find((f) => f.rule === 'impedance')!;
  const ways = [finding.fix!, ...(finding.others ?? [])];
  expect(ways.map((w) => w.words)).toEqual([
    'Take Cab 2 off Head; set the tap of Head to 4 Ω',
    // The third hangs on the second.
    'Take Cab 1 and Cab 2 off Head',
  ]);
  for (const way of ways) expect(trial.try(finding, way).cures).toBe(true);
});
test('where nothing that is left would match, nothing is proposed', () => {
  const [told] = found(stack([3, 3]), 'impedance');
  expect(told!.fix).toBeUndefined();
  expect(told!.why).toContain('no tap of it matches');
});

test('whatever hangs on a head, each way out that is offered leaves a load that its tap matches', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(2, 4, 8, 16, 32), { minLength: 1, maxLength: 4 }),
      fc.constantFrom(4, 8, 16),
      (loads, tap) => {
        const rig = stack(loads, tap);
        for (const told of found(rig, 'impedance'))
          for (const way of [told.fix, ...(told.others ?? [])]) {
            if (!way) continue;
            const done = applyEdits(rig, way.edits);
            if (!done.ok) throw new Error(done.problems[0]!.what);
            expect(found(done.value.rig, 'impedance')).toEqual([]);
            expect(found(done.value.rig, 'no-load')).toEqual([]);
          }
      },
    ),
    { numRuns: 60 },
  );
});

const fixOf = (rig: Rig, rule: string) => {
  const trial = new FixTrial(rig);
  const finding = trial.report.findings.find((f) => f.rule === rule)!;
  return { finding, outcome: trial.try(finding, finding.fix!) };
};
test('a speaker output that runs into a desk goes through a load box', () => {
  const rig = rigOf(
    [
      device('g', 'guitar-humbucker', 'G'),
      device('h', 'head-tube', 'Head'),
      device('c', 'console-input', 'Desk', { settings: { input: 'line' } }),
    ],
    [lead('1', 'g.out', 'h.in', 3), lead('2', 'h.speaker', 'c.in', 5)],
  );
  const { finding, outcome } = fixOf(rig, 'speaker-into-signal');
  expect(finding).toMatchObject({ severity: 'danger' });
  expect(finding.fix!.words).toBe(
    'Put a load box of 8 Ω between, and feed Desk from its line output',
  );
  expect(outcome.cures).toBe(true);
});
test('of two amplifiers on one cabinet either can go onto a load box', () => {
  const rig = rigOf(
    [
      device('g', 'guitar-humbucker', 'G'),
      device('s', 'splitter-buffered', 'S', { settings: { select: 'both' } }),
      device('h', 'head-tube', 'Head'),
      device('i', 'head-tube', 'Other'),
      device('c', 'cabinet', 'Cab'),
    ],
    [
      lead('1', 'g.out', 's.in', 3),
      ...['h', 'i'].flatMap((amp, i) => [
        lead(`a${i}`, `s.${'ab'[i]!}`, `${amp}.in`, 3),
        lead(`b${i}`, `${amp}.speaker`, 'c.in', 1, 'speaker'),
      ]),
    ],
  );
  const { finding, outcome } = fixOf(rig, 'two-amps');
  expect([finding.fix, ...(finding.others ?? [])].map((f) => f!.words)).toEqual([
    'Take Head off the line, onto a load box of 8 Ω',
    'Take Other off the line, onto a load box of 8 Ω',
  ]);
  expect(outcome).toMatchObject({ cures: true });
});

/** A tree of cabinets in series and in parallel: its impedance by hand, and its devices and leads. */
type Tree = number | { series: [Tree, Tree] } | { parallel: [Tree, Tree] };
const handOhms = (t: Tree): number =>
  typeof t === 'number'
    ? t
    : 'series' in t
      ? handOhms(t.series[0]) + handOhms(t.series[1])
      : 1 / (1 / handOhms(t.parallel[0]) + 1 / handOhms(t.parallel[1]));
const anyTree: fc.Arbitrary<Tree> = fc.letrec<{ tree: Tree; pair: [Tree, Tree] }>((tie) => ({
  pair: fc.tuple(tie('tree'), tie('tree')),
  tree: fc.oneof(
    { maxDepth: 3, depthIdentifier: 'tree' },
    fc.constantFrom(4, 8, 16),
    tie('pair').map((series) => ({ series })),
    tie('pair').map((parallel) => ({ parallel })),
  ),
})).tree;

/** Builds a tree behind an output; a parallel pair hangs the second on the last link of the first. */
function planted(tree: Tree) {
  const devices = [device('g', 'guitar-active', 'G'), device('h', 'head-tube', 'Head')];
  const leads = [lead('1', 'g.out', 'h.in', 3)];
  let n = 0;
  const plug = (from: string, to: string) =>
    void leads.push(lead(`s${n++}`, from, to, 1, 'speaker'));
  /** Plants behind a jack; gives a jack that is in parallel with it, or none. */
  const plant = (t: Tree, from: string): string | undefined => {
    if (typeof t === 'number') {
      const id = `c${n}`;
      devices.push(device(id, 'cabinet', id, sheet({ ohms: t, watts: 1000 })));
      plug(from, `${id}.in`);
      return `${id}.link`;
    }
    if ('series' in t) {
      const id = `b${n}`;
      devices.push(device(id, 'speaker-series', id));
      plug(from, `${id}.in`);
      plant(t.series[0], `${id}.a`);
      plant(t.series[1], `${id}.b`);
      return undefined;
    }
    // A link is only on a cabinet, so one comes first where there is one.
    const [a, b] = t.parallel;
    const link = plant(a, from);
    if (link) return plant(b, link) ?? link;
    return undefined;
  };
  plant(tree, 'h.speaker');
  return rigOf(devices, leads);
}
/** Trees that leads and links can make: a parallel pair begins with a cabinet. */
const plugged = (t: Tree): boolean =>
  typeof t === 'number' ||
  ('series' in t
    ? t.series.every(plugged)
    : typeof t.parallel[0] === 'number' && plugged(t.parallel[1]));

test('any tree of series and parallel has the load by hand, whatever the order of the file', () => {
  fc.assert(
    fc.property(anyTree.filter(plugged), fc.infiniteStream(fc.nat()), (tree, dice) => {
      const rig = planted(tree);
      const keys = new Map(rig.devices.map((d) => [d.id, dice.next().value]));
      const devices = [...rig.devices].sort((a, b) => keys.get(a.id)! - keys.get(b.id)!);
      const found = line({ ...rig, devices });
      expect(found.loadOhms).toBeCloseTo(handOhms(tree), 6);
      expect(found.loads.reduce((s, l) => s + l.watts, 0)).toBeCloseTo(found.watts, 6);
    }),
    { numRuns: 60 },
  );
});

test('an attenuator passes on the power that it passes', () => {
  const rig = (cut: number, rated: number) =>
    rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('h', 'head-tube', 'Head', sheet({ tapOhms: 8, watts: 50 })),
        device('a', 'attenuator', 'Brake', { settings: { cut } }),
        device('c', 'cabinet', 'Cab', sheet({ watts: rated })),
      ],
      [
        lead('1', 'g.out', 'h.in', 3),
        lead('2', 'h.speaker', 'a.in', 1, 'speaker'),
        lead('3', 'a.out', 'c.in', 1, 'speaker'),
      ],
    );
  const got = line(rig(1, 30)).loads.find((l) => l.device === 'c')!;
  expect(got.watts).toBeCloseTo(50 * 10 ** -0.1, 3);
  expect(found(rig(1, 30), 'speaker-power')[0]).toMatchObject({ severity: 'fault' });
  expect(found(rig(12, 30), 'speaker-power')).toEqual([]);
});

test('a solid-state stage gives each load what its voltage gives', () => {
  const rig = (ohms: number) =>
    rigOf(
      [
        device('p', 'playback', 'Tracks'),
        device('h', 'power-amp', 'Power'),
        device('c', 'cabinet', 'Cab', sheet({ ohms, watts: 60 })),
      ],
      [lead('1', 'p.out', 'h.in', 3), lead('2', 'h.speaker', 'c.in', 1, 'speaker')],
    );
  expect(line(rig(4)).loads[0]!.watts).toBeCloseTo(150, 6);
  expect(line(rig(16)).loads[0]!.watts).toBeCloseTo(37.5, 6);
  expect(found(rig(4), 'speaker-power')[0]?.severity).toBe('fault');
  expect(found(rig(16), 'speaker-power')).toEqual([]);
});

test('each lead loses against the load that it carries', () => {
  const far = stack([8, 8], 4, 50, 300, 10);
  const [near, linked] = line(far).loads;
  // The first lead carries both cabinets, the second one only.
  expect(near!.lossDb).toBeCloseTo(speakerLeadLossDb(4, 10), 6);
  expect(linked!.lossDb).toBeCloseTo(speakerLeadLossDb(4, 10) + speakerLeadLossDb(8, 10), 6);
  expect(line(far).lossDb).toBe(linked!.lossDb);
});

test('a head without a load gets the cabinet that stands unplugged, or a load box', () => {
  const bare = stack([]);
  const trial = new FixTrial(bare);
  const finding = trial.report.findings.find((f) => f.rule === 'no-load')!;
  expect(finding.fix!.words).toBe('Put a load box of 8 Ω on Head');
  expect(trial.try(finding, finding.fix!)).toMatchObject({ cures: true, breaks: [] });

  const cab = device('c', 'cabinet', 'Cab', sheet({ ohms: 8, watts: 200 }));
  const beside = new FixTrial({ ...bare, devices: [...bare.devices, cab] });
  const told = beside.report.findings.find((f) => f.rule === 'no-load')!;
  expect(told.fix!.words).toBe('Connect Cab to Head');
  expect(beside.try(told, told.fix!)).toMatchObject({ cures: true, breaks: [] });
});

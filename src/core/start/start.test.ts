import fc from 'fast-check';
import loadHighs from 'highs';
import { EXAMPLE_SHEETS } from '../demo';
import { kindOf } from '../kinds';
import { midiGraph, reachIn } from '../midi';
import { analyse, type Report, settled } from '../report';
import { type Brief, integrityProblems, kindOfSheet, type Rig, rigSchema, type Way } from '../rig';
import { placeOf } from '../rig/stands-where';
import { exactly } from '../solve';
import { anyBrief } from './any-brief';
import {
  builtUp,
  finished,
  isFeed,
  isPedal,
  lineOfRig,
  priced,
  type Proposal,
  proposeRig,
  voiceOf,
} from '.';
import { hearsFeed } from './ways/feeds';
import { cases } from '../testing/cases';

const line = (kind: string, n: number) => ({ id: `g${n}`, kind, name: `Box ${n}` });
const brief = (rest: Partial<Brief> = {}): Brief => ({
  sources: [{ id: 's', kind: 'guitar-baritone', name: 'Baritone' }],
  destinations: [{ id: 'd', way: 'house', name: 'House' }],
  gear: [],
  sounds: ['Clean', 'Crunch', 'Lead'].map((name) => ({ id: name.toLowerCase(), name })),
  ...rest,
});
const to = (...ways: Way[]) =>
  ways.map((way, n) => ({ id: `d${n}`, way, name: `${way} ${n + 1}` }));
const propose = (b: Brief): Proposal => proposeRig(b, { id: 'new', name: 'New', otherSchool: [] });
const rigFor = (b: Brief): Rig => propose(b).rig;
const whys = ({ choices }: Proposal) => Object.fromEntries(choices.map((c) => [c.id, c.why]));
const fed = (rig: Rig, id: string) => rig.leads.filter((l) => l.from.device === id);
const heard = (report: Report, device: string) =>
  report.sounds.map((s) => s.destinations.find((d) => d.device === device)?.sources ?? []);

/** What no wiring cures: the hiss and hum of what was chosen, and what its converters take. */
const OF_THE_GEAR = ['noise', 'latency'];
const bad = (report: Report) =>
  report.findings
    .filter((f) => f.severity !== 'advice' && !OF_THE_GEAR.includes(f.rule))
    .map((f) => `${f.rule}: ${f.what}`);

test('whatever is answered: a whole rig, every promise kept, nothing worse than advice', () => {
  fc.assert(
    fc.property(anyBrief, (b) => {
      const { rig } = finished(propose(b));
      expect(rigSchema.safeParse(rig).error).toBeUndefined();
      expect(integrityProblems(rig)).toEqual([]);
      const names = rig.devices.map((d) => d.name);
      expect(names).toEqual([...new Set(names)]);
      const report = analyse(rig);
      expect(report.promises.filter((p) => !p.kept).map((p) => p.words)).toEqual([]);
      expect(bad(report)).toEqual([]);
    }),
    { numRuns: cases(15, 40) },
  );
}, 120_000);

test('whoever must hear hears in every sound, and who must not hears in none', () => {
  fc.assert(
    fc.property(anyBrief, (b) => {
      const { rig } = finished(propose(b));
      const report = analyse(rig);
      const names = new Map(rig.devices.map((d) => [d.name, d.id]));
      const played = b.sources.filter((s) => !isFeed(s));
      const playing = b.sources.filter((s) => isFeed(s) || s === played[0] || b.means?.together);
      for (const end of b.destinations.filter((d) => d.way !== 'head' && d.way !== 'combo')) {
        // Amplifiers are heard on stage as they are; that a wedge is left to the desk then is told.
        if (end.way === 'stage' && voiceOf(b) === 'amplifiers') continue;
        const inputs = rig.devices.filter(
          (d) => d.name === end.name || d.name.startsWith(`${end.name}, `),
        );
        for (const source of b.sources) {
          const id = names.get(source.name) ?? '';
          const mayHear =
            !end.not?.includes(source.id) && (!isFeed(source) || hearsFeed(source.kind, end));
          const reached = report.sounds.map((_, i) =>
            inputs.some((d) => heard(report, d.id)[i]?.includes(id)),
          );
          if (!mayHear)
            expect([source.name, end.name, reached.some(Boolean)]).toEqual([
              source.name,
              end.name,
              false,
            ]);
          else if (playing.includes(source))
            expect([source.name, end.name, reached.every(Boolean)]).toEqual([
              source.name,
              end.name,
              true,
            ]);
        }
      }
    }),
    { numRuns: cases(15, 40) },
  );
}, 120_000);

test('every amplifier that was asked for sounds: in every sound, or in its turn', () => {
  fc.assert(
    fc.property(anyBrief, (b) => {
      const { rig } = propose(b);
      const report = analyse(rig);
      const amps = b.destinations.filter((d) => d.way === 'head' || d.way === 'combo');
      const speakers = rig.devices.filter((d) => ['cabinet', 'combo-tube-loop'].includes(d.kind));
      const asked = voiceOf(b) === 'amplifiers' && !amps.length ? 1 : amps.length;
      expect(speakers).toHaveLength(asked);
      for (const a of amps) expect(rig.devices.some((d) => d.name === a.name)).toBe(true);
      const inTurns = voiceOf(b) === 'amplifiers' && b.means?.amps === 'one' && amps.length > 1;
      const sounding = report.sounds.map(
        (s) =>
          s.destinations.filter((d) => speakers.some((x) => x.id === d.device) && d.sources.length)
            .length,
      );
      expect(sounding).toEqual(sounding.map(() => (inTurns ? 1 : asked)));
    }),
    { numRuns: cases(15, 40) },
  );
}, 60_000);

test('every decision has its reason, and each of its other ways makes a rig that stands', () => {
  fc.assert(
    fc.property(anyBrief, (b) => {
      const { choices } = propose(b);
      expect(new Set(choices.map((c) => c.id)).size).toBe(choices.length);
      for (const c of choices) {
        expect(c.why.length).toBeGreaterThan(20);
        expect(c.options.map((o) => o.value)).toContain(c.taken);
        for (const other of c.options.filter((o) => o.value !== c.taken)) {
          const changed = { ...b.means, changed: { [c.id]: other.value } };
          const made = propose({ ...b, means: changed });
          expect(made.choices.find((x) => x.id === c.id)).toMatchObject({ taken: other.value });
          expect(integrityProblems(made.rig)).toEqual([]);
          const report = analyse(made.rig);
          expect(report.promises.filter((p) => !p.kept).map((p) => p.words)).toEqual([]);
          expect(lineOfRig(made.rig)).toBeDefined();
        }
      }
    }),
    { numRuns: cases(8, 30) },
  );
}, 60_000);

test('pedals that are on together share a loop when there are more pedals than loops', () => {
  const kinds = ['compressor', 'octave', 'eq', 'drive-low', 'drive-mid', 'tremolo', 'phaser'];
  const made = propose(
    brief({
      gear: kinds.map(line),
      means: { switching: 'loops-fixed' },
      destinations: to('combo'),
    }),
  );
  const { rig } = made;
  const switcher = rig.devices.find((d) => d.kind === 'loop-switcher-fixed')!;
  const sends = fed(rig, switcher.id).filter((l) => l.from.jack.startsWith('send'));
  expect(sends.map((l) => l.from.jack)).toEqual(['send1', 'send2', 'send3', 'send4', 'send5']);
  // The compressor is on in every sound, and each drive in others.
  expect(whys(made)['loop-1']).not.toContain('share');
  const shared = made.choices.filter((c) => c.why.startsWith('They share'));
  expect(shared.map((c) => c.why)).toContain(
    'They share a loop: they are on and off together in every sound.',
  );
  // A pedal in a loop is on; the switcher says in which sound it is heard.
  const drive = rig.devices.find((d) => d.kind === 'drive-low')!;
  expect(drive.engaged).toBe(true);
  const n = sends.findIndex((l) => l.to.device === drive.id) + 1;
  expect(rig.sounds.map((s) => s.states[switcher.id]?.settings?.[`loop${n}`])).toEqual([
    false,
    true,
    true,
  ]);
});

test('what wants the bare pickup stays in front of a switcher; behind a receiver it gets a coil', () => {
  const gear = ['fuzz-low-impedance', 'drive-mid'].map(line);
  const means: Brief['means'] = { switching: 'loops-free' };
  const bare = propose(brief({ gear, means, destinations: to('combo') }));
  expect(fed(bare.rig, 'baritone')[0]!.to.device).toBe('box-0');
  expect(bare.rig.devices.some((d) => d.kind === 'pickup-simulator')).toBe(false);
  const sources = [{ id: 's', kind: 'guitar-baritone', name: 'Baritone', wireless: true }];
  const far = propose(brief({ sources, gear, means, destinations: to('combo') }));
  expect(far.rig.devices.some((d) => d.kind === 'pickup-simulator')).toBe(true);
  expect(analyse(far.rig).findings.filter((f) => f.rule === 'bare-pickup')).toMatchObject([
    { severity: 'advice', what: 'Box 0 sees the coil of Pickup simulator, Box 0, not the pickup.' },
  ]);
});

test('amplifiers in turns: the dirtier the sound, the later the amplifier, and each keeps its load', () => {
  const rig = rigFor(brief({ destinations: to('combo', 'head', 'house'), means: { amps: 'one' } }));
  const report = analyse(rig);
  const [combo, cabinet] = [
    rig.devices.find((d) => d.kind === 'combo-tube-loop')!,
    rig.devices.find((d) => d.kind === 'cabinet')!,
  ];
  expect(heard(report, combo.id).map((s) => s.length)).toEqual([1, 0, 0]);
  expect(heard(report, cabinet.id).map((s) => s.length)).toEqual([0, 1, 1]);
  expect(report.promises.every((p) => p.kept)).toBe(true);
  expect(report.findings.some((f) => f.rule === 'no-load')).toBe(false);
  // What parts the line has to be one that can be switched, whatever was chosen for another wiring.
  const changed = { 'amp-splitter': 'splitter-buffered' };
  const kept = rigFor(
    brief({ destinations: to('combo', 'head', 'house'), means: { amps: 'one', changed } }),
  );
  expect(kept.devices.some((d) => d.kind === 'splitter-buffered')).toBe(false);
});

test('both sides of a wide effect go to an amplifier each, behind transformers', () => {
  const gear = ['delay'].map(line);
  const { rig } = propose(brief({ gear, destinations: to('combo', 'combo') }));
  const isolator = rig.devices.find((d) => d.kind === 'hum-isolator')!;
  expect(fed(rig, isolator.id).map((l) => l.to.device)).toEqual(['combo-1', 'combo-2']);
  expect(fed(rig, 'box-0').map((l) => l.from.jack)).toEqual(['out', 'outR']);
});

test('around a modeler: what drives in front, what is wet in its loop, both sides to the house', () => {
  const gear = ['drive-mid', 'delay', 'reverb'].map(line);
  const { rig, choices } = propose(brief({ gear, means: { voice: 'modeler' } }));
  const modeler = rig.devices.find((d) => kindOf(d.kind).hosts)!;
  expect(modeler.kind).toBe('modeler-compact');
  expect(rig.leads.find((l) => l.to.device === modeler.id && l.to.jack === 'in')!.from.device).toBe(
    'box-0',
  );
  expect(fed(rig, modeler.id).find((l) => l.from.jack === 'send1')!.to.device).toBe('box-1');
  const [clean] = analyse(rig).sounds;
  expect(clean!.destinations[0]).toMatchObject({ channels: 'stereo', connected: true });
  // Taken into a loop, drives need one more than the small modeler has.
  const dirt = choices.find((c) => c.id === 'dirt')!;
  expect(dirt.taken).toBe('front');
  const changed = propose(brief({ gear, means: { voice: 'modeler', changed: { dirt: 'loop' } } }));
  expect(changed.rig.devices.find((d) => kindOf(d.kind).hosts)!.kind).toBe('modeler-floor');
  expect(changed.rig.leads.some((l) => l.from.jack === 'send1' && l.to.device === 'box-0')).toBe(
    true,
  );
});

test.each(['controller', 'tablet', 'own'] as const)(
  'called by %s: every box with programs is reached, on a channel of its own, with a program a sound',
  (calls) => {
    const gear = ['delay', 'reverb', 'modulation-digital', 'drive-low'].map(line);
    const { rig } = propose(
      brief({ gear, destinations: to('combo'), means: { calls, switching: 'loops-free' } }),
    );
    const graph = midiGraph(rig);
    const called = rig.devices.filter((d) => rig.sounds[0]!.states[d.id]?.program);
    expect(called.map((d) => d.kind).sort()).toEqual([
      'delay',
      'loop-switcher',
      'modulation-digital',
      'reverb',
    ]);
    expect(new Set(called.map((d) => d.midi?.channel)).size).toBe(called.length);
    const caller = { controller: 'foot-controller', tablet: 'set-list-app', own: 'loop-switcher' }[
      calls
    ];
    const from = rig.devices.find((d) => d.kind === caller)!;
    const reached = reachIn(graph, from.id);
    for (const d of called.filter((x) => x !== from))
      expect([d.name, reached.has(d.id)]).toEqual([d.name, true]);
    for (const d of called)
      expect(new Set(rig.sounds.map((s) => JSON.stringify(s.states[d.id]?.program))).size).toBe(3);
  },
);

test('power and a board: all that takes power is fed, all on the floor stands, nothing worse than advice', async () => {
  const solver = exactly(await loadHighs({}));
  for (const b of fc.sample(anyBrief, { numRuns: cases(3, 6), seed: 7 })) {
    const { rig, choices } = await builtUp(finished(propose(b)), solver, () => Promise.resolve());
    const why = Object.fromEntries(choices.map((c) => [c.id, c]));
    expect(bad(analyse(rig))).toEqual([]);
    const hungry = rig.devices.filter(
      (d) => kindOf(d.kind).power && d.host === undefined && !d.supply,
    );
    if (hungry.length) expect(why.supplies!.why).toContain(hungry[0]!.name);
    if (why.board?.taken === 'so')
      expect(
        rig.devices
          .filter((d) => d.host === undefined && placeOf(d) === 'floor' && !d.at)
          .map((d) => d.kind),
      ).toEqual([]);
  }
}, 120_000);

test('a board that must not be wider is not; supplies on hand are used, and what they leave is named', async () => {
  const solver = exactly(await loadHighs({}));
  const gear = ['delay', 'reverb', 'modulation-digital', 'looper', 'pitch-shifter'].map(line);
  const b = brief({ gear, means: { supplies: ['supply-battery'] } });
  const limits = { boardWidth: 700 };
  const made = finished(proposeRig(b, { id: 'new', name: 'New', otherSchool: [], limits }));
  const { rig, choices } = await builtUp(made, solver, () => Promise.resolve());
  expect(rig.limits).toEqual(limits);
  for (const board of rig.boards ?? []) expect(board.width).toBeLessThanOrEqual(700);
  expect(rig.devices.filter((d) => d.kind.startsWith('supply')).map((d) => d.kind)).toEqual([
    'supply-battery',
  ]);
  expect(choices.find((c) => c.id === 'supplies')!.why).toMatch(
    /Box 0.*get nothing: what is on hand does not do/,
  );
});

test('every box that came to cure something is told with what it cures, and cures it', () => {
  const cured = fc.sample(anyBrief, { numRuns: cases(20, 50), seed: 5 }).flatMap((b) => {
    const first = propose(b);
    const { rig, choices } = finished(first);
    const came = rig.devices.length - first.rig.devices.length;
    const told = choices.filter((c) => c.id.startsWith('cure-'));
    expect([came > 0, told.length > 0]).toEqual([told.length > 0, came > 0]);
    const left = analyse(rig).findings.map((f) => `Without it: ${f.what}`);
    for (const c of told) expect(left).not.toContain(c.why);
    return told;
  });
  expect(cured.length).toBeGreaterThan(0);
}, 60_000);

test('a second output has a line of its own to the desk, or stays unplugged', () => {
  const sources = [{ id: 's', kind: 'instrument-dual', name: 'Baritone' }];
  const made = propose(brief({ sources, destinations: to('combo', 'house') }));
  const own = made.rig.devices.find((d) => d.name === 'house 2, Baritone piezo')!;
  expect(heard(analyse(made.rig), own.id)).toEqual([1, 2, 3].map(() => ['baritone/piezo']));
  expect(bad(analyse(finished(made).rig))).toEqual([]);
  const without = propose(
    brief({
      sources,
      destinations: to('combo', 'house'),
      means: { changed: { 'second-s': 'none' } },
    }),
  );
  expect(without.rig.leads.some((l) => l.from.jack === 'piezo')).toBe(false);
});

test("a sheet of one's own stands where its job stands, and comes into the rig; one that is not used does not", () => {
  const sheets = EXAMPLE_SHEETS.filter((s) => isPedal(kindOfSheet(s)));
  const [mine, other] = sheets;
  const gear = [line('drive-low', 0), line(kindOfSheet(mine!).id, 1)];
  const { rig } = proposeRig(brief({ gear, destinations: to('combo') }), {
    id: 'new',
    name: 'New',
    otherSchool: [],
    sheets: [mine!, other!],
  });
  expect(rig.sheets!.map((s) => s.id)).toEqual([mine!.id]);
  expect(integrityProblems(rig)).toEqual([]);
  expect(rig.leads.filter((l) => l.to.device === 'box-1')).toHaveLength(1);
});

test('a pickup behind two sides that are off is driven by a buffer', () => {
  const gear = ['chorus'].map(line);
  const sources = [{ id: 's', kind: 'electric-mandolin', name: 'Mandolin' }];
  const { rig } = propose(brief({ sources, gear, destinations: to('head', 'combo') }));
  expect(fed(rig, 'mandolin')[0]!.to.device).toBe('buffer');
  expect(analyse(rig).findings.filter((f) => f.rule === 'loading')).toEqual([]);
});

test('what another way would bring was tried: made so, it is there; where nothing is told, nothing is worse', () => {
  fc.assert(
    fc.property(anyBrief, (b) => {
      const choice = { id: 'new', name: 'New', otherSchool: [] };
      const made = priced(finished(proposeRig(b, choice)), b, choice);
      const now = bad(analyse(made.rig));
      for (const c of made.choices)
        for (const o of c.options.filter((x) => x.brings)) {
          const means = { ...b.means, changed: { [c.id]: o.value } };
          const other = analyse(settled(proposeRig({ ...b, means }, choice).rig));
          const there = other.findings.map((f) => `${f.severity}: ${f.what}`);
          for (const what of o.brings!) expect(there).toContain(what);
          if (!o.brings!.length) expect(bad(other).filter((x) => !now.includes(x))).toEqual([]);
        }
    }),
    { numRuns: cases(4, 12) },
  );
}, 120_000);

test('an amp switcher in the place of forks keeps grounds apart as they do', () => {
  const b = brief({ destinations: to('head', 'head', 'house'), means: { amps: 'one' } });
  const choice = { id: 'new', name: 'New', otherSchool: [] };
  const { choices } = priced(finished(proposeRig(b, choice)), b, choice);
  const turns = choices.find((c) => c.id === 'turns')!;
  for (const value of ['switcher', 'fork'])
    expect(turns.options.find((o) => o.value === value)?.brings ?? []).toEqual([]);
});

test('what is said to be reached is named, all of it', () => {
  const gear = ['compressor', 'octave', 'delay'].map(line);
  const means: Brief['means'] = { switching: 'loops-fixed', calls: 'controller' };
  const { calls } = whys(propose(brief({ gear, destinations: to('combo'), means })));
  expect(calls).toMatch(
    /^It reaches [^;]*Box 2[^;]*Loop switcher|^It reaches [^;]*Loop switcher[^;]*Box 2/,
  );
  expect(calls).not.toContain('beyond');
});

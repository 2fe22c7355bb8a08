import loadHighs from 'highs';
import { EXAMPLE_SHEETS } from '../demo';
import { kindOf } from '../kinds';
import { analyse } from '../report';
import { type Brief, kindOfSheet, type Rig, type Way } from '../rig';
import { exactly } from '../solve';
import { builtUp, finished, isPedal, priced, type Proposal, proposeRig } from '.';

const line = (kind: string, n: number) => ({ id: `g${n}`, kind, name: `Box ${n}` });
const to = (...ways: Way[]) =>
  ways.map((way, n) => ({ id: `d${n}`, way, name: `${way} ${n + 1}` }));
const brief = (rest: Partial<Brief> = {}): Brief => ({
  sources: [{ id: 's', kind: 'guitar-humbucker', name: 'Guitar' }],
  destinations: to('house'),
  gear: [],
  sounds: [
    { id: 'clean', name: 'Clean', character: 'clean' },
    { id: 'lead', name: 'Lead', character: 'saturated' },
  ],
  ...rest,
});
const propose = (b: Brief): Proposal => proposeRig(b, { id: 'new', name: 'New', otherSchool: [] });
const fed = (rig: Rig, id: string) => rig.leads.filter((l) => l.from.device === id);
const byName = (rig: Rig, name: string) => rig.devices.find((d) => d.name === name)!;

test('of two amplifiers one can stay dry: the echo is heard from the other alone', () => {
  const gear = ['drive-low', 'delay'].map(line);
  const b = brief({ gear, destinations: to('combo', 'combo') });
  const usual = propose(b).choices.find((c) => c.id === 'amps-fed')!;
  expect([usual.taken, usual.options.map((o) => o.value)]).toEqual([
    'sides',
    ['sides', 'same', 'dry-wet'],
  ]);
  const { rig } = propose({ ...b, means: { changed: { 'amps-fed': 'dry-wet' } } });
  const [dry, wet] = [byName(rig, 'combo 1'), byName(rig, 'combo 2')];
  const before = (id: string) => rig.leads.find((l) => l.to.device === id && l.to.jack === 'in')!;
  expect(before(wet.id).from).toEqual({ device: 'box-1', jack: 'out' });
  expect(kindOf(rig.devices.find((d) => d.id === before(dry.id).from.device)!.kind).job).toBe(
    'splitter',
  );
  // Nothing that comes by the echo reaches the first.
  const cut = { ...rig, leads: rig.leads.filter((l) => l.to.device !== 'box-1') };
  const hears = (r: Rig, id: string) =>
    analyse(r).sounds.map((s) => s.destinations.find((d) => d.device === id)?.sources.length);
  expect([hears(rig, dry.id), hears(rig, wet.id)]).toEqual([
    [1, 1],
    [1, 1],
  ]);
  expect([hears(cut, dry.id), hears(cut, wet.id)]).toEqual([
    [1, 1],
    [0, 0],
  ]);
});

test('what makes no two sides is not asked as if it did, and one amplifier is not asked at all', () => {
  const ask = (gear: string[], ...ways: Way[]) =>
    propose(brief({ gear: gear.map(line), destinations: to(...ways) }))
      .choices.find((c) => c.id === 'amps-fed')
      ?.options.map((o) => o.value);
  expect(ask(['drive-low'], 'combo', 'combo')).toBeUndefined();
  expect(ask(['delay'], 'combo')).toBeUndefined();
  expect(ask(['delay'], 'combo', 'combo', 'combo')).toBeUndefined();
});

test('inside a modeler two amplifiers are panned to the sides, and each side hears its own', () => {
  const b = brief({ gear: [line('delay', 0)], means: { voice: 'modeler' } });
  expect(propose(b).choices.find((c) => c.id === 'pan')!.taken).toBe('one');
  const { rig } = propose({ ...b, means: { voice: 'modeler', changed: { pan: 'two' } } });
  const amps = rig.devices.filter((d) => d.kind === 'amp-block');
  expect(amps.map((d) => d.name)).toEqual(['Amp, left', 'Amp, right']);
  for (const sound of rig.sounds)
    for (const amp of amps) expect(sound.states[amp.id]?.settings?.gain).toBeGreaterThan(0);
  const silent = (id: string): Rig => ({
    ...rig,
    leads: rig.leads.filter((l) => l.to.device !== id),
  });
  const [house] = analyse(rig).sounds.at(-1)!.destinations;
  expect(house).toMatchObject({ channels: 'stereo' });
  // Without the left one, the left side is what is softer; the right one holds its own.
  const sides = (r: Rig) => {
    const d = analyse(r).sounds.at(-1)!.destinations[0]!;
    return [d.levelDbu?.normal ?? -Infinity, d.channels];
  };
  for (const amp of amps) expect(sides(silent(amp.id))).not.toEqual(sides(rig));
  // Nobody hears two sides of one that is mono.
  const mono = propose(brief({ means: { voice: 'modeler', house: 'mono' } }));
  expect(mono.choices.find((c) => c.id === 'pan')!.options.map((o) => o.value)).not.toContain(
    'two',
  );
});

test('a switcher of free order puts the boost where the sound wants it, and only where both are on', () => {
  const gear = ['boost', 'drive-low'].map(line);
  const means: Brief['means'] = { switching: 'loops-free' };
  const ordered = (b: Brief) => {
    const { rig, choices } = propose(b);
    const switcher = rig.devices.find((d) => d.kind === 'loop-switcher')!;
    const loop = (box: string) =>
      fed(rig, switcher.id)
        .find((l) => l.to.device === box)!
        .from.jack.replace('send', '');
    const orders = rig.sounds.map((s) => s.states[switcher.id]!.settings!.order);
    return { orders, boost: loop('box-0'), drive: loop('box-1'), choices };
  };
  const b = brief({ gear, means, destinations: to('combo') });
  const usual = ordered(b);
  expect(usual.orders).toEqual(['', `${usual.drive} ${usual.boost}`]);
  expect(usual.choices.filter((c) => c.id.startsWith('boost-')).map((c) => c.id)).toEqual([
    'boost-lead',
  ]);
  const front = ordered({ ...b, means: { ...means, changed: { 'boost-lead': 'front' } } });
  expect(front.orders).toEqual(['', `${front.boost} ${front.drive}`]);
  // Half driven sounds are driven further.
  const crunch = brief({
    gear,
    means,
    destinations: to('combo'),
    sounds: [b.sounds[0]!, { id: 'crunch', name: 'Crunch', character: 'crunch' }],
  });
  const half = ordered(crunch);
  expect(half.orders[1]).toBe(`${half.boost} ${half.drive}`);
});

test('two supplies of one kind on hand are two', async () => {
  const solver = exactly(await loadHighs({}));
  const gear = ['delay', 'reverb', 'modulation-digital', 'looper'].map(line);
  const supplies = ['supply-isolated', 'supply-isolated'];
  const made = finished(propose(brief({ gear, destinations: to('combo'), means: { supplies } })));
  const { rig } = await builtUp(made, solver, () => Promise.resolve());
  expect(rig.devices.filter((d) => d.kind === 'supply-isolated').map((d) => d.name)).toEqual([
    'Board supply',
    'Board supply 2',
  ]);
});

test('every shipped sheet that is a pedal starts a rig that stands, with nothing above advice', () => {
  const pedals = EXAMPLE_SHEETS.filter((s) => isPedal(kindOfSheet(s)));
  expect(pedals.map((s) => s.id)).toEqual(expect.arrayContaining(['tandem-drive', 'lantern-row']));
  for (const sheet of pedals) {
    const gear = [line(kindOfSheet(sheet).id, 0), line('compressor', 1)];
    const b = brief({ gear, destinations: to('combo', 'house') });
    const choice = { id: 'new', name: 'New', otherSchool: [], sheets: [sheet] };
    const { rig } = finished(proposeRig(b, choice));
    expect(rig.sheets!.map((s) => s.id)).toEqual([sheet.id]);
    const report = analyse(rig);
    const bad = report.findings
      .filter((f) => f.severity !== 'advice' && !['noise', 'latency'].includes(f.rule))
      .map((f) => f.what);
    expect([sheet.id, bad, report.promises.every((p) => p.kept)]).toEqual([sheet.id, [], true]);
  }
});

test('what is said of the boost holds where it is made: behind it is louder, in front it drives further', () => {
  const gear = ['boost', 'drive-low'].map(line);
  const b = brief({ gear, destinations: to('combo', 'house') });
  const lead = (place: 'behind' | 'front') => {
    const means: Brief['means'] = { switching: 'loops-free', changed: { 'boost-lead': place } };
    const report = analyse(propose({ ...b, means }).rig).sounds.at(-1)!;
    const drive = report.stations.find((s) => s.device === 'box-1')!;
    const boost = report.stations.find((s) => s.device === 'box-0')!;
    const out = (place === 'behind' ? boost : drive).output;
    return { level: out.levelDbu!.normal, percent: drive.output.thdPercent!.normal };
  };
  const [behind, front] = [lead('behind'), lead('front')];
  expect(behind.level).toBeGreaterThan(front.level);
  expect(front.percent).toBeGreaterThan(behind.percent);
});

test('every other way of the new decisions is tried and says what it brings', () => {
  const asked: [string, Brief][] = [
    [
      'amps-fed',
      brief({ gear: ['drive-low', 'delay'].map(line), destinations: to('combo', 'combo') }),
    ],
    ['pan', brief({ gear: [line('delay', 0)], means: { voice: 'modeler' } })],
    [
      'boost-lead',
      brief({
        gear: ['boost', 'drive-low'].map(line),
        means: { switching: 'loops-free' },
        destinations: to('combo'),
      }),
    ],
  ];
  for (const [id, b] of asked) {
    const choice = { id: 'new', name: 'New', otherSchool: [] };
    const { choices } = priced(finished(proposeRig(b, choice)), b, choice);
    const decided = choices.find((c) => c.id === id)!;
    for (const o of decided.options.filter((x) => x.value !== decided.taken))
      expect([id, o.value, Array.isArray(o.brings)]).toEqual([id, o.value, true]);
  }
});

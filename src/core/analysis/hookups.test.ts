import { DirectedGraph, UndirectedGraph } from 'graphology';
import { connectedComponents, stronglyConnectedComponents } from 'graphology-components';
import { readLoopOrder } from '../kinds/loop-order';
import { applyEdits, type Device, integrityProblems, type Lead, type Rig } from '../rig';
import { device as d, lead as l, rigOf, sound as s } from '../testing/rigs';
import { pressesBetween } from '../midi';
import { groundTies } from './ground';
import { analyse, type Report, type SoundReport } from '../report/report';

const inside = (id: string, from: string, to: string) => l(id, from, to, 0, 'inside');
const links = (...pairs: [string, string][]) =>
  pairs.map(([from, to], i) => inside(`in${i}`, from, to));
const sheet = (values: Record<string, number>): Partial<Device> => ({
  figures: Object.fromEntries(
    Object.entries(values).map(([id, value]) => [id, { value, from: 'sheet' as const }]),
  ),
});
const whole = (rig: Rig): Report => {
  expect(integrityProblems(rig)).toEqual([]);
  return analyse(rig);
};
const rules = (r: Report) => r.findings.map((f) => f.rule);
const found = (r: Report, rule: string) => r.findings.filter((f) => f.rule === rule);
const at = (r: Report, sound: string, device: string) =>
  r.sounds.find((x) => x.sound === sound)!.destinations.find((x) => x.device === device)!;
const fixed = (rig: Rig, r: Report, rule: string): Rig => {
  const done = applyEdits(rig, found(r, rule).find((f) => f.fix)!.fix!.edits);
  if (!done.ok) throw new Error(done.problems[0]!.what);
  return done.value.rig;
};
const stations = (r: Report, sound: string, device: string) =>
  r.sounds
    .find((x) => x.sound === sound)!
    .stations.filter((x) => x.device === device)
    .map((x) => x.id);

describe('front and loop together, around an amplifier and a modeler', () => {
  const four = (change: (l: Lead) => Lead = (x) => x) =>
    rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('od', 'drive-low', 'OD'),
        d('m', 'modeler-compact', 'M'),
        d('h', 'head-tube', 'H'),
        d('c', 'cabinet', 'C'),
        d('comp', 'compressor', 'Comp', { host: 'm' }),
        d('rev', 'reverb', 'Rev', { host: 'm', engaged: true }),
      ],
      [
        l('1', 'g.out', 'od.in', 3),
        l('2', 'od.out', 'm.in', 1),
        l('3', 'm.send1', 'h.in', 3),
        l('4', 'h.send', 'm.return1', 3),
        l('5', 'm.out', 'h.return', 3),
        l('6', 'h.speaker', 'c.in', 1, 'speaker'),
        ...links(
          ['m.fromIn', 'comp.in'],
          ['comp.out', 'm.toSend1'],
          ['m.fromReturn1', 'rev.in'],
          ['rev.out', 'm.toOut'],
        ),
      ].map(change),
      [s('a', 'A', ['od'])],
    );
  test('each lead on its jack: one path, two passes through modeler and amplifier, converters counted twice', () => {
    const r = whole(four());
    expect(at(r, 'a', 'c')).toMatchObject({ channels: 'mono', latencyMs: 4.5 });
    expect(stations(r, 'a', 'h')).toHaveLength(2);
    expect(stations(r, 'a', 'm')).toHaveLength(4);
    expect(r.sounds[0]!.hosts[0]).toMatchObject({ used: { slots: 2, percent: 19, paths: 1 } });
    expect(rules(r)).not.toContain('host-budget');
    expect(r.sounds[0]!.cycles).toEqual([]);
  });
  test(
    'two plugs exchanged at the amplifier run in a circle; the likeliest exchange is ' +
      'proposed and cures it',
    () => {
      const rig = four((x) =>
        x.id === '3'
          ? { ...x, to: { device: 'h', jack: 'return' } }
          : x.id === '5'
            ? { ...x, to: { device: 'h', jack: 'in' } }
            : x,
      );
      const r = whole(rig);
      expect(r.sounds[0]!.cycles[0]!.devices.sort()).toEqual(['h', 'm', 'rev']);
      expect(found(r, 'swapped')).toHaveLength(1);
      expect(found(r, 'swapped')[0]!.fix!.edits).toEqual([{ edit: 'swapEnds', leads: ['3', '5'] }]);
      const cured = whole(fixed(rig, r, 'swapped'));
      expect(cured.sounds[0]!.cycles).toEqual([]);
      expect(at(cured, 'a', 'c').latencyMs).toBe(4.5);
    },
  );
  test('send and return exchanged join outputs to outputs; nothing passes, and the exchange is proposed', () => {
    const rig = four((x) =>
      x.id === '4'
        ? { ...x, from: { device: 'h', jack: 'return' } }
        : x.id === '5'
          ? { ...x, to: { device: 'h', jack: 'send' } }
          : x,
    );
    const r = whole(rig);
    expect(found(r, 'swapped')[0]!.what).toBe('Send and return are swapped between H and M.');
    expect(at(whole(fixed(rig, r, 'swapped')), 'a', 'c').levelDbu).not.toBeNull();
  });
});

describe('two signals down one digital lead', () => {
  const rig = rigOf(
    [
      d('g', 'instrument-digital', 'Guitar'),
      d('m', 'modeler-floor', 'M'),
      d('v1', 'volume-active', 'On-board pedal', { host: 'm' }),
      d('a1', 'amp-block', 'Amp 1', { host: 'm' }),
      d('c1', 'cab-block', 'Cab 1', { host: 'm' }),
      d('e1', 'delay', 'Delay 1', { host: 'm', engaged: true }),
      d('v2', 'volume-active', 'Second pedal', { host: 'm' }),
      d('r2', 'reverb', 'Reverb 2', { host: 'm', engaged: true }),
      d('head', 'head-tube-digital', 'Head'),
      d('cab', 'cabinet', 'Cabinet'),
      d('desk', 'console-input-stereo', 'House', { settings: { input: 'line' } }),
      d('rec', 'recorder', 'Recorder'),
    ],
    [
      l('1', 'g.digital', 'm.digitalIn', 6, 'digital'),
      l('2', 'm.digitalOut', 'head.digital', 10, 'digital'),
      l('3', 'head.speaker', 'cab.in', 1, 'speaker'),
      l('4', 'm.out', 'desk.in', 20, 'balanced'),
      l('5', 'm.outR', 'desk.inR', 20, 'balanced'),
      l('6', 'm.out2', 'rec.in', 5, 'balanced'),
      l('7', 'm.out2R', 'rec.inR', 5, 'balanced'),
      ...links(
        ['m.fromDigital1', 'v1.in'],
        ['v1.out', 'a1.in'],
        ['a1.out', 'm.toDigital1'],
        ['a1.out', 'c1.in'],
        ['c1.out', 'e1.in'],
        ['e1.out', 'm.toOut'],
        ['e1.outR', 'm.toOutR'],
        ['m.fromDigital2', 'v2.in'],
        ['v2.out', 'r2.in'],
        ['r2.out', 'm.toOut2'],
        ['r2.outR', 'm.toOut2R'],
      ),
    ],
    [s('a', 'A', [])],
    {
      promises: [
        {
          id: 'p1',
          type: 'moves-only',
          device: 'v1',
          setting: 'pedal',
          destinations: ['cab', 'desk'],
        },
        { id: 'p2', type: 'moves-only', device: 'v2', setting: 'pedal', destinations: ['rec'] },
        { id: 'p3', type: 'stereo', destination: 'desk' },
        { id: 'p4', type: 'no-tube-unloaded' },
        { id: 'p5', type: 'never-hears', destination: 'rec', source: 'g' },
        { id: 'p6', type: 'hears', destination: 'rec', source: 'g/modelled' },
      ],
    },
  );
  const r = whole(rig);
  test('three destinations hear what they should; behind the tap nothing is heard at the stage head', () => {
    expect(at(r, 'a', 'desk')).toMatchObject({ channels: 'stereo', widenedBy: 'e1', latencyMs: 3 });
    expect(at(r, 'a', 'rec')).toMatchObject({ channels: 'stereo', widenedBy: 'r2' });
    expect(at(r, 'a', 'cab')).toMatchObject({ channels: 'mono', widenedBy: null, latencyMs: 4.5 });
    const route = at(r, 'a', 'cab').route.map((id) => id.split(':')[0]);
    expect(route).toContain('a1');
    for (const behind of ['c1', 'e1', 'v2', 'r2']) expect(route).not.toContain(behind);
    expect([at(r, 'a', 'desk').sources, at(r, 'a', 'rec').sources]).toEqual([
      ['g'],
      ['g/modelled'],
    ]);
    expect(r.sounds[0]!.hosts[0]!.used.paths).toBe(2);
  });
  test('one pedal for each path, proven to touch nothing else', () =>
    expect(r.promises.map((p) => p.kept)).toEqual([true, true, true, true, true, true]));
  test('a head with a digital input still needs its load, and takes an analog input as well', () => {
    expect(rules(whole({ ...rig, leads: rig.leads.filter((x) => x.id !== '3') }))).toContain(
      'no-load',
    );
    const analog = whole(
      rigOf(
        [d('g', 'guitar-humbucker', 'G'), d('h', 'head-tube-digital', 'H'), d('c', 'cabinet', 'C')],
        [l('1', 'g.out', 'h.in', 3), l('2', 'h.speaker', 'c.in', 1, 'speaker')],
      ),
    );
    const plain = whole(
      rigOf(
        [d('g', 'guitar-humbucker', 'G'), d('h', 'head-tube', 'H'), d('c', 'cabinet', 'C')],
        [l('1', 'g.out', 'h.in', 3), l('2', 'h.speaker', 'c.in', 1, 'speaker')],
      ),
    );
    expect(at(analog, 's1', 'c').levelDbu!.normal).toBeCloseTo(
      at(plain, 's1', 'c').levelDbu!.normal,
      1,
    );
  });
});

describe('outputs that part ways', () => {
  const rig = rigOf(
    [
      d('g', 'guitar-active', 'Guitar'),
      d('w1', 'wireless', 'Radio'),
      d('w2', 'wireless', 'Spare radio'),
      d('sel', 'input-selector', 'Selector'),
      d('m', 'modeler-rack', 'M'),
      d('amp', 'amp-block', 'Amp', { host: 'm' }),
      d('cab', 'cab-block', 'Cab', { host: 'm' }),
      d('e1', 'eq', 'EQ house', { host: 'm', engaged: true }),
      d('v', 'volume-active', 'Ear pedal', { host: 'm' }),
      d('e2', 'eq', 'EQ ear', { host: 'm', engaged: true, settings: { tone: 8 } }),
      d('ps', 'powered-speaker', 'Speaker'),
      d('house', 'console-input', 'House', { settings: { input: 'line' } }),
      d('ears', 'in-ear-mix', 'Ears'),
      d('band', 'mix-feed', 'Band mix'),
      d('voice', 'microphone-voice', 'Voice'),
      d('vh', 'console-input', 'House, voice'),
    ],
    [
      l('1', 'g.out', 'w1.in', 0.8),
      l('2', 'w1.out', 'sel.a', 1),
      l('3', 'w2.out', 'sel.b', 1),
      l('4', 'sel.out', 'm.in', 1),
      l('5', 'm.out', 'ps.in', 5),
      l('6', 'ps.thru', 'house.in', 20, 'balanced'),
      l('7', 'm.outR', 'ears.in', 3),
      l('8', 'band.out', 'ears.inR', 20, 'balanced'),
      l('9', 'voice.out', 'vh.in', 10, 'balanced'),
      ...links(
        ['m.fromIn', 'amp.in'],
        ['amp.out', 'cab.in'],
        ['cab.out', 'e1.in'],
        ['e1.out', 'm.toOut'],
        ['cab.out', 'v.in'],
        ['v.out', 'e2.in'],
        ['e2.out', 'm.toOutR'],
      ),
    ],
    [s('a', 'A', [])],
    {
      promises: [
        { id: 'p', type: 'moves-only', device: 'v', setting: 'pedal', destinations: ['ears'] },
        { id: 'q', type: 'never-hears', destination: 'house', source: 'band' },
      ],
    },
  );
  test('the guitar in one ear, the band in the other, the house from the speaker’s line out', () => {
    const r = whole(rig);
    const ears = at(r, 'a', 'ears');
    expect(ears).toMatchObject({ channels: 'dual mono', sources: ['g', 'band'] });
    expect(ears.sides.map((x) => x.sources)).toEqual([['g'], ['band']]);
    expect(at(r, 'a', 'house')).toMatchObject({
      channels: 'mono',
      sources: ['g'],
      latencyMs: at(r, 'a', 'ps').latencyMs,
    });
    expect(r.promises.map((p) => p.kept)).toEqual([true, true]);
    expect(rules(r)).not.toContain('promise');
  });
  test('the pedal moved ahead of the split breaks its promise, and says by which way', () => {
    const moved = applyEdits(rig, [
      { edit: 'moveDevice', device: 'v', lead: 'in1', newLeads: ['x', 'y'] },
    ]);
    if (!moved.ok) throw new Error(moved.problems[0]!.what);
    const broken = whole(moved.value.rig).promises[0]!;
    expect(broken.breaches.map((b) => b.why.split('(')[0])).toEqual([
      'It moves Speaker too ',
      'It moves House too ',
    ]);
  });
  test('the spare takes over with one setting', () => {
    const spare: Rig = {
      ...rig,
      leads: rig.leads.map((x) => (x.id === '1' ? { ...x, to: { device: 'w2', jack: 'in' } } : x)),
      sounds: [s('a', 'A', [], { sel: { settings: { select: 'b' } } })],
    };
    expect(at(whole(spare), 'a', 'house').levelDbu!.normal).toBeCloseTo(
      at(whole(rig), 'a', 'house').levelDbu!.normal,
      6,
    );
  });
});

describe('a modeler behind a switcher with a free order', () => {
  const rig = rigOf(
    [
      d('g', 'guitar-humbucker', 'G'),
      d('comp', 'compressor', 'Comp', { engaged: true }),
      d('oct', 'octave-dual', 'Octave'),
      d('fb', 'feedback', 'Feedback'),
      d('tee', 'splitter-buffered', 'Tee'),
      d('gate', 'gate', 'Gate', { engaged: true, settings: { threshold: -50 } }),
      d('pitch', 'pitch-shifter', 'Pitch'),
      d('sw', 'loop-switcher', 'Switcher'),
      d('f1', 'drive-low', 'F1', { engaged: true }),
      d('f2', 'drive-mid', 'F2', { engaged: true }),
      d('f3', 'drive-high', 'F3', { engaged: true }),
      d('f4', 'phaser', 'F4', { engaged: true }),
      d('m', 'modeler-floor', 'M'),
      d('amp', 'amp-block', 'Amp', { host: 'm' }),
      d('cab', 'cab-block', 'Cab', { host: 'm' }),
      d('dly', 'delay', 'Delay', { host: 'm', engaged: true }),
      d('ba', 'amp-block', 'Bass amp', { host: 'm' }),
      d('bc', 'cab-block', 'Bass cab', { host: 'm' }),
      d('dg', 'console-input', 'House, guitar', { settings: { input: 'line' } }),
      d('db', 'console-input', 'House, bass', { settings: { input: 'line' } }),
    ],
    [
      l('1', 'g.out', 'comp.in', 6),
      l('2', 'comp.out', 'oct.in', 0.3),
      l('3', 'oct.out', 'fb.in', 0.3),
      l('4', 'oct.effect', 'm.aux', 3),
      l('5', 'fb.out', 'tee.in', 0.3),
      l('6', 'tee.a', 'pitch.in', 0.3),
      l('7', 'tee.b', 'gate.key', 1),
      l('8', 'pitch.out', 'sw.in', 0.3),
      ...[1, 2, 3, 4].flatMap((n) => [
        l(`s${n}`, `sw.send${n}`, `f${n}.in`, 0.5),
        l(`r${n}`, `f${n}.out`, `sw.return${n}`, 0.5),
      ]),
      l('9', 'sw.out', 'm.in', 3),
      l('10', 'm.send1', 'gate.in', 2),
      l('11', 'gate.out', 'm.return1', 2),
      l('12', 'm.out', 'dg.in', 20, 'balanced'),
      l('13', 'm.outR', 'db.in', 20, 'balanced'),
      ...links(
        ['m.fromIn', 'amp.in'],
        ['amp.out', 'm.toSend1'],
        ['m.fromReturn1', 'cab.in'],
        ['cab.out', 'dly.in'],
        ['dly.out', 'm.toOut'],
        ['m.fromAux', 'ba.in'],
        ['ba.out', 'bc.in'],
        ['bc.out', 'm.toOutR'],
      ),
    ],
    [
      s('clean', 'Clean', []),
      s('bass', 'With bass', ['oct'], { sw: { settings: { order: '2 1' } } }),
      s('both', 'Side by side', [], { sw: { settings: { order: '1 (2+3@-6) 4' } } }),
    ],
  );
  const r = whole(rig);
  test('the gate listens to the clean string and acts between amp and cab, so the delay’s tail is its own', () => {
    const gate = r.sounds[2]!.stations.find((x) => x.device === 'gate' && x.ins.includes('in'))!;
    expect(gate.output.idleNoiseDbu!).toBeLessThan(gate.output.noiseDbu! - 40);
    const tails = {
      ...rig,
      promises: [{ id: 't', type: 'tails-survive' as const, from: 'both', to: 'clean' }],
    };
    expect(whole(tails).promises[0]!.kept).toBe(true);
  });
  test('dry and octave go their own ways: dual mono, not stereo, the bass silent where the octave is off', () => {
    expect(at(r, 'bass', 'db')).toMatchObject({ sources: ['g'], levelDbu: expect.anything() });
    expect(at(r, 'clean', 'db').levelDbu).toBeNull();
    expect(rules(r)).not.toContain('silent');
    expect(at(r, 'bass', 'dg').channels).toBe('mono');
  });
  test('order, side by side and levels as written; the walk has a station for every pass', () => {
    const order = (sound: string) => {
      const report = r.sounds.find((x) => x.sound === sound)!;
      return report.stations
        .filter((x) => /^f\d$/.test(x.device) && report.destinations[0]!.route.includes(x.id))
        .sort((a, b) => a.column - b.column)
        .map((x) => x.device);
    };
    expect(order('clean')).toEqual([]);
    expect(order('bass')).toEqual(['f2', 'f1']);
    expect(order('both')).toEqual(['f1', 'f2', 'f3', 'f4']);
    expect(stations(r, 'both', 'sw')).toHaveLength(4);
    expect(r.sounds.every((x) => x.cycles.length === 0)).toBe(true);
  });
  test('where the order is wrong, the fix changes the loops of that sound and moves no pedal', () => {
    const f = found(r, 'gain-low-to-high').find((x) => x.sounds.includes('bass'))!;
    expect(f.fix).toEqual({
      words: 'Run the loops of Switcher as 1 2 in With bass',
      edits: [{ edit: 'setSetting', device: 'sw', setting: 'order', value: '1 2', sound: 'bass' }],
    });
  });
  test('a loop in use with nothing in it passes or mutes, as the switcher does', () => {
    const empty = (value: string) =>
      whole({
        ...rig,
        devices: rig.devices.map((x) => (x.id === 'sw' ? { ...x, settings: { empty: value } } : x)),
        sounds: [s('a', 'A', [], { sw: { settings: { order: '1 6' } } })],
      });
    expect(at(empty('pass'), 'a', 'dg').levelDbu).not.toBeNull();
    expect(found(empty('pass'), 'empty-loop')[0]!.severity).toBe('advice');
    expect(at(empty('mute'), 'a', 'dg').levelDbu).toBeNull();
    expect(found(empty('mute'), 'empty-loop')[0]!.severity).toBe('fault');
  });
});

test('eight loops in free order over forty sounds: every sound plays its own order', () => {
  const rig = rigOf(
    [
      d('g', 'guitar-active', 'G'),
      d('sw', 'loop-switcher', 'SW'),
      ...Array.from({ length: 8 }, (_, i) =>
        d(`f${i + 1}`, i % 2 ? 'eq' : 'drive-low', `F${i + 1}`, { engaged: true }),
      ),
      d('c', 'console-input', 'C', { settings: { input: 'line' } }),
    ],
    [
      l('1', 'g.out', 'sw.in', 1),
      ...Array.from({ length: 8 }, (_, i) => i + 1).flatMap((n) => [
        l(`s${n}`, `sw.send${n}`, `f${n}.in`, 0.3),
        l(`r${n}`, `f${n}.out`, `sw.return${n}`, 0.3),
      ]),
      l('2', 'sw.out', 'c.in', 5),
    ],
    Array.from({ length: 40 }, (_, i) => {
      const turned = Array.from({ length: 8 }, (_x, k) => ((k * 3 + i) % 8) + 1).slice(
        0,
        1 + (i % 8),
      );
      return s(`s${i}`, `Sound ${i}`, [], { sw: { settings: { order: turned.join(' ') } } });
    }),
  );
  const r = whole(rig);
  for (const sound of rig.sounds) {
    const report = r.sounds.find((x) => x.sound === sound.id)!;
    const met = report.stations
      .filter((x) => x.device.startsWith('f') && report.destinations[0]!.route.includes(x.id))
      .sort((a, b) => a.column - b.column)
      .map((x) => x.device.slice(1));
    expect(met.join(' ')).toBe(sound.states.sw!.settings!.order);
    expect(report.cycles).toEqual([]);
  }
});

test('a loop order is read as it is written, or refused in words', () => {
  expect(readLoopOrder('2 1 (3+4@-6) 5', 8)).toEqual([
    [{ loop: 2, levelDb: 0 }],
    [{ loop: 1, levelDb: 0 }],
    [
      { loop: 3, levelDb: 0 },
      { loop: 4, levelDb: -6 },
    ],
    [{ loop: 5, levelDb: 0 }],
  ]);
  expect(readLoopOrder('1 9', 8)).toBe('there is no loop 9; it has loops 1 to 8');
  expect(readLoopOrder('1 2 1', 8)).toContain('stands in it twice');
});

describe('recreating a recorded part: one chain into two amplifiers', () => {
  const rig = (pad: string) =>
    rigOf(
      [
        d('g', 'guitar-single-coil', 'G'),
        d('fuzz', 'fuzz-low-impedance', 'Fuzz'),
        d('od', 'drive-low', 'OD'),
        d('boost', 'boost', 'Boost', { settings: { gain: 10 }, ...sheet({ ceilingDbu: 16 }) }),
        d('ch', 'chorus', 'Chorus', { settings: { pad } }),
        d('a', 'combo-tube', 'A'),
        d('rev', 'reverb', 'Reverb', { engaged: true }),
        d('b', 'combo-tube', 'B'),
      ],
      [
        l('1', 'g.out', 'fuzz.in', 4),
        l('2', 'fuzz.out', 'od.in', 0.3),
        l('3', 'od.out', 'boost.in', 0.3),
        l('4', 'boost.out', 'ch.in', 0.3),
        l('5', 'ch.out', 'a.in', 5),
        l('6', 'ch.outR', 'rev.in', 1),
        l('7', 'rev.out', 'b.in', 5),
      ],
      [
        s('verse', 'Verse', ['ch'], { od: { settings: { drive: 3 } } }),
        s('chorus', 'Chorus', ['od', 'boost', 'ch'], {
          od: { engaged: true, settings: { drive: 5, tone: 7.5 } },
        }),
        s('solo', 'Solo', ['fuzz', 'boost', 'ch']),
      ],
    );
  test('the big boost is too much for the chorus; its input set low gives 12 dB of room', () => {
    const hot = whole(rig('normal'));
    const f = found(hot, 'headroom').find((x) => x.subjects[0] === 'ch')!;
    expect(f.severity).toBe('fault');
    expect(f.fix!.words).toBe('Set Chorus, Input: low (12 dB more headroom, 12 dB more noise)');
    const room = (x: Report) =>
      x.sounds.find((y) => y.sound === 'chorus')!.stations.find((y) => y.device === 'ch')!
        .headroomDb!;
    expect(room(whole(rig('low'))) - room(hot)).toBeCloseTo(12, 6);
  });
  test('two amplifiers that get a side each are one stereo pair', () => {
    const r = whole(rig('low'));
    expect(at(r, 'verse', 'a')).toMatchObject({
      channels: 'mono',
      side: 'left',
      pairedWith: 'b',
      collapsedAt: null,
    });
    expect(at(r, 'verse', 'b')).toMatchObject({ side: 'right', pairedWith: 'a' });
  });
  test(
    'every section has its own pedals and knob positions; where one stands in for ' +
      'another, what fits is kept',
    () => {
      const r = rig('low');
      const { presses, turns } = pressesBetween(r, r.sounds[0]!, r.sounds[1]!);
      expect(presses.map((p) => p.device)).toEqual(['od', 'boost']);
      expect(turns).toEqual([
        { device: 'od', changes: ["Drive at 12 o'clock", 'Tone at half past 2'] },
      ]);
      const other = applyEdits(r, [
        { edit: 'replaceDevice', device: 'od', kind: 'drive-mid', name: 'Stand-in' },
      ]);
      expect(other.ok && other.value.rig.sounds[1]!.states.od!.settings).toEqual({
        drive: 5,
        tone: 7.5,
      });
    },
  );
});

describe('sends and returns of a modeler', () => {
  const rig = (pan: number, mix = 10) =>
    rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('m', 'modeler-floor', 'M'),
        d('drv', 'drive-mid', 'Drive'),
        d('dly', 'delay', 'Delay', { engaged: true, settings: { mix } }),
        d('amp', 'amp-block', 'Amp', { host: 'm' }),
        d('cab', 'cab-block', 'Cab', { host: 'm' }),
        d('pan', 'pan', 'Feed', { host: 'm', settings: { pan } }),
        d('mx', 'mixer-stereo', 'Merge', { host: 'm' }),
        d('desk', 'console-input-stereo', 'House', { settings: { input: 'line' } }),
      ],
      [
        l('1', 'g.out', 'm.in', 6),
        l('2', 'm.send1', 'drv.in', 1),
        l('3', 'drv.out', 'm.return1', 1),
        l('4', 'm.send2', 'dly.in', 1),
        l('5', 'dly.out', 'm.return3', 1),
        l('6', 'dly.outR', 'm.return4', 1),
        l('7', 'm.out', 'desk.in', 20, 'balanced'),
        l('8', 'm.outR', 'desk.inR', 20, 'balanced'),
        ...links(
          ['m.fromIn', 'm.toSend1'],
          ['m.fromReturn1', 'amp.in'],
          ['amp.out', 'cab.in'],
          ['cab.out', 'mx.a'],
          ['amp.out', 'pan.in'],
          ['pan.out', 'm.toSend1'],
          ['pan.outR', 'm.toSend2'],
          ['m.fromReturn3', 'mx.c'],
          ['m.fromReturn4', 'mx.d'],
          ['mx.out', 'm.toOut'],
          ['mx.outR', 'm.toOutR'],
        ),
      ],
      [s('a', 'A', ['drv'], { mx: { settings: { panC: -10, panD: 10 } } })],
    );
  test(
    'in the middle, the feed of the delay reaches the drive as well: a conflict of the ' +
      'pair, and a circle with gain',
    () => {
      const r = whole(rig(0));
      expect(found(r, 'pair-conflict')[0]).toMatchObject({
        severity: 'fault',
        fix: { words: 'Pan Feed hard right' },
      });
      expect(found(r, 'howl')[0]!.severity).toBe('fault');
      expect(r.sounds[0]!.cycles[0]!.devices.sort()).toEqual(['amp', 'drv', 'm', 'pan']);
      const cured = whole(fixed(rig(0), r, 'pair-conflict'));
      expect(rules(cured)).not.toContain('pair-conflict');
      expect(rules(cured)).not.toContain('howl');
      expect(rules(cured)).not.toContain('send-twice');
    },
  );
  test('hard right it is stereo, the sends are told, a path wants a block, and dry in a wet return is found', () => {
    const r = whole(rig(10));
    expect(at(r, 'a', 'desk')).toMatchObject({ channels: 'stereo', widenedBy: 'dly' });
    expect(r.sounds[0]!.hosts[0]!.loops.map((x) => [x.sends, x.returns])).toEqual([
      ['drv', 'drv'],
      ['dly', null],
      [null, 'dly'],
      [null, 'dly'],
    ]);
    expect(rules(r)).toContain('empty-path');
    expect(rules(r)).not.toContain('parallel-dry');
    const dry = whole(rig(10, 5));
    expect(found(dry, 'parallel-dry')[0]).toMatchObject({
      severity: 'caution',
      fix: { words: 'Set Delay to 100 % wet' },
    });
    expect(rules(whole(fixed(rig(10, 5), dry, 'parallel-dry')))).not.toContain('parallel-dry');
  });
});

describe('a rig without an amplifier', () => {
  const rig = (insert: 'none' | 'send' | 'both', trs = false, sim = true) =>
    rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('buf', 'buffer', 'Buffer', { engaged: true }),
        d('oct', 'octave', 'Octave'),
        d('trem', 'tremolo', 'Tremolo'),
        d('d1', 'drive-low', 'D1', { engaged: true, settings: { drive: 9 } }),
        d('vol', 'volume-active', 'Volume'),
        d('ip', 'insert-point', 'Insert'),
        d('guest', 'drive-high', 'Guest', { engaged: true }),
        d('ch', 'chorus', 'Chorus', { engaged: true }),
        d('sim', 'amp-cab-simulator-trs', 'Simulator', { engaged: sim }),
        d('dly', 'delay', 'Delay', { engaged: true }),
        d('rev', 'reverb', 'Reverb', { engaged: true }),
        d('di1', 'direct-box', 'DI 1'),
        d('di2', 'direct-box', 'DI 2'),
        d('desk', 'console-input-stereo', 'House'),
      ],
      [
        ...[
          ['g.out', 'buf.in'],
          ['buf.out', 'oct.in'],
          ['oct.out', 'trem.in'],
          ['trem.out', 'd1.in'],
          ['d1.out', 'vol.in'],
          ['vol.out', 'ip.in'],
          ['ip.out', 'ch.in'],
        ].map(([from, to], i) => l(`c${i}`, from!, to!, i ? 0.2 : 4)),
        ...(insert === 'none' ? [] : [l('g1', 'ip.send', 'guest.in', 1)]),
        ...(insert === 'both' ? [l('g2', 'guest.out', 'ip.return', 1)] : []),
        ...(trs
          ? [
              { ...l('9', 'ch.out', 'sim.in', 0.2, 'insert'), conductor: 'tip' as const },
              { ...l('9r', 'ch.outR', 'sim.in', 0.2, 'insert'), conductor: 'ring' as const },
            ]
          : [l('9', 'ch.out', 'sim.in', 0.2)]),
        l('10', 'sim.out', 'dly.in', 0.2),
        l('10r', 'sim.outR', 'dly.inR', 0.2),
        l('11', 'dly.out', 'rev.in', 0.2),
        l('11r', 'dly.outR', 'rev.inR', 0.2),
        l('12', 'rev.out', 'di1.in', 3),
        l('12r', 'rev.outR', 'di2.in', 3),
        l('13', 'di1.out', 'desk.in', 20, 'balanced'),
        l('13r', 'di2.out', 'desk.inR', 20, 'balanced'),
      ],
      [s('a', 'A', [])],
    );
  test(
    'nothing in the insert: signal goes on; a guest in it is passed; half plugged it is ' +
      'silence, with the reason',
    () => {
      expect(at(whole(rig('none')), 'a', 'desk').levelDbu).not.toBeNull();
      expect(at(whole(rig('both')), 'a', 'desk').thdPercent!.normal).toBeGreaterThan(
        at(whole(rig('none')), 'a', 'desk').thdPercent!.normal,
      );
      const half = whole(rig('send'));
      expect(at(half, 'a', 'desk').levelDbu).toBeNull();
      expect(found(half, 'half-loop')[0]!.what).toBe(
        'The insert of Insert is sent out and does not come back.',
      );
    },
  );
  test('one lead into the TRS input loses a side; the fix is an insert lead, tip left and ring right', () => {
    const r = whole(rig('none'));
    expect(found(r, 'half-pair')[0]!.fix!.words).toBe('Use an insert lead for both sides');
    const cured = fixed(rig('none'), r, 'half-pair');
    expect(
      cured.leads
        .filter((x) => x.to.device === 'sim')
        .map((x) => [x.type, x.conductor, x.from.jack]),
    ).toEqual([
      ['insert', 'tip', 'out'],
      ['insert', 'ring', 'outR'],
    ]);
    const station = whole(cured).sounds[0]!.stations.find((x) => x.device === 'sim')!;
    expect(station.width).toBe('stereo');
  });
  test(
    'with the simulator off, distortion reaches the house unfiltered: a fault; into a ' +
      'real combo it is none',
    () => {
      expect(found(whole(rig('none', true, false)), 'unfiltered')[0]!.severity).toBe('fault');
      expect(rules(whole(rig('none', true)))).not.toContain('unfiltered');
      const real = rig('none', true, false);
      const combo: Rig = {
        ...real,
        devices: [...real.devices, d('combo', 'combo-tube', 'Combo')],
        leads: [
          ...real.leads.filter((x) => !['12', '12r', '13', '13r'].includes(x.id)),
          l('c', 'rev.out', 'combo.in', 5),
        ],
      };
      expect(rules(whole(combo))).not.toContain('unfiltered');
    },
  );
  test('a cab block ahead of a real cabinet is a caution', () => {
    const two = rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('sim', 'amp-cab-simulator', 'Sim', { engaged: true }),
        d('pa', 'power-amp', 'PA'),
        d('c', 'cabinet', 'C'),
      ],
      [
        l('1', 'g.out', 'sim.in', 3),
        l('2', 'sim.out', 'pa.in', 1),
        l('3', 'pa.speaker', 'c.in', 1, 'speaker'),
      ],
    );
    expect(found(whole(two), 'two-cabinets')[0]).toMatchObject({
      severity: 'caution',
      fix: { words: 'Bypass Sim here' },
    });
  });
});

describe('a handful of slots', () => {
  const rig = (settings: Record<string, string>, source = 'guitar-humbucker') =>
    rigOf(
      [
        d('g', source, 'G'),
        d('m', 'modeler-compact', 'M', { settings }),
        d('a', 'amp-block', 'Amp', { host: 'm' }),
        d('desk', 'console-input', 'House', { settings: { input: 'line' } }),
      ],
      [
        l('1', 'g.out', 'm.in', 3),
        l('2', 'm.out', 'desk.in', 5),
        ...links(['m.fromIn', 'a.in'], ['a.out', 'm.toOut']),
      ],
    );
  test('a low input impedance takes treble from a bare pickup, told in decibels, and cured by a setting', () => {
    const r = whole(rig({ inputLoad: '22k' }));
    expect(found(r, 'host-input')[0]!.why).toMatch(/^That takes \d+\.\d dB at 5 kHz/);
    expect(rules(whole(fixed(rig({ inputLoad: '22k' }), r, 'host-input')))).not.toContain(
      'host-input',
    );
    expect(rules(whole(rig({ inputLoad: '22k' }, 'guitar-active')))).not.toContain('host-input');
  });
  test('line level into an instrument input clips, and line input under a pickup wastes its room', () => {
    const loud = rigOf(
      [
        d('g', 'line-instrument', 'G', sheet({ nominalDbu: 4, peakDbu: 18 })),
        d('m', 'modeler-compact', 'M'),
        d('desk', 'console-input', 'H', { settings: { input: 'line' } }),
      ],
      [
        l('1', 'g.out', 'm.in', 3),
        l('2', 'm.out', 'desk.in', 5),
        ...links(['m.fromIn', 'm.toOut']),
      ],
    );
    expect(found(whole(loud), 'headroom').find((f) => f.subjects[0] === 'm')!.fix!.words).toBe(
      'Set M, Input level: line',
    );
    expect(found(whole(rig({ inputLevel: 'line' })), 'host-input')[0]!.fix!.words).toBe(
      'Set M, Input level: instrument',
    );
  });
});

describe('nested and parallel loops around a two-channel pedal', () => {
  const rig = rigOf(
    [
      d('g', 'guitar-single-coil', 'G'),
      d('sy', 'synth-pedal', 'Synth', { engaged: true }),
      d('wah', 'wah', 'Wah'),
      d('ls', 'line-selector', 'Selector'),
      d('od', 'drive-low', 'OD', { engaged: true, settings: { tone: 3 } }),
      d('fz', 'drive-high', 'Fuzz', { engaged: true, settings: { tone: 8 } }),
      d('vp', 'volume-two-channel', 'Crossfader', { settings: { sense: 'opposite', pedal: 5 } }),
      d('mo', 'phaser', 'Modulation'),
      d('t', 'tuner-buffered', 'Tuner'),
      d('dly', 'delay', 'Delay', { engaged: true }),
      d('c', 'combo-tube', 'Combo'),
    ],
    [
      ...[
        ['g.out', 'sy.in'],
        ['sy.send', 'wah.in'],
        ['wah.out', 'ls.in'],
        ['ls.sendA', 'od.in'],
        ['od.out', 'vp.in1'],
        ['vp.out1', 'ls.returnA'],
        ['ls.sendB', 'fz.in'],
        ['fz.out', 'vp.in2'],
        ['vp.out2', 'ls.returnB'],
        ['ls.out', 'mo.in'],
        ['mo.out', 't.in'],
        ['t.out', 'sy.return'],
        ['sy.out', 'dly.in'],
        ['dly.out', 'c.in'],
      ].map(([from, to], i) => l(`c${i}`, from!, to!, 0.3)),
    ],
    [
      s('both', 'Both', [], { ls: { settings: { mode: 'mix' } } }),
      s('heel', 'Heel', [], { ls: { settings: { mode: 'mix' } }, vp: { settings: { pedal: 0 } } }),
      s('toe', 'Toe', [], { ls: { settings: { mode: 'mix' } }, vp: { settings: { pedal: 10 } } }),
      s('mute', 'Mute', ['t'], { ls: { settings: { mode: 'mix' } } }),
    ],
  );
  const r = whole(rig);
  test('the crossfader goes from one loop to the other; neither end is silent', () => {
    const level = (sound: string, ch: 1 | 2) =>
      r.sounds
        .find((x) => x.sound === sound)!
        .stations.find((x) => x.device === 'vp' && x.outs.includes(`out${ch}`))!.output.levelDbu
        ?.normal ?? -Infinity;
    expect(level('heel', 1)).toBeLessThan(level('both', 1) - 30);
    expect(level('toe', 2)).toBeLessThan(level('both', 2) - 30);
    expect(at(r, 'heel', 'c').levelDbu).not.toBeNull();
    expect(stations(r, 'both', 'sy')).toHaveLength(2);
    expect(stations(r, 'both', 'ls')).toHaveLength(2);
  });
  test('the late tuner mutes the dirt and the guitar; the synth’s own voice goes on and shares the delay', () => {
    const muted = r.sounds.find((x) => x.sound === 'mute')!;
    expect(muted.stations.find((x) => x.device === 't')!.state).toBe('muted');
    expect(muted.stations.find((x) => x.device === 'dly')!.output.levelDbu).not.toBeNull();
    expect(r.sounds.every((x) => x.cycles.length === 0)).toBe(true);
  });
});

describe('several amplifiers, several cabinets', () => {
  const rig = (unselected: string, change: Partial<Rig> = {}) =>
    rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('sw', 'amp-switcher', 'Switcher', { settings: { unselected } }),
        d('h1', 'head-tube-two', 'Head 1', sheet({ tapOhms: 8 })),
        d('h2', 'head-tube-two', 'Head 2', sheet({ tapOhms: 16 })),
        d('h3', 'head-tube', 'Head 3'),
        d('c1', 'cabinet', 'Cab 1'),
        d('c2', 'cabinet', 'Cab 2', sheet({ ohms: 16, watts: 200 })),
        d('att', 'attenuator', 'Attenuator', sheet({ watts: 200 })),
        d('dly', 'delay', 'Delay', { engaged: true }),
        d('t', 'tuner-rack', 'Tuner'),
      ],
      [
        l('1', 'g.out', 'sw.inRear', 6),
        ...[1, 2, 3].flatMap((n) => [
          l(`a${n}`, `sw.amp${n}`, `h${n}.in`, 2),
          l(`s${n}`, `h${n}.speaker`, `sw.speaker${n}`, 2, 'speaker'),
        ]),
        ...[1, 2].flatMap((n) => [
          l(`x${n}`, `h${n}.send`, `sw.send${n}`, 2),
          l(`y${n}`, `sw.return${n}`, `h${n}.return`, 2),
          l(`c${n}`, `sw.cab${n}`, `c${n}.in`, 3, 'speaker'),
        ]),
        l('ls', 'sw.loopSend', 'dly.in', 3),
        l('lr', 'dly.out', 'sw.loopReturn', 3),
        l('ts', 'sw.lineSend', 'att.in', 1, 'speaker'),
        l('tr', 'att.out', 'sw.lineReturn', 1, 'speaker'),
        l('t', 'sw.tuner', 't.in', 2),
      ],
      [
        s('a', 'One', [], { sw: { settings: { amp: '1', cab: '1' } } }),
        s('b', 'Two', [], { sw: { settings: { amp: '2', cab: '2' } } }),
        s('c', 'Three', [], { sw: { settings: { amp: '3', cab: '1' } } }),
        s('d', 'Tuning', [], { sw: { settings: { amp: 'none', cab: 'none' } } }),
      ],
      change,
    );
  test(
    'each state: the chosen amplifier and cabinet, the shared loop where the amplifier ' +
      'has one, nothing selected is silent tuning',
    () => {
      const r = whole(rig('load'));
      expect(
        r.sounds.map((x) => x.destinations.filter((y) => y.levelDbu).map((y) => y.device)),
      ).toEqual([['c1', 't'], ['c2', 't'], ['c1', 't'], ['t']]);
      expect(at(r, 'a', 'c1').latencyMs).toBe(1.5);
      expect(at(r, 'c', 'c1').latencyMs).toBe(0);
      expect(rules(r)).not.toContain('no-route');
      expect(rules(r)).not.toContain('no-load');
      expect(found(r, 'dead-controls')).toEqual([]);
    },
  );
  test('the attenuator serves every amplifier: the load each sees, by hand, and the wrong tap told', () => {
    const r = whole(rig('load'));
    const load = (sound: string, amp: string) =>
      r.sounds.find((x) => x.sound === sound)!.speakers.find((x) => x.amp === amp)!.loadOhms;
    expect([load('a', 'h1'), load('b', 'h2'), load('c', 'h3')]).toEqual([8, 8, 8]);
    expect(
      found(r, 'impedance')
        .filter((f) => f.subjects[0] === 'h2')
        .map((f) => [f.severity, f.subjects[1], f.sounds.join('')]),
    ).toEqual([
      ['caution', 'sw', 'acd'],
      ['caution', 'att', 'b'],
    ]);
  });
  test('where what is not selected sees nothing, every tube amplifier is in danger in some sound', () => {
    const r = whole(rig('open', { promises: [{ id: 'p', type: 'no-tube-unloaded' }] }));
    expect(
      found(r, 'no-load')
        .map((f) => [f.subjects[0], f.sounds.join('')])
        .sort(),
    ).toEqual([
      ['h1', 'bcd'],
      ['h2', 'acd'],
      ['h3', 'abd'],
    ]);
    expect(r.promises[0]!.breaches).toHaveLength(9);
  });
  test('the front input takes priority over the rear', () => {
    const both = rig('load');
    const r = whole({
      ...both,
      devices: [...both.devices, d('g2', 'guitar-single-coil', 'Second')],
      leads: [...both.leads, l('f', 'g2.out', 'sw.in', 3)],
    });
    expect(at(r, 'a', 'c1').sources).toEqual(['g2']);
  });
});

describe('two combos in stereo', () => {
  const rig = (after: boolean) =>
    rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('a', 'combo-modeling', 'Master'),
        d('b', 'combo-modeling', 'Slave'),
        d('amp', 'amp-block', 'Amp', { host: 'a' }),
        d('ch', 'chorus', 'Chorus', { host: 'a', engaged: true }),
      ],
      [
        l('1', 'g.out', 'a.in', 5),
        l('2', 'a.slaveOut', 'b.powerIn', 3),
        ...(after
          ? links(
              ['a.fromIn', 'amp.in'],
              ['amp.out', 'ch.in'],
              ['ch.out', 'a.toOut'],
              ['ch.outR', 'a.toOutR'],
            )
          : links(
              ['a.fromIn', 'ch.in'],
              ['ch.out', 'amp.in'],
              ['ch.outR', 'amp.inR'],
              ['amp.out', 'a.toOut'],
              ['amp.outR', 'a.toOutR'],
            )),
      ],
      [s('x', 'X', [])],
    );
  test('only what stands after the amp block comes out stereo', () => {
    const good = whole(rig(true));
    expect(at(good, 'x', 'a')).toMatchObject({
      side: 'left',
      pairedWith: 'b',
      widenedBy: 'ch',
      collapsedAt: null,
    });
    expect(at(good, 'x', 'b').levelDbu!.normal).toBeCloseTo(at(good, 'x', 'a').levelDbu!.normal, 1);
    const bad = whole(rig(false));
    expect(at(bad, 'x', 'a')).toMatchObject({ side: null, pairedWith: null, collapsedAt: 'amp' });
    expect(found(bad, 'collapse')[0]!.what).toBe('The width that Chorus makes is lost at Amp.');
  });
  test('an amplifier used by its return says which controls are dead', () => {
    const slave = rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('ma', 'combo-tube-loop', 'Master'),
        d('sl', 'combo-tube-loop', 'Slave'),
      ],
      [l('1', 'g.out', 'ma.in', 5), l('2', 'ma.send', 'sl.return', 3)],
    );
    expect(found(whole(slave), 'dead-controls')[0]!.what).toBe(
      'Gain, Tone, Master of Slave do nothing here.',
    );
  });
});

describe('the uses of a splitter', () => {
  const split = (kind: string, settings = {}, wet = false) =>
    rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('s', kind, 'Split', { settings }),
        d('a', 'combo-tube', 'A'),
        d('b', 'combo-tube', 'B'),
        ...(wet ? [d('dly', 'delay', 'Delay', { engaged: true, settings: { mix: 10 } })] : []),
      ],
      [
        l('1', 'g.out', 's.in', 3),
        l('2', 's.a', 'a.in', 5),
        ...(wet
          ? [l('3', 's.b', 'dly.in', 1), l('4', 'dly.out', 'b.in', 5)]
          : [l('3', 's.b', 'b.in', 5)]),
      ],
      [s('x', 'X', [])],
    );
  test('select: one plays, the other is silent without complaint', () => {
    const r = whole(split('splitter-isolated', { select: 'a' }));
    expect(r.sounds[0]!.destinations.map((x) => x.levelDbu !== null)).toEqual([true, false]);
    expect(rules(r)).not.toContain('silent');
  });
  test(
    'both: passive loads the source twice and closes a hum loop; isolated does neither; ' +
      'polarity is checked',
    () => {
      const passive = whole(split('splitter-passive'));
      const isolated = whole(split('splitter-isolated'));
      const loss = (r: Report) => r.sounds[0]!.tones.find((t) => t.bare)!.at5kHzDb;
      expect(loss(passive)).toBeLessThan(loss(isolated));
      expect(rules(passive)).toContain('hum-loop');
      expect(rules(isolated)).not.toContain('hum-loop');
      const turned = split('splitter-buffered', { invertB: true });
      const r = whole(turned);
      expect(found(r, 'polarity')[0]!.severity).toBe('fault');
      expect(rules(whole(fixed(turned, r, 'polarity')))).not.toContain('polarity');
    },
  );
  test('wet and dry: the dry side stays dry, the wet side has echoes only', () => {
    const r = whole(split('splitter-isolated', {}, true));
    expect(at(r, 'x', 'a').latencyMs).toBe(0);
    expect(at(r, 'x', 'b').route).toContain('dly');
    expect(rules(r)).not.toContain('comb');
  });
  test('two instruments into one: selecting is clean, a passive blend loads both, by hand', () => {
    const combine = (select: string) =>
      rigOf(
        [
          d('g', 'guitar-active', 'G', sheet({ outputOhms: 10_000 })),
          d('h', 'guitar-active', 'H', sheet({ outputOhms: 30_000 })),
          d('s', 'combiner-passive', 'Join', { settings: { select } }),
          d('loop', 'looper', 'Looper', { engaged: true, ...sheet({ inputOhms: 1e8 }) }),
          d('a', 'combo-tube', 'A'),
        ],
        [
          l('1', 'g.out', 's.a', 0),
          l('2', 'h.out', 's.b', 0),
          l('3', 's.out', 'loop.in', 0),
          l('4', 'loop.out', 'a.in', 0),
        ],
      );
    expect(rules(whole(combine('a')))).not.toContain('blend-loading');
    const blend = whole(combine('both'));
    // 10 kΩ against 30 kΩ: 20·log10(30/40) and 20·log10(10/40).
    expect(found(blend, 'blend-loading')[0]!.why).toContain('G loses 2.5 dB and H loses 12.0 dB');
    expect(rules(whole(fixed(combine('both'), blend, 'blend-loading')))).not.toContain(
      'blend-loading',
    );
  });
  test('a tuner tap: the main line is metal only, the tuner hears at all times, engaged it mutes', () => {
    const tap = rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('s', 'splitter-tuner', 'Tap'),
        d('t', 'tuner-rack', 'Tuner'),
        d('f', 'fuzz-low-impedance', 'Fuzz', { engaged: true }),
        d('a', 'combo-tube', 'A'),
      ],
      [
        l('1', 'g.out', 's.in', 3),
        l('2', 's.tuner', 't.in', 1),
        l('3', 's.out', 'f.in', 1),
        l('4', 'f.out', 'a.in', 5),
      ],
      [s('x', 'X', []), s('m', 'Mute', ['s'])],
    );
    const r = whole(tap);
    expect(rules(r)).not.toContain('bare-pickup');
    expect([at(r, 'x', 't'), at(r, 'm', 't')].every((x) => x.levelDbu)).toBe(true);
    expect(at(r, 'm', 'a').levelDbu).toBeNull();
    expect(rules(r)).not.toContain('loading');
  });
});

describe('speakers, by hand', () => {
  const line = (cabs: number[], how: 'parallel' | 'series', tap: number, watts = 50) =>
    rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('h', 'head-tube', 'H', sheet({ tapOhms: tap, watts })),
        ...(how === 'series' ? [d('box', 'speaker-series', 'Box')] : []),
        ...cabs.map((ohms, i) => d(`c${i}`, 'cabinet', `C${i}`, sheet({ ohms }))),
      ],
      [
        l('1', 'g.out', 'h.in', 3),
        ...(how === 'series'
          ? [
              l('2', 'h.speaker', 'box.in', 1, 'speaker'),
              ...cabs.map((_, i) => l(`c${i}`, `box.${'ab'[i]}`, `c${i}.in`, 1, 'speaker')),
            ]
          : cabs.map((_, i) =>
              l(`c${i}`, i ? `c${i - 1}.link` : 'h.speaker', `c${i}.in`, 1, 'speaker'),
            )),
      ],
    );
  test.each([
    [[16, 16], 'parallel', 8, 8, undefined],
    [[8, 16], 'parallel', 4, 5.33, 'caution'],
    [[8, 8], 'series', 16, 16, undefined],
    [[4], 'parallel', 8, 4, 'caution'],
    [[16], 'parallel', 4, 16, 'danger'],
    [[16, 16, 16], 'parallel', 8, 5.33, 'caution'],
  ] as const)('cabinets of %j Ω in %s on a tap of %d Ω: %d Ω', (cabs, how, tap, ohms, severity) => {
    const r = whole(line([...cabs], how, tap));
    expect(r.sounds[0]!.speakers[0]!.loadOhms).toBeCloseTo(ohms, 2);
    expect(found(r, 'impedance')[0]?.severity).toBe(severity);
  });
  test(
    'power is shared by impedance; a cabinet under the power is a fault, under one and ' +
      'a half times a caution',
    () => {
      const power = (watts: number) =>
        found(whole(line([8, 16], 'parallel', 5, watts)), 'speaker-power').map((f) => [
          f.subjects[0],
          f.severity,
        ]);
      // 8 Ω takes two thirds, 16 Ω one third; both are rated 120 W.
      expect(power(100)).toEqual([]);
      expect(power(150)).toEqual([['c0', 'caution']]);
      expect(power(300)).toEqual([
        ['c0', 'fault'],
        ['c1', 'caution'],
      ]);
    },
  );
  test('one cabinet pulled out of a series box leaves no load', () => {
    const rig = line([8, 8], 'series', 16);
    expect(rules(whole({ ...rig, leads: rig.leads.filter((x) => x.id !== 'c1') }))).toContain(
      'no-load',
    );
  });
  test('two amplifiers on one cabinet are a danger; a switcher that connects one at a time is not', () => {
    const two = rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('s', 'splitter-buffered', 'S'),
        d('a', 'head-tube', 'A'),
        d('b', 'head-tube', 'B'),
        d('c', 'cabinet', 'C'),
      ],
      [
        l('1', 'g.out', 's.in', 3),
        l('2', 's.a', 'a.in', 1),
        l('3', 's.b', 'b.in', 1),
        l('4', 'a.speaker', 'c.in', 1, 'speaker'),
        l('5', 'b.speaker', 'c.link', 1, 'speaker'),
      ],
    );
    expect(found(whole(two), 'two-amps')[0]!.severity).toBe('danger');
  });
  test('the lead’s own resistance, by the formula', () => {
    const rig = line([8], 'parallel', 8);
    const long: Rig = {
      ...rig,
      leads: rig.leads.map((x) => (x.type === 'speaker' ? { ...x, metres: 30, squareMm: 1.5 } : x)),
    };
    expect(whole(long).sounds[0]!.speakers[0]!.lossDb).toBeCloseTo(
      20 * Math.log10(8 / (8 + 2 * 30 * 0.0115)),
      2,
    );
    expect(rules(whole(long))).toContain('speaker-lead-loss');
  });
});

describe('circles and ground, against a graph library', () => {
  const matrix = rigOf(
    [
      d('g', 'guitar-active', 'G'),
      d('m1', 'mixer-stereo', 'Mix 1'),
      d('b1', 'boost', 'B1', { engaged: true }),
      d('s1', 'splitter-buffered', 'S1'),
      d('b2', 'boost', 'B2', { engaged: true }),
      d('s2', 'splitter-buffered', 'S2'),
      d('e', 'eq', 'E', { engaged: true }),
      d('c', 'console-input', 'C'),
    ],
    [
      l('1', 'g.out', 'm1.a', 1),
      l('2', 'm1.out', 'b1.in', 1),
      l('3', 'b1.out', 's1.in', 1),
      l('4', 's1.a', 'b2.in', 1),
      l('5', 's1.b', 'm1.b', 1),
      l('6', 'b2.out', 's2.in', 1),
      l('7', 's2.a', 'c.in', 1),
      l('8', 's2.b', 'e.in', 1),
      l('9', 'e.out', 'm1.c', 1),
    ],
    [
      s('x', 'X', []),
      s('y', 'Y', [], { s1: { settings: { select: 'a' } } }),
      s('z', 'Z', [], { s1: { settings: { select: 'a' } }, s2: { settings: { select: 'a' } } }),
    ],
  );
  const graphOf = (report: SoundReport) => {
    const graph = new DirectedGraph();
    for (const x of report.stations) graph.mergeNode(x.device);
    for (const x of report.steps)
      if (!x.open) graph.mergeEdge(x.from.split(':')[0]!, x.to.split(':')[0]!);
    return graph;
  };
  test('every circle is named with its gain and the press that opens it, in just the sounds that have it', () => {
    const r = whole(matrix);
    const named = (sound: string) =>
      r.sounds
        .find((x) => x.sound === sound)!
        .cycles.map((c) => [...c.devices].sort().join(' '))
        .sort();
    expect(named('x')).toEqual(['b1 b2 e m1 s1 s2', 'b1 m1 s1']);
    expect(named('y')).toEqual(['b1 b2 e m1 s1 s2']);
    expect(named('z')).toEqual([]);
    for (const report of r.sounds) {
      const tangled = stronglyConnectedComponents(graphOf(report))
        .filter((c) => c.length > 1)
        .flat()
        .sort();
      expect([...new Set(report.cycles.flatMap((c) => c.devices))].sort()).toEqual(tangled);
      for (const c of report.cycles) expect(c.opens!.edits).toHaveLength(1);
    }
    const pressed = fixed(
      matrix,
      {
        ...r,
        findings: r.findings.filter(
          (f) => f.rule === 'howl' && f.sounds.includes('y') && f.subjects.includes('e'),
        ),
      },
      'howl',
    );
    expect(whole(pressed).sounds.find((x) => x.sound === 'x')!.cycles.length).toBeLessThan(2);
  });
  test('as many hum loops as there are independent circles of ground', () => {
    for (const rig of [
      matrix,
      rigOf(
        matrix.devices,
        matrix.leads.filter((x) => x.id !== '9'),
      ),
    ]) {
      const ties = groundTies(rig, rig.sounds[0]).filter((t) => t.a !== t.b);
      const graph = new UndirectedGraph();
      ties.forEach((t) => {
        graph.mergeNode(t.a);
        graph.mergeNode(t.b);
        graph.mergeEdge(t.a, t.b);
      });
      expect(whole(rig).sounds[0]!.humLoops).toHaveLength(
        ties.length - graph.order + connectedComponents(graph).length,
      );
    }
  });
  test('every hum loop is closed: each of its chassis is met by two of its ties', () => {
    for (const loop of whole(matrix).sounds[0]!.humLoops) {
      const met = new Map<string, number>();
      for (const t of loop.ties) for (const n of [t.a, t.b]) met.set(n, (met.get(n) ?? 0) + 1);
      expect([...met.values()].every((n) => n === 2)).toBe(true);
    }
  });
});

test('a host inside a host: links, budgets and the walk go all the way down', () => {
  const rig = rigOf(
    [
      d('g', 'guitar-active', 'G'),
      d('outer', 'modeler-rack', 'Outer'),
      d('inner', 'modeler-compact', 'Inner', { host: 'outer' }),
      d('drv', 'drive-low', 'Drive', { host: 'inner', engaged: true }),
      d('desk', 'console-input', 'H', { settings: { input: 'line' } }),
    ],
    [
      l('1', 'g.out', 'outer.in', 3),
      l('2', 'outer.out', 'desk.in', 5),
      ...links(
        ['outer.fromIn', 'inner.in'],
        ['inner.out', 'outer.toOut'],
        ['inner.fromIn', 'drv.in'],
        ['drv.out', 'inner.toOut'],
      ),
    ],
  );
  const r = whole(rig);
  expect(at(r, 's1', 'desk').route.map((id) => id.split(':')[0])).toEqual([
    'g',
    'outer',
    'inner',
    'drv',
    'inner',
    'outer',
    'desk',
  ]);
  expect(r.sounds[0]!.hosts.map((h) => [h.host, h.blocks])).toEqual([
    ['outer', ['inner']],
    ['inner', ['drv']],
  ]);
});

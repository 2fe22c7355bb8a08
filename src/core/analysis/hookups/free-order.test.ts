import { readLoopOrder } from '../../kinds/loop-order';
import { refused } from '../../outcome';
import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { valueOf } from '../../testing/value-of';
import { at, found, links, rules, stations, whole } from './by-hand';

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
  expect(valueOf(readLoopOrder('2 1 (3+4@-6) 5', 8))).toEqual([
    [{ loop: 2, levelDb: 0 }],
    [{ loop: 1, levelDb: 0 }],
    [
      { loop: 3, levelDb: 0 },
      { loop: 4, levelDb: -6 },
    ],
    [{ loop: 5, levelDb: 0 }],
  ]);
  expect(readLoopOrder('1 9', 8)).toEqual(refused('there is no loop 9; it has loops 1 to 8'));
  expect(readLoopOrder('1 2 1', 8)).toEqual(
    refused(expect.stringContaining('stands in it twice') as string),
  );
});

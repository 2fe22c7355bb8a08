import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { links, whole, rules, at } from './by-hand';

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

import { applyEdits, type Rig } from '../../rig';
import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { links, whole, rules, at } from './by-hand';

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

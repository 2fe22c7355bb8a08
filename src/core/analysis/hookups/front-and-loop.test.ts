import { type Lead } from '../../rig';
import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { links, whole, rules, found, at, fixed, stations } from './by-hand';

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

import { type Rig } from '../../rig';
import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { whole, rules, found, at, fixed } from './by-hand';

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

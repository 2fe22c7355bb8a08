import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { whole, at, stations } from './by-hand';

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

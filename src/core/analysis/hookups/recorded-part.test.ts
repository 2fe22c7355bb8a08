import { applyEdits } from '../../rig';
import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { pressesBetween } from '../../midi';
import { type Report } from '../../report/report';
import { sheet, whole, found, at } from './by-hand';

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

import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { links, whole, found, at } from './by-hand';

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
      'Gain, Tone and Master of Slave do nothing here.',
    );
  });
});

import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { links, whole, rules, found, at, fixed } from './by-hand';

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

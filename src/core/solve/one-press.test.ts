import { touringRig } from '../demo';
import { pressesBetween } from '../midi';
import { refused } from '../outcome';
import { applyEdits, type Rig } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { proposeOnePress } from '.';

describe('ways to one press', () => {
  test('pedals go into loops of a switcher: one press, and nothing that is heard changes', () => {
    const rig = rigOf(
      ['guitar-active', 'drive-low', 'drive-mid', 'chorus', 'buffer', 'console-input'].map((k, i) =>
        device(`d${i}`, k, `D${i}`, k === 'console-input' ? { settings: { input: 'line' } } : {}),
      ),
      [0, 1, 2, 3, 4].map((i) => lead(`l${i}`, `d${i}.out`, `d${i + 1}.in`, 0.5)),
      [sound('x', 'X', ['d1']), sound('y', 'Y', ['d2', 'd3'])],
    );
    const found = valueOf(proposeOnePress(rig, 'x', 'y'));
    expect(found[0]!.after.presses).toHaveLength(1);
    expect(found[0]!.words).toBe('Put D1, D2, D3 into loops of a loop switcher');
    expect(found[0]!.changes).toEqual([]);
    const done = applyEdits(rig, found[0]!.edits);
    expect(
      done.ok &&
        pressesBetween(
          done.value.rig,
          ...(done.value.rig.sounds as [Rig['sounds'][number], Rig['sounds'][number]]),
        ).presses,
    ).toHaveLength(1);
  });
  test('what knows MIDI is called by a foot controller; blocks of a host are put on one switch', () => {
    const midi = rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('e', 'delay', 'E'),
        device('r', 'reverb', 'R'),
        device('c', 'console-input', 'C'),
      ],
      [lead('1', 'g.out', 'e.in', 1), lead('2', 'e.out', 'r.in', 1), lead('3', 'r.out', 'c.in', 1)],
      [sound('x', 'X', ['e']), sound('y', 'Y', ['r'])],
    );
    const found = valueOf(proposeOnePress(midi, 'x', 'y'));
    expect(found[0]!.after.presses).toHaveLength(1);
    expect(found[0]!.words).toBe('Let a foot controller call E, R');
  });
  test('what is one press already is said', () =>
    expect(proposeOnePress(touringRig, 'crunch', 'rhythm')).toEqual(
      refused('From Crunch to Kiln rhythm it takes one press as it is.'),
    ));
});

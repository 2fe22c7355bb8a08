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
  test('what a controller reaches by control changes goes on one switch of it: off is the first sound, on the second', () => {
    const stands = (id: string, name: string, mix: number, rate: number) => ({
      ...sound(id, name, []),
      states: {
        e: { engaged: true, settings: { mix } },
        m: { engaged: true, settings: { rate } },
      },
    });
    const rig = rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('e', 'delay', 'Echo'),
        device('m', 'modulation-digital', 'Swirl'),
        device('f', 'foot-controller', 'Foot', { midi: { clock: 'ignore' } }),
        device('c', 'console-input', 'C', { settings: { input: 'line' } }),
      ],
      [
        lead('1', 'g.out', 'e.in', 1),
        lead('2', 'e.out', 'm.in', 1),
        lead('3', 'm.out', 'c.in', 1),
        lead('4', 'f.midiOut', 'e.midiIn', 1, 'midi'),
        lead('5', 'e.midiThru', 'm.midiIn', 1, 'midi'),
      ],
      [stands('x', 'Thin', 2, 3), stands('y', 'Thick', 6, 7)],
    );
    const ways = valueOf(proposeOnePress(rig, 'x', 'y'));
    const way = ways.find((f) => f.words.startsWith('Put 2 assignments'))!;
    expect(way.words).toBe('Put 2 assignments on one switch of Foot');
    const done = applyEdits(rig, way.edits);
    if (!done.ok) throw new Error(JSON.stringify(done.problems));
    const [control] = done.value.rig.controls!;
    expect(
      control!.assigns.map(({ device: d, setting, off, on }) => [d, setting, off, on]),
    ).toEqual([
      ['e', 'mix', 2, 6],
      ['m', 'rate', 3, 7],
    ]);
    expect(control).toMatchObject({ name: 'Thin / Thick', device: 'f', action: 'latching' });
    const [thin, thick] = done.value.rig.sounds;
    expect([thin!.controls?.[control!.id], thick!.controls?.[control!.id]]).toEqual([false, true]);
    for (const [from, to] of [
      [thin!, thick!],
      [thick!, thin!],
    ] as const)
      expect(pressesBetween(done.value.rig, from, to).presses).toHaveLength(1);
    expect(way.changes).toEqual([]);
  });
  test('what is one press already is said', () =>
    expect(proposeOnePress(touringRig, 'crunch', 'rhythm')).toEqual(
      refused('From Crunch to Kiln rhythm it takes one press as it is.'),
    ));
});

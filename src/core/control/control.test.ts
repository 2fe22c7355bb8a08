import { device, lead, rigOf, sound } from '../testing/rigs';
import { endsOf, pressesBetween, reachOf } from '.';

const two = rigOf(
  [device('g', 'guitar-active', 'Mandolin'), device('v', 'volume-active', 'Swell'), device('s', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }), device('d', 'drive-low', 'Brine'), device('a', 'combo-tube', 'Left'), device('b', 'combo-tube', 'Right')],
  [lead('1', 'g.out', 's.in', 1), lead('2', 's.a', 'v.in', 1), lead('3', 'v.out', 'a.in', 1), lead('4', 's.b', 'd.in', 1), lead('5', 'd.out', 'b.in', 1)],
  [sound('clean', 'Clean', []), sound('dirty', 'Dirty', ['d'])],
);

test('a pedal reaches the destinations behind it and no other', () => {
  const reached = reachOf(two, two.sounds[1]!, 'v', 'pedal');
  expect(reached.map((r) => r.destination)).toEqual(['a']);
  expect(reached[0]!.what.join()).toMatch(/level|far end/);
  expect(reachOf(two, two.sounds[1]!, 'd', 'drive').map((r) => r.destination)).toEqual(['b']);
});

test('the gain of a drive that is off reaches nothing', () => expect(reachOf(two, two.sounds[0]!, 'd', 'drive')).toEqual([]));

test('the ends of a knob are its two, of a choice all its options, of an unknown setting none', () => {
  expect(endsOf(two, 'd', 'drive')).toEqual([0, 10]);
  expect(endsOf(two, 's', 'select')).toEqual(['both', 'a', 'b']);
  expect(endsOf(two, 'd', 'nothing')).toEqual([]);
});

test('a press for each switch, a turn for each knob; one press where a switcher has programs', () => {
  const [a, b] = [two.sounds[0]!, sound('b', 'B', ['d'], { a: { settings: { gain: 8 } } })];
  expect(pressesBetween(two, a, b)).toMatchObject({ presses: [{ device: 'd', changes: ['on'] }], turns: [{ device: 'a' }] });
  expect(pressesBetween(two, a, a)).toEqual({ presses: [], turns: [] });
  const states = { s: { settings: { order: '1 2' } } };
  const board = rigOf([device('s', 'loop-switcher', 'S')], [], [sound('x', 'X', []), sound('y', 'Y', [], states)]);
  expect(pressesBetween(board, board.sounds[0]!, board.sounds[1]!).presses).toHaveLength(1);
});

import { touringRig } from '../demo';
import type { Device } from './schema';
import { sameToTheEar, sameToTheHand } from './to-the-ear';

const { devices } = touringRig;
const changed = (of: Partial<Device>): Device[] =>
  devices.map((d) => (d.id === 'kiln' ? { ...d, ...of } : d));
const at = devices.find((d) => d.id === 'kiln')!.at!;

test.each<[string, Partial<Device>, ear: boolean, hand: boolean]>([
  ['nothing but the object', {}, true, true],
  ['a note', { notes: 'squeaks' }, true, true],
  ['a weight', { gear: { grams: 431 } }, true, false],
  ['a place on its board', { at: { ...at, x: at.x + 5 } }, true, false],
  ['another board', { at: { ...at, board: 'other' } }, false, false],
  ['a place in a rack', { rack: { rack: 'tide-rack', unit: 3 } }, true, false],
  ['a size', { size: { width: 70, depth: 120, height: 50 } }, true, false],
  ['a name, which words tell', { name: 'Kiln two' }, false, false],
  ['a knob', { settings: { drive: 1 } }, false, false],
  ['a figure', { figures: { noise: { value: -80, from: 'measured' } } }, false, false],
  ['its power', { power: { milliamps: 30 } }, false, false],
])('%s', (_, change, ear, hand) => {
  const other = changed(change);
  expect(sameToTheEar(devices, other)).toBe(ear);
  expect(sameToTheHand(devices, other)).toBe(hand);
  expect(sameToTheEar(other, devices)).toBe(ear);
});

test('one device more or fewer is another rig', () => {
  expect(sameToTheEar(devices, devices.slice(1))).toBe(false);
  expect(sameToTheHand(devices.slice(1), devices)).toBe(false);
});

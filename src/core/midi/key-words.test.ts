import { touringRig } from '../demo';
import { kindOf } from '../kinds';
import { nameOf } from '../rig';
import { keyName, keyWords } from './key-words';
import { programKey } from './mismatch';

test('what is not as wanted is called as on the device: its program, whether it is on, its knobs', () => {
  expect(keyName(touringRig, 'kiln', programKey('kiln'))).toBe('program');
  expect(keyName(touringRig, 'kiln', 'kiln engaged')).toBe('on or off');
  for (const { id, label } of kindOf('drive-mid').parameters)
    expect(keyName(touringRig, 'kiln', `kiln ${id}`)).toBe(label);
  // What a box switches for another is told with that other.
  expect(keyName(touringRig, 'skeg', 'kiln engaged')).toBe(
    `on or off of ${nameOf(touringRig, 'kiln')}`,
  );
});

test('what should be and what is, in the words of the kind; what is not in the rig does not break it', () => {
  const said = (key: string, wanted: boolean, got?: boolean) =>
    keyWords(touringRig, { device: 'kiln', key, wanted, got });
  expect(said('kiln engaged', true, false)).toBe('Kiln Drive should be engaged and is bypassed');
  expect(said('tuner engaged', true)).toBe(
    `Kiln Drive, Tuner should be ${kindOf('tuner-buffered').stateWords!.on} and is nothing`,
  );
  expect(keyName(touringRig, 'kiln', 'gone level')).toBe('level of gone');
});

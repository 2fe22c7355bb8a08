import { defineKind } from './define';
import { modelerOf, straightLinks } from './host-parts';

export const modelerFloor = defineKind({
  ...modelerOf({ loops: 4, aux: true, digitalIn: 4, digitalOut: 2, second: true }),
  id: 'modeler-floor',
  name: 'Modeler, floor',
  about:
    'Converters around two paths of blocks. Four sends and returns in pairs, two output pairs, digital in and out.',
  hosts: { slots: 16, percent: 100, paths: 2, links: straightLinks },
  power: { volts: 12, milliamps: 2500, noisy: true },
  size: { width: 560, depth: 300, height: 90, grams: 6500 },
});

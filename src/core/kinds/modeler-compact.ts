import { defineKind } from './define';
import { modelerOf, straightLinks } from './host-parts';
import { medium } from './parts';

export const modelerCompact = defineKind({
  ...modelerOf({ loops: 2 }),
  id: 'modeler-compact',
  name: 'Modeler, compact',
  about: 'A small modeler with a handful of slots, one path and one stereo loop.',
  hosts: { slots: 5, percent: 100, paths: 1, links: straightLinks },
  power: { volts: 9, milliamps: 500, noisy: true },
  size: medium,
});

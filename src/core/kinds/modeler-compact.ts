import { modelerOf, straightLinks } from './host-parts';
import type { Kind } from './kind';
import { medium } from './parts';

export const modelerCompact: Kind = {
  ...modelerOf({ loops: 2 }),
  id: 'modeler-compact',
  name: 'Modeler, compact',
  about: 'A small modeler with a handful of slots, one path and one stereo loop.',
  hosts: { slots: 5, percent: 100, paths: 1, links: straightLinks },
  power: { volts: 9, milliamps: 500, noisy: true },
  size: medium,
};

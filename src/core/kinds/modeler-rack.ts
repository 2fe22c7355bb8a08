import { defineKind } from './define';
import { modelerOf, straightLinks } from './host-parts';
import { worldMains } from './parts';

export const modelerRack = defineKind({
  ...modelerOf({ loops: 4, aux: true, digitalIn: 4, digitalOut: 4, second: true }),
  id: 'modeler-rack',
  name: 'Modeler, rack',
  about:
    'Two rack units on mains. Up to four paths of blocks, four sends and returns in ' +
    'pairs, two output pairs, digital in and out.',
  hosts: { slots: 24, percent: 100, paths: 4, links: straightLinks },
  earth: 'in',
  rackUnits: 2,
  mains: { ...worldMains, watts: 60 },
  size: { width: 483, depth: 300, height: 88, grams: 6000 },
});

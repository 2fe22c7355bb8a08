import { hostFigures, hostJacks, hostLoops, hostParameters, hostPasses } from './host-parts';
import type { Kind } from './kind';
import { through } from './parts';

const PLAN = { loops: 4, aux: true, digitalIn: 4, digitalOut: 4, second: true };

export const modelerRack: Kind = {
  id: 'modeler-rack',
  name: 'Modeler, rack',
  family: 'Modelers',
  job: 'modeler',
  about: 'Two rack units on mains. Up to four paths of blocks, four sends and returns in pairs, two output pairs, digital in and out.',
  jacks: hostJacks(PLAN),
  figures: hostFigures,
  parameters: hostParameters,
  through,
  startsEngaged: true,
  stateWords: { on: 'on', off: 'off' },
  programs: true,
  loops: hostLoops(PLAN),
  hosts: { slots: 24, percent: 100, paths: 4, links: [['fromIn', 'toOut'], ['fromIn', 'toOutR']] },
  earth: 'in',
  size: { width: 483, depth: 300, height: 88, grams: 6000 },
  passes: (s, plugged) => hostPasses(s, PLAN, plugged),
};

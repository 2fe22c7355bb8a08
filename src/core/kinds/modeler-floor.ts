import { hostFigures, hostJacks, hostLoops, hostParameters, hostPasses } from './host-parts';
import type { Kind } from './kind';
import { through } from './parts';

const PLAN = { loops: 4, aux: true, digitalIn: 4, digitalOut: 2, second: true };

export const modelerFloor: Kind = {
  id: 'modeler-floor',
  name: 'Modeler, floor',
  family: 'Modelers',
  job: 'modeler',
  about: 'Converters around two paths of blocks. Four sends and returns in pairs, two output pairs, digital in and out.',
  jacks: hostJacks(PLAN),
  figures: hostFigures,
  parameters: hostParameters,
  through,
  startsEngaged: true,
  stateWords: { on: 'on', off: 'off' },
  programs: true,
  loops: hostLoops(PLAN),
  hosts: { slots: 16, percent: 100, paths: 2, links: [['fromIn', 'toOut'], ['fromIn', 'toOutR']] },
  power: { volts: 12, milliamps: 2500 },
  size: { width: 560, depth: 300, height: 90, grams: 6500 },
  passes: (s, plugged) => hostPasses(s, PLAN, plugged),
};

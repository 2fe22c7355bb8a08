import { hostFigures, hostJacks, hostLoops, hostParameters, hostPasses } from './host-parts';
import type { Kind } from './kind';
import { medium, through } from './parts';

const PLAN = { loops: 2 };

export const modelerCompact: Kind = {
  id: 'modeler-compact',
  name: 'Modeler, compact',
  family: 'Modelers',
  job: 'modeler',
  about: 'A small modeler with a handful of slots, one path and one stereo loop.',
  jacks: hostJacks(PLAN),
  figures: hostFigures,
  parameters: hostParameters,
  through,
  startsEngaged: true,
  stateWords: { on: 'on', off: 'off' },
  programs: true,
  loops: hostLoops(PLAN),
  hosts: { slots: 5, percent: 100, paths: 1, links: [['fromIn', 'toOut'], ['fromIn', 'toOutR']] },
  power: { volts: 9, milliamps: 500 },
  size: medium,
  passes: (s, plugged) => hostPasses(s, PLAN, plugged),
};

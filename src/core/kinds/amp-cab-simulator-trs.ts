import type { Kind } from './kind';
import { ampCabSimulator } from './amp-cab-simulator';
import { stereoOuts } from './parts';

export const ampCabSimulatorTrs: Kind = {
  ...ampCabSimulator,
  id: 'amp-cab-simulator-trs',
  name: 'Amp and cab simulator, stereo input on one TRS jack',
  about:
    'Stands for an amplifier and its cabinet on each side. Both sides come in by one ' +
    'TRS jack, tip left and ring right: two TS outputs reach it over an insert lead.',
  jacks: [
    {
      id: 'in',
      label: 'in (TRS: tip left, ring right)',
      direction: 'in',
      signal: 'audio',
      connector: 'TRS',
      stereo: 'inR',
    },
    ...stereoOuts,
  ],
};

import { inputSelect } from './amp-parts';
import { deskFigures, deskInput } from './desk-input';
import type { Kind } from './kind';
import { inJack } from './parts';

export const consoleInput: Kind = {
  id: 'console-input',
  name: 'Console input',
  family: 'Outputs',
  job: 'destination',
  about: 'One channel of the house console.',
  jacks: [{ ...inJack, connector: 'combo' }],
  figures: deskFigures,
  parameters: [inputSelect],
  alwaysOn: true,
  earth: 'in',
  destination: { jacks: ['in'], hears: 'house' },
  passes: (s) => [deskInput(s, 'in')],
};

import { defineKind } from './define';
import { inputSelect } from './amp-parts';
import { deskFigures, deskInput } from './desk-input';
import { inJack } from './parts';

export const consoleInput = defineKind({
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
});

import { defineKind } from './define';
import { inputSelect } from './amp-parts';
import { deskFigures, deskInput } from './desk-input';
import { stereoIns } from './parts';

export const consoleInputStereo = defineKind({
  id: 'console-input-stereo',
  name: 'Console input, stereo pair',
  family: 'Outputs',
  job: 'destination',
  about: 'Two channels of the house console, panned left and right.',
  jacks: stereoIns,
  figures: deskFigures,
  parameters: [inputSelect],
  alwaysOn: true,
  earth: 'in',
  destination: { jacks: ['in', 'inR'], hears: 'house' },
  passes: (s) => [deskInput(s, 'in'), deskInput(s, 'inR')],
});

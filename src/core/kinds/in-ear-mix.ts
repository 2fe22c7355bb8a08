import { deskFigures, deskInput } from './desk-input';
import type { Kind } from './kind';
import { choice, stereoIns } from './parts';

export const inEarMix: Kind = {
  id: 'in-ear-mix',
  name: 'In-ear mix input',
  family: 'Outputs',
  job: 'destination',
  about: 'What feeds a player’s in-ear pack. Set levels with ears out.',
  jacks: stereoIns,
  figures: deskFigures,
  parameters: [choice('input', 'Input', ['line', 'line'], ['mic', 'microphone'])],
  alwaysOn: true,
  earth: 'in',
  destination: { jacks: ['in', 'inR'], hears: 'in-ears' },
  passes: (s) => [deskInput(s, 'in'), deskInput(s, 'inR')],
};

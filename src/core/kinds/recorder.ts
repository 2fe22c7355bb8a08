import { deskFigures, deskInput } from './desk-input';
import type { Kind } from './kind';
import { choice, stereoIns } from './parts';

export const recorder: Kind = {
  id: 'recorder',
  name: 'Recorder input',
  family: 'Outputs',
  job: 'destination',
  about: 'Two tracks of a recorder.',
  jacks: stereoIns,
  figures: deskFigures,
  parameters: [choice('input', 'Input', ['line', 'line'], ['mic', 'microphone'])],
  alwaysOn: true,
  earth: 'in',
  destination: { jacks: ['in', 'inR'], hears: 'recorder' },
  passes: (s) => [deskInput(s, 'in'), deskInput(s, 'inR')],
};

import { defineKind } from './define';
import { deskFigures, deskInput } from './desk-input';
import { choice, stereoIns, as } from './parts';

export const recorder = defineKind({
  id: 'recorder',
  name: 'Recorder input',
  family: 'Outputs',
  job: 'destination',
  about: 'Two tracks of a recorder.',
  jacks: stereoIns,
  figures: deskFigures,
  parameters: [
    as('microphone or line', choice('input', 'Input', ['line', 'line'], ['mic', 'microphone'])),
  ],
  alwaysOn: true,
  earth: 'in',
  destination: { jacks: ['in', 'inR'], hears: 'recorder' },
  passes: (s) => [deskInput(s, 'in'), deskInput(s, 'inR')],
});

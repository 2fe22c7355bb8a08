import { defineKind } from './define';
import { deskFigures, deskInput } from './desk-input';
import { choice, stereoIns, worldMains, as } from './parts';

export const inEarMix = defineKind({
  id: 'in-ear-mix',
  name: 'In-ear mix input',
  family: 'Outputs',
  job: 'destination',
  about: 'What feeds a player’s in-ear pack. Set levels with ears out.',
  jacks: stereoIns,
  figures: deskFigures,
  parameters: [
    as('microphone or line', choice('input', 'Input', ['line', 'line'], ['mic', 'microphone'])),
  ],
  alwaysOn: true,
  earth: 'in',
  rackUnits: 1,
  mains: { ...worldMains, watts: 12 },
  size: { width: 215, depth: 180, height: 44, grams: 1100 },
  destination: { jacks: ['in', 'inR'], hears: 'in-ears' },
  passes: (s) => [deskInput(s, 'in'), deskInput(s, 'inR')],
});

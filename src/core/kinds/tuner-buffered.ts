import { defineKind } from './define';
import { pedalFigures, small, stage, through, throughJacks } from './parts';

export const tunerBuffered = defineKind({
  id: 'tuner-buffered',
  name: 'Tuner, buffered',
  family: 'Front of the chain',
  job: 'tuner',
  about: 'Its buffer is always in the path; engaged it mutes and tunes.',
  jacks: throughJacks,
  figures: pedalFigures(1e6, -105, 'a unity buffer with a high input'),
  parameters: [],
  through,
  stateWords: { on: 'tuning, muted', off: 'through' },
  power: { volts: 9, milliamps: 60 },
  size: small,
  passes: (s) => [stage(s, { muted: s.engaged })],
});

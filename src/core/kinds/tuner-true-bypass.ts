import { defineKind } from './define';
import { pedalFigures, small, stage, through, throughJacks, trueBypass } from './parts';

export const tunerTrueBypass = defineKind({
  id: 'tuner-true-bypass',
  name: 'Tuner, true bypass',
  family: 'Front of the chain',
  job: 'tuner',
  about: 'Engaged it mutes and tunes; otherwise it is a piece of lead.',
  jacks: throughJacks,
  figures: pedalFigures(1e6, -105, 'a metering input'),
  parameters: [],
  through,
  stateWords: { on: 'tuning, muted', off: 'through' },
  power: { volts: 9, milliamps: 40 },
  size: small,
  passes: (s) => trueBypass(s, [stage(s, { muted: true })]),
});

import { defineKind } from './define';
import {
  ceiling,
  inputOhms,
  noise,
  outputOhms,
  small,
  stage,
  through,
  throughJacks,
} from './parts';

export const buffer = defineKind({
  id: 'buffer',
  name: 'Buffer',
  family: 'Front of the chain',
  job: 'buffer',
  about: 'Unity gain, high input, low output: behind it, lead length no longer dulls the tone.',
  jacks: throughJacks,
  figures: [
    inputOhms(1e6, 'does not load a pickup'),
    outputOhms(100, 'drives long leads'),
    noise(-105, 'one low-noise op-amp'),
    ceiling(10, 'a 9 V supply leaves swings of about ±3.5 V'),
  ],
  parameters: [],
  through,
  alwaysOn: true,
  power: { volts: 9, milliamps: 5 },
  size: small,
  passes: (s) => [stage(s)],
});

import { defineKind } from './define';
import type { Filter } from './kind';
import { microphoneJacks } from './line-parts';
import { tiltOf } from './response';
import { as, ceiling, choice, figure, noise, outputOhms, stage } from './parts';

/** Brighter than a dynamic one, whose own colour is in the cabinet's curve: a wide lift about 9 kHz (typical). */
const LIFT: Filter[] = [{ is: 'peak', hertz: 9000, q: 0.8, db: 4 }];

/** What the switch at most of them takes ahead of their amplifier, in dB. */
const PAD_DB = 10;

export const microphoneCondenser = defineKind({
  id: 'microphone-condenser',
  name: 'Microphone, condenser',
  family: 'Amplifiers and speakers',
  job: 'microphone',
  about:
    'Stands in front of a speaker, and gives more than a dynamic one; its amplifier is fed by the ' +
    'input that it is plugged into (phantom power, 48 V); its pad is for loud loudspeakers. The lead ' +
    'that joins it to a speaker is air: its metres are the distance.',
  jacks: microphoneJacks,
  figures: [
    outputOhms(100, 'the amplifier behind the capsule'),
    figure('gainDb', 'Above a dynamic microphone', 'dB', 17, [0, 40], '14 against 2 mV per pascal'),
    noise(-116, 'self-noise of about 15 dB of sound pressure'),
    ceiling(10, 'what its amplifier swings at 48 V'),
  ],
  parameters: [
    as('pad', choice('pad', 'Pad', ['normal', 'off'], ['low', `on (${PAD_DB} dB less)`])),
  ],
  through: { in: 'air', out: 'out' },
  alwaysOn: true,
  phantom: true,
  size: { width: 55, depth: 170, height: 55, grams: 350 },
  passes: (s) => [
    stage(s, {
      from: 'air',
      inOhms: Infinity,
      gainDb: s.figure('gainDb') - (s.choice('pad') === 'low' ? PAD_DB : 0),
      tiltDb: tiltOf(LIFT),
      filters: { after: LIFT },
    }),
  ],
});

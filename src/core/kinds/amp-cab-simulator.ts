import { defineKind } from './define';
import { ampAndCab, ampKnobs } from './amp-parts';
import { driveFigures } from './drive-parts';
import {
  bufferedBypass,
  latency,
  medium,
  sides,
  stage,
  stereoJacks,
  through,
  tilt,
  between,
} from './parts';

export const ampCabSimulator = defineKind({
  id: 'amp-cab-simulator',
  name: 'Amp and cab simulator',
  family: 'Amplifiers and speakers',
  job: 'simulator',
  about:
    'Stands for an amplifier and its cabinet, so that a console hears what a microphone would.',
  jacks: stereoJacks,
  figures: [
    ...driveFigures({
      low: 0,
      high: 40,
      clip: 6,
      inOhms: 1e6,
      noiseDbu: -98,
      lineOhms: 600,
      why: 'a modelled power stage',
    }),
    latency(2.5, 'converters take 1 to 3 ms, the cabinet filter a little more'),
  ],
  parameters: ampKnobs,
  through,
  power: { volts: 9, milliamps: 300, noisy: true },
  size: medium,
  block: { slots: 1, percent: 35 },
  passes: (s, plugged) =>
    sides(plugged, (from, to, side, gainDb) =>
      bufferedBypass(
        s,
        [
          stage(s, {
            id: side ?? from,
            from,
            to,
            inverts: false,
            latencyMs: s.figure('latencyMs'),
            gainDb: between(s.figure('gainLowDb'), s.figure('gainHighDb'), s.knob('gain')),
            ceiling: { dbu: s.figure('ceilingDbu'), shape: 'soft', meant: true },
            outputDb: between(-40, 0, s.knob('master')) + gainDb,
            tiltDb: tilt(s.knob('tone'), 6) - 6,
            filters: ampAndCab,
            cabinet: true,
          }),
        ],
        { id: side ?? from, from, to, outputDb: gainDb },
      ),
    ),
});

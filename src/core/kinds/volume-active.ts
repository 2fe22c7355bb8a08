import { defineKind } from './define';
import { footPedal, pedalFigures, stage, through, throughJacks } from './parts';

export const volumeActive = defineKind({
  id: 'volume-active',
  name: 'Volume pedal, active',
  family: 'Volume',
  job: 'volume',
  about: 'Buffered in and out: its position changes the level and nothing else.',
  jacks: [
    ...throughJacks,
    { id: 'tuner', label: 'tuner out', direction: 'out', signal: 'audio', connector: 'TS' },
  ],
  figures: pedalFigures(1e6, -103, 'a buffer, a pot and another buffer'),
  parameters: [footPedal(10)],
  through,
  alwaysOn: true,
  power: { volts: 9, milliamps: 10 },
  size: { width: 100, depth: 260, height: 75, grams: 1500 },
  block: { slots: 1, percent: 1 },
  passes: (s) => [
    stage(s, {
      outputDb: s.knob('pedal') <= 0 ? -Infinity : 20 * Math.log10(s.knob('pedal') / 10),
    }),
    stage(s, { id: 'tuner', to: 'tuner' }),
  ],
});

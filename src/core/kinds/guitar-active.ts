import { defineKind } from './define';
import { activeSource } from './instrument-parts';
import { figure, knob, noise, outJack, outputOhms } from './parts';

export const guitarActive = defineKind({
  id: 'guitar-active',
  name: 'Guitar, active pickups',
  family: 'Instruments',
  job: 'instrument',
  about: 'Pickups with a battery preamplifier; leads hardly change their tone.',
  jacks: [outJack],
  figures: [
    figure(
      'nominalDbu',
      'Level, playing normally',
      'dBu',
      -14,
      [-60, 20],
      'low-impedance windings into a battery preamplifier',
    ),
    figure(
      'peakDbu',
      'Peak, playing normally',
      'dBu',
      2,
      [-60, 30],
      'low-impedance windings into a battery preamplifier',
    ),
    outputOhms(1000, 'low-impedance windings into a battery preamplifier'),
    noise(-92, 'low-impedance windings into a battery preamplifier'),
  ],
  parameters: [knob('volume', 'Volume', 10)],
  stateWords: { on: 'in use', off: 'not in use' },
  startsEngaged: true,
  passes: (s) => activeSource(s),
});

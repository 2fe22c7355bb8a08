import { defineKind } from './define';
import { activeSource, AT_BRIDGE } from './instrument-parts';
import { figure, knob, noise, outJack, outputOhms } from './parts';

export const instrumentPiezo = defineKind({
  id: 'instrument-piezo',
  name: 'Piezo with preamplifier',
  family: 'Instruments',
  job: 'instrument',
  about: 'A bridge pickup with its own preamplifier: acoustic guitars, strings.',
  jacks: [outJack],
  figures: [
    figure(
      'nominalDbu',
      'Level, playing normally',
      'dBu',
      -18,
      [-60, 20],
      'a piezo element into a preamplifier with some tone control',
    ),
    figure(
      'peakDbu',
      'Peak, playing normally',
      'dBu',
      0,
      [-60, 30],
      'a piezo element into a preamplifier with some tone control',
    ),
    outputOhms(1000, 'a piezo element into a preamplifier with some tone control'),
    noise(-90, 'a piezo element into a preamplifier with some tone control'),
  ],
  parameters: [knob('volume', 'Volume', 10)],
  stateWords: { on: 'in use', off: 'not in use' },
  startsEngaged: true,
  passes: (s) => activeSource(s, AT_BRIDGE),
});

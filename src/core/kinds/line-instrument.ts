import { defineKind } from './define';
import { activeSource } from './instrument-parts';
import { figure, knob, noise, outJack, outputOhms } from './parts';

export const lineInstrument = defineKind({
  id: 'line-instrument',
  name: 'Line-level instrument',
  family: 'Instruments',
  job: 'instrument',
  about: 'A modelled or electronic instrument that sends line level.',
  jacks: [outJack],
  figures: [
    figure(
      'nominalDbu',
      'Level, playing normally',
      'dBu',
      -10,
      [-60, 20],
      'the line output of a digital instrument',
    ),
    figure(
      'peakDbu',
      'Peak, playing normally',
      'dBu',
      6,
      [-60, 30],
      'the line output of a digital instrument',
    ),
    outputOhms(150, 'the line output of a digital instrument'),
    noise(-95, 'the line output of a digital instrument'),
  ],
  parameters: [knob('volume', 'Volume', 10)],
  stateWords: { on: 'in use', off: 'not in use' },
  startsEngaged: true,
  passes: (s) => activeSource(s),
});

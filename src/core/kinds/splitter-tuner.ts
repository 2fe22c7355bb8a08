import { defineKind } from './define';
import { inJack, outJack, pedalFigures, small, stage, wire } from './parts';

export const splitterTuner = defineKind({
  id: 'splitter-tuner',
  name: 'Tuner splitter',
  family: 'Routing',
  job: 'splitter',
  about:
    'The main line is metal only; a buffered tap feeds the tuner at all times. Engaged, it mutes the main line.',
  jacks: [inJack, outJack, { ...outJack, id: 'tuner', label: 'tuner out' }],
  figures: pedalFigures(1e6, -105, 'a buffer on the tap only'),
  parameters: [],
  through: { in: 'in', out: 'out' },
  stateWords: { on: 'muted', off: 'open' },
  power: { volts: 9, milliamps: 10 },
  size: small,
  passes: (s) => [
    s.engaged ? { is: 'open', a: 'in', b: 'out' } : wire('in', 'out'),
    stage(s, { id: 'tuner', to: 'tuner', groundThrough: true }),
  ],
});

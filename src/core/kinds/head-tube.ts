import { ampFigures, ampKnobs, ampLoops, ampWords, loopJacks, powerStage, preamp, simpleLoop } from './amp-parts';
import type { Kind } from './kind';
import { inJack } from './parts';

export const headTube: Kind = {
  id: 'head-tube',
  name: 'Tube head',
  family: 'Amplifiers and speakers',
  job: 'amp',
  about: 'A tube amplifier without a speaker. Never run it without a load of the right impedance.',
  jacks: [inJack, ...loopJacks, { id: 'speaker', label: 'speaker', direction: 'out', signal: 'speaker', connector: 'speaker' }],
  figures: ampFigures({ low: 12, high: 60, watts: 50, ohms: 8, why: 'a 50 W head with one gain channel' }),
  parameters: ampKnobs,
  through: { in: 'in', out: 'speaker' },
  stateWords: ampWords,
  startsEngaged: true,
  loops: ampLoops,
  earth: 'in',
  size: { width: 680, depth: 250, height: 270, grams: 20_000 },
  passes: (s, plugged) => [preamp(s, 'send'), ...simpleLoop(plugged), powerStage(s, 'return', 'speaker', true)],
};

import { defineKind } from './define';
import {
  airFigure,
  airJack,
  ampFigures,
  headKnobs,
  ampLoops,
  ampWords,
  inFrontOf,
  loopJacks,
  powerStage,
  preamp,
  simpleLoop,
} from './amp-parts';
import { inJack, transformerMains } from './parts';

export const comboTubeLoop = defineKind({
  id: 'combo-tube-loop',
  name: 'Tube combo with loop',
  family: 'Amplifiers and speakers',
  job: 'amp',
  about: 'A tube combo whose effects loop is closed until something is plugged into the return.',
  jacks: [inJack, ...loopJacks, airJack],
  figures: [
    ...ampFigures({
      low: 12,
      high: 54,
      watts: 30,
      ohms: 8,
      why: 'a small combo with one gain channel',
    }),
    airFigure,
  ],
  parameters: headKnobs,
  stateWords: ampWords,
  startsEngaged: true,
  loops: ampLoops,
  earth: 'in',
  destination: { jacks: ['voice coil'], hears: 'stage' },
  mains: { ...transformerMains, watts: 140, inrushAmps: 15 },
  size: { width: 560, depth: 260, height: 480, grams: 19_000 },
  passes: (s, plugged) => [
    preamp(s, 'send'),
    ...simpleLoop(plugged),
    powerStage(s, 'return', 'voice coil'),
    inFrontOf(s, 'voice coil'),
    { is: 'arrive', at: 'voice coil', ohms: s.figure('tapOhms'), maxDbu: 60, noiseDbu: -Infinity },
  ],
});

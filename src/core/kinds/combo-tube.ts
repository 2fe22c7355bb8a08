import { defineKind } from './define';
import {
  airFigure,
  airJack,
  ampFigures,
  headKnobs,
  ampWords,
  inFrontOf,
  powerStage,
  preamp,
} from './amp-parts';
import { inJack, transformerMains } from './parts';

export const comboTube = defineKind({
  id: 'combo-tube',
  name: 'Tube combo',
  family: 'Amplifiers and speakers',
  job: 'amp',
  about: 'One input, a tube preamplifier and power stage, its own speaker.',
  jacks: [inJack, airJack],
  figures: [
    ...ampFigures({
      low: 12,
      high: 50,
      watts: 22,
      ohms: 8,
      why: 'a small combo with one gain channel',
    }),
    airFigure,
  ],
  parameters: headKnobs,
  stateWords: ampWords,
  startsEngaged: true,
  earth: 'in',
  destination: { jacks: ['voice coil'], hears: 'stage' },
  mains: { ...transformerMains, watts: 110, inrushAmps: 12 },
  size: { width: 560, depth: 260, height: 480, grams: 19_000 },
  passes: (s) => [
    preamp(s, 'inner'),
    powerStage(s, 'inner', 'voice coil'),
    inFrontOf(s, 'voice coil'),
    { is: 'arrive', at: 'voice coil', ohms: s.figure('tapOhms'), maxDbu: 60, noiseDbu: -Infinity },
  ],
});

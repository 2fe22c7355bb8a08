import { defineKind } from './define';
import {
  ampFigures,
  headKnobs,
  loopJacks,
  powerStage,
  preamp,
  simpleLoop,
  headParts,
  speakerOut,
} from './amp-parts';
import { inJack, transformerMains } from './parts';

export const headTube = defineKind({
  ...headParts,
  id: 'head-tube',
  name: 'Tube head',
  about: 'A tube amplifier without a speaker. Never run it without a load of the right impedance.',
  jacks: [inJack, ...loopJacks, speakerOut],
  figures: ampFigures({
    low: 12,
    high: 60,
    watts: 50,
    ohms: 8,
    why: 'a 50 W head with one gain channel',
  }),
  parameters: headKnobs,
  mains: { ...transformerMains, watts: 180, inrushAmps: 20 },
  size: { width: 680, depth: 250, height: 270, grams: 20_000 },
  passes: (s, plugged) => [
    preamp(s, 'send'),
    ...simpleLoop(plugged),
    powerStage(s, 'return', 'speaker', true),
  ],
});

import { defineKind } from './define';
import {
  channelChoice,
  twoChannelFigures,
  headKnobs,
  loopJacks,
  loopPasses,
  loopParameters,
  preamp,
  powerStage,
  headParts,
  speakerOut,
} from './amp-parts';
import { inJack, transformerMains } from './parts';

export const headTubeTwo = defineKind({
  ...headParts,
  id: 'head-tube-two',
  name: 'Tube head, two channels',
  about:
    'A clean and a dirty channel, and an effects loop that is serial or parallel, at ' +
    'either level, in or out. Never run it without a load of the right impedance.',
  jacks: [inJack, ...loopJacks, speakerOut],
  figures: twoChannelFigures,
  parameters: [channelChoice, ...headKnobs, ...loopParameters],
  mains: { ...transformerMains, watts: 250, inrushAmps: 25 },
  size: { width: 700, depth: 260, height: 280, grams: 22_000 },
  passes: (s, plugged) => {
    const pre = preamp(s, 'send');
    return [
      ...loopPasses(
        s,
        s.choice('channel') === 'dirty'
          ? { ...pre, gainDb: pre.gainDb + s.figure('dirtyDb'), outputDb: pre.outputDb - 6 }
          : pre,
        plugged,
      ),
      powerStage(s, 'back', 'speaker', true),
    ];
  },
});

import { fixed } from '../units';
import {
  channelChoice,
  twoChannelFigures,
  headParts,
  loopJacks,
  loopParameters,
  loopPasses,
  powerStage,
  preamp,
  presenceKnob,
  speakerOut,
} from './amp-parts';
import { defineKind } from './define';
import { between, inJack, knob, readsDb, tilt, transformerMains } from './parts';

const masterReads = (v: number) => `${fixed(between(-40, 0, v))} dB`;

export const headTubeMasters = defineKind({
  ...headParts,
  id: 'head-tube-masters',
  name: 'Tube head, two channels with masters',
  about:
    'A clean and a dirty channel, each with its own gain, tone and master, and an effects loop ' +
    'that is serial or parallel. Never run it without a load of the right impedance.',
  jacks: [inJack, ...loopJacks, speakerOut],
  figures: twoChannelFigures,
  parameters: [
    channelChoice,
    knob('gain', 'Clean gain', 4, readsDb('gainLowDb', 'gainHighDb')),
    knob('tone', 'Clean tone', 5),
    knob('master', 'Clean master', 5, masterReads),
    knob('dirtyGain', 'Dirty gain', 5, readsDb('gainLowDb', 'gainHighDb')),
    knob('dirtyTone', 'Dirty tone', 5),
    knob('dirtyMaster', 'Dirty master', 4, masterReads),
    presenceKnob,
    ...loopParameters,
  ],
  mains: { ...transformerMains, watts: 250, inrushAmps: 25 },
  size: { width: 700, depth: 260, height: 280, grams: 22_000 },
  passes: (s, plugged) => {
    const clean = preamp(s, 'send');
    const dirty = {
      ...clean,
      gainDb:
        between(s.figure('gainLowDb'), s.figure('gainHighDb'), s.knob('dirtyGain')) +
        s.figure('dirtyDb'),
      outputDb: between(-40, 0, s.knob('dirtyMaster')),
      tiltDb: tilt(s.knob('dirtyTone'), 6),
    };
    return [
      ...loopPasses(s, s.choice('channel') === 'dirty' ? dirty : clean, plugged),
      powerStage(s, 'back', 'speaker', true),
    ];
  },
});

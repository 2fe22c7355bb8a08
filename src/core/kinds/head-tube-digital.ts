import { defineKind } from './define';
import {
  ampFigures,
  headKnobs,
  powerStage,
  preamp,
  simpleLoop,
  loopJacks,
  headParts,
  speakerOut,
} from './amp-parts';
import { midiFigures } from './midi-parts';
import { choice, inJack, latency, stage, transformerMains } from './parts';

export const headTubeDigital = defineKind({
  ...headParts,
  id: 'head-tube-digital',
  name: 'Tube head with a digital input',
  about:
    'A stage head that takes audio and control over one digital link from a modeler: ' +
    'into its preamplifier, or behind it straight to the power stage. Never run it ' +
    'without a load of the right impedance.',
  jacks: [
    inJack,
    {
      id: 'digital',
      label: 'digital in, audio and control',
      direction: 'in',
      signal: 'digital',
      connector: 'digital',
      channels: ['digital'],
      carriesControl: true,
    },
    ...loopJacks,
    speakerOut,
  ],
  figures: [
    ...ampFigures({
      low: 12,
      high: 60,
      watts: 50,
      ohms: 8,
      why: 'a 50 W head with one gain channel',
    }),
    latency(1.5, 'converters at the digital input'),
    ...midiFigures({ programMs: 30, controlMs: 10, gapMs: 10, why: 'relays behind a controller' }),
  ],
  parameters: [
    choice(
      'digitalTo',
      'The digital input feeds',
      ['power', 'the power stage'],
      ['preamp', 'the preamplifier'],
    ),
    ...headKnobs,
  ],
  programs: true,
  midi: {
    programs: { count: 128, bank: 'none', shows: { from: 1 } },
    controls: [
      { setting: 'gain', cc: 20, ways: ['absolute'] },
      { setting: 'master', cc: 21, ways: ['absolute'] },
    ],
    thrus: ['none'],
  },
  mains: { ...transformerMains, watts: 120, inrushAmps: 15 },
  size: { width: 620, depth: 250, height: 270, grams: 15_000 },
  passes: (s, plugged) => {
    const toPower = s.choice('digitalTo') === 'power';
    const digital = stage(s, {
      id: 'digital',
      from: 'digital',
      to: toPower ? 'back' : 'preamp',
      inOhms: Infinity,
      outOhms: 0.01,
      noiseDbu: -110,
      latencyMs: s.figure('latencyMs'),
      groundThrough: false,
      muted: !s.engaged,
      ceiling: { dbu: 20, shape: 'hard', meant: false },
    });
    return [
      stage(s, {
        id: 'input',
        to: 'preamp',
        outOhms: 0.01,
        noiseDbu: -130,
        ceiling: { dbu: 60, shape: 'hard', meant: false },
      }),
      { ...preamp(s, 'send'), from: 'preamp', inOhms: Infinity },
      ...simpleLoop(plugged),
      stage(s, {
        id: 'return',
        from: 'return',
        to: 'back',
        inOhms: s.figure('returnOhms'),
        outOhms: 0.01,
        noiseDbu: -130,
        ceiling: { dbu: 60, shape: 'hard', meant: false },
      }),
      ...(plugged('digital') ? [digital] : []),
      powerStage(s, 'back', 'speaker', true),
    ];
  },
});

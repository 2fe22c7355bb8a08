import { defineKind } from './define';
import { ampKnobs, ampTone } from './amp-parts';
import { driveFigures } from './drive-parts';
import { between, sides, stage, stereoJacks, through, tilt } from './parts';

export const ampBlock = defineKind({
  id: 'amp-block',
  name: 'Amp block',
  family: 'Modelers',
  job: 'amp',
  about:
    'A modelled amplifier without its cabinet. It is mono: what comes in wide leaves the same on both sides.',
  jacks: stereoJacks,
  figures: driveFigures({
    low: 6,
    high: 54,
    clip: 6,
    inOhms: 1e6,
    noiseDbu: -100,
    why: 'a modelled amplifier',
  }),
  parameters: ampKnobs,
  through,
  startsEngaged: true,
  block: { slots: 1, percent: 25 },
  passes: (s, plugged) => {
    const ins = plugged('inR') ? ['in', 'inR'] : ['in'];
    const outs = plugged('outR') ? ['out', 'outR'] : ['out'];
    if (!s.engaged)
      return sides(plugged, (from, to, _, gainDb) => [
        stage(s, {
          id: `${from}>${to}`,
          from,
          to,
          outputDb: gainDb,
          ceiling: { dbu: 40, shape: 'hard', meant: false },
        }),
      ]);
    return [
      ...ins.map((from) =>
        stage(s, {
          id: `${from}>mono`,
          from,
          to: 'mono',
          outOhms: 0.01,
          outputDb: ins.length > 1 ? -6.02 : 0,
          ceiling: { dbu: 40, shape: 'hard', meant: false },
        }),
      ),
      ...outs.map((to) =>
        stage(s, {
          id: `mono>${to}`,
          from: 'mono',
          to,
          inOhms: Infinity,
          noiseDbu: -Infinity,
          gainDb: between(s.figure('gainLowDb'), s.figure('gainHighDb'), s.knob('gain')),
          ceiling: { dbu: s.figure('ceilingDbu'), shape: 'soft', meant: true },
          outputDb: between(-40, 0, s.knob('master')),
          tiltDb: tilt(s.knob('tone'), 6),
          filters: ampTone,
        }),
      ),
    ];
  },
});

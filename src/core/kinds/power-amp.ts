import { defineKind } from './define';
import { dbuOfVolts } from '../units';
import {
  between,
  figure,
  inputOhms,
  knob,
  noise,
  stage,
  stereoIns,
  transformerMains,
} from './parts';

export const powerAmp = defineKind({
  id: 'power-amp',
  name: 'Power amplifier, stereo, solid state',
  family: 'Amplifiers and speakers',
  job: 'amp',
  about:
    'Two channels in one rack unit. Line level in, speaker level out; each channel has a lowest load that it bears.',
  jacks: [
    ...stereoIns,
    ...(['', 'R'] as const).map((r) => ({
      id: `speaker${r}`,
      label: `speaker ${r ? 'right' : 'left'}`,
      direction: 'out' as const,
      signal: 'speaker' as const,
      connector: 'speaker' as const,
      pair: {
        with: r ? 'speaker' : 'speakerR',
        side: r ? ('right' as const) : ('left' as const),
        loose: true,
      },
    })),
  ],
  figures: [
    inputOhms(20_000, 'a balanced line input'),
    noise(-100, 'a line input'),
    figure('watts', 'Rated power a channel', 'W', 150, [1, 5000], 'into the lowest load'),
    figure('lowestOhms', 'Lowest load', 'Ω', 4, [1, 16], 'what the maker allows'),
    figure('gainDb', 'Gain at full', 'dB', 32, [0, 60], '+4 dBu drives it to full power'),
  ],
  parameters: [knob('level', 'Level', 8)],
  through: { in: 'in', out: 'speaker' },
  startsEngaged: true,
  stateWords: { on: 'on', off: 'off' },
  earth: 'in',
  rackUnits: 1,
  ventsUp: true,
  mains: { ...transformerMains, watts: 350, inrushAmps: 30 },
  size: { width: 483, depth: 300, height: 44, grams: 5000 },
  passes: (s, plugged) =>
    [
      ['in', 'speaker'],
      [plugged('inR') ? 'inR' : 'in', 'speakerR'],
    ].map(([from, to]) =>
      stage(s, {
        ceiling: {
          dbu: dbuOfVolts(Math.sqrt(s.figure('watts') * s.figure('lowestOhms'))),
          shape: 'hard',
          meant: false,
        },
        outOhms: 0.05,
        id: to,
        from,
        to,
        muted: !s.engaged,
        gainDb: s.figure('gainDb') + between(-30, 0, s.knob('level')),
        speaker: { watts: s.figure('watts'), ohms: s.figure('lowestOhms'), tube: false },
      }),
    ),
});

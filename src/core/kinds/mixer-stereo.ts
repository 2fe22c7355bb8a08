import { defineKind } from './define';
import { inJack, pedalFigures, scaled, small, stage, stereoOuts } from './parts';

const INPUTS = ['a', 'b', 'c', 'd'];

export const mixerStereo = defineKind({
  id: 'mixer-stereo',
  name: 'Mixer, four into two',
  family: 'Routing',
  job: 'splitter',
  about:
    'Four inputs with level, pan and polarity each onto a stereo bus. As a block it ' +
    'merges the paths of a host; on stage it is a monitor mixer.',
  jacks: [
    ...INPUTS.map((id) => ({ ...inJack, id, label: `in ${id.toUpperCase()}` })),
    ...stereoOuts,
  ],
  figures: pedalFigures(20_000, -103, 'one input amplifier each and a summing amplifier'),
  parameters: INPUTS.flatMap((id) => [
    scaled(`level${id.toUpperCase()}`, `Level ${id.toUpperCase()}`, 0, [-60, 10], 'dB'),
    scaled(`pan${id.toUpperCase()}`, `Pan ${id.toUpperCase()}`, 0, [-10, 10], ''),
    {
      type: 'switch' as const,
      id: `invert${id.toUpperCase()}`,
      role: 'polarity' as const,
      label: `Turn polarity of ${id.toUpperCase()}`,
      initial: false,
    },
  ]),
  through: { in: 'a', out: 'out' },
  alwaysOn: true,
  block: { slots: 1, percent: 2 },
  power: { volts: 12, milliamps: 100 },
  size: { ...small, width: 120 },
  passes: (s, plugged) => {
    const outs = plugged('outR') ? ['out', 'outR'] : ['out'];
    return INPUTS.filter(plugged).flatMap((id) => {
      const name = id.toUpperCase();
      const at = s.knob(`pan${name}`);
      const db = s.knob(`level${name}`) <= -60 ? -Infinity : s.knob(`level${name}`);
      const gain = (out: string) =>
        outs.length === 1 ? 1 : Math.max(0, Math.min(1, out === 'out' ? 1 - at / 10 : 1 + at / 10));
      return outs
        .filter((o) => gain(o) > 0)
        .map((to) =>
          stage(s, {
            id: `${id}>${to}`,
            from: id,
            to,
            inverts: s.on(`invert${name}`),
            outputDb: db + 20 * Math.log10(gain(to)),
          }),
        );
    });
  },
});

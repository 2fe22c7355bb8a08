import { defineKind } from './define';
import { knob, outJack, pedalFigures, inJack, medium, stage, through } from './parts';

export const octaveDual = defineKind({
  id: 'octave-dual',
  name: 'Octave with dry and effect outputs',
  family: 'Pitch',
  job: 'pitch',
  about:
    'The dry output goes on as it came; the effect output carries the octave alone, to ' +
    'an input of its own. Without a lead in the effect output both leave by the dry one.',
  jacks: [
    inJack,
    { ...outJack, label: 'dry out' },
    { ...outJack, id: 'effect', label: 'effect out' },
  ],
  figures: pedalFigures(1e6, -98, 'filters and a divider'),
  parameters: [knob('level', 'Octave level', 7), knob('dry', 'Dry level', 10)],
  through,
  tracksPitch: true,
  power: { volts: 9, milliamps: 40 },
  size: medium,
  passes: (s, plugged) => {
    const db = (v: number) => (v <= 0 ? -Infinity : 20 * Math.log10(v / 10));
    if (!s.engaged)
      return [
        { is: 'wire', a: 'in', b: 'out' },
        { is: 'open', a: 'in', b: 'effect' },
      ];
    const octave = { dryDb: -Infinity, wetDb: db(s.knob('level')) };
    return [
      stage(s, { id: 'dry', outputDb: db(s.knob('dry')) }),
      stage(s, { id: 'octave', to: plugged('effect') ? 'effect' : 'out', wet: octave }),
    ];
  },
});

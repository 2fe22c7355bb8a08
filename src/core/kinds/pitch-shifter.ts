import type { Kind } from './kind';
import { knob, latency, medium, mixed, pedalFigures, stage, through, throughJacks, trueBypass } from './parts';

export const pitchShifter: Kind = {
  id: 'pitch-shifter',
  name: 'Pitch shifter',
  family: 'Pitch',
  job: 'pitch',
  about: 'Follows the note and adds another; tracks best on the clean string, early in the chain.',
  jacks: throughJacks,
  figures: [...pedalFigures(500_000, -96, 'a digital shifter that must hear part of a wave first'), latency(3, 'a digital shifter that must hear part of a wave first')],
  parameters: [knob('mix', 'Mix', 5)],
  through,
  tracksPitch: true,
  power: { volts: 9, milliamps: 200 },
  size: medium,
  block: { slots: 1, percent: 20 },
  passes: (s) => trueBypass(s, [stage(s, { latencyMs: s.figure('latencyMs'), wet: mixed(s.knob('mix')) })]),
};

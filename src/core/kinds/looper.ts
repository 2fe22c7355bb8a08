import type { Kind } from './kind';
import { knob, latency, medium, pedalFigures, stage, through, throughJacks } from './parts';

export const looper: Kind = {
  id: 'looper',
  name: 'Looper',
  family: 'Time',
  job: 'looper',
  about: 'Repeats what reaches it. The live signal passes at unity; the loop is not counted in the levels.',
  jacks: throughJacks,
  figures: [...pedalFigures(1e6, -95, 'converters on both ends'), latency(1.5, 'converters take 1 to 3 ms')],
  parameters: [knob('level', 'Loop level', 7)],
  through,
  power: { volts: 9, milliamps: 180 },
  size: medium,
  block: { slots: 1, percent: 6 },
  passes: (s) => [stage(s, s.engaged ? { latencyMs: s.figure('latencyMs'), rings: true } : { noiseDbu: -105 })],
};

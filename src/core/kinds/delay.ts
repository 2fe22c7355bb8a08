import type { Kind } from './kind';
import { knob, latency, medium, mixed, pedalFigures, sides, stage, stereoJacks, through } from './parts';

export const delay: Kind = {
  id: 'delay',
  name: 'Delay',
  family: 'Time',
  job: 'delay',
  about: 'Digital, with buffered bypass. Mix 0 is dry, 5 is as much wet as dry, 10 is wet only.',
  jacks: stereoJacks,
  figures: [...pedalFigures(1e6, -95, 'converters on both ends'), latency(1.5, 'converters take 1 to 3 ms')],
  parameters: [knob('time', 'Time', 5), knob('repeats', 'Repeats', 3), knob('mix', 'Mix', 3), { type: 'switch', id: 'tails', label: 'Tails ring on when bypassed', initial: false }],
  through,
  power: { volts: 9, milliamps: 200 },
  size: medium,
  block: { slots: 1, percent: 8 },
  passes: (s, plugged) =>
    sides(plugged, (from, to, side, gainDb) => [
      stage(s, s.engaged
        ? { id: side ?? from, from, to, side, latencyMs: s.figure('latencyMs'), outputDb: gainDb, wet: mixed(s.knob('mix')), rings: true }
        : { id: side ?? from, from, to, outputDb: gainDb, noiseDbu: -105, ...(s.on('tails') ? { rings: true } : {}) }),
    ]),
};

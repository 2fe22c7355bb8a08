import { defineKind } from './define';
import { asTrs, midiFigures, midiIn, midiThru, switchIn } from './midi-parts';
import { latency, medium, pedalFigures, stage, through, throughJacks, ownLevelKnob } from './parts';

export const looper = defineKind({
  id: 'looper',
  name: 'Looper',
  family: 'Time',
  job: 'looper',
  about:
    'Repeats what reaches it. The live signal passes at unity; the loop is not counted in the levels.',
  jacks: [
    ...throughJacks,
    asTrs(midiIn, 'A'),
    asTrs(midiThru, 'A'),
    switchIn('ctl', 'loop switch'),
  ],
  figures: [
    ...pedalFigures(1e6, -95, 'converters on both ends'),
    latency(1.5, 'converters take 1 to 3 ms'),
    ...midiFigures({ controlMs: 5, why: 'a small digital pedal' }),
  ],
  parameters: [ownLevelKnob('Loop level', 7)],
  through,
  midi: {
    controls: [{ setting: 'engaged', cc: 81, ways: ['toggle', 'absolute'] }],
    clock: 'can',
    thrus: ['hardware'],
  },
  power: { volts: 9, milliamps: 180, noisy: true },
  size: medium,
  block: { slots: 1, percent: 6 },
  passes: (s) => [
    stage(s, s.engaged ? { latencyMs: s.figure('latencyMs'), rings: true } : { noiseDbu: -105 }),
  ],
});

import { defineKind } from './define';
import { midiFigures, midiIn, midiOut, switchIn, usbDevice } from './midi-parts';
import { inJack, knob, latency, medium, outJack, pedalFigures, stage, through } from './parts';

export const synthPedal = defineKind({
  id: 'synth-pedal',
  name: 'Synth pedal with a dry loop',
  family: 'Pitch',
  job: 'pitch',
  about:
    'Plays a synth voice after the string and carries the dry guitar through a loop of ' +
    'its own. Nothing in the return: the dry signal goes on inside.',
  jacks: [
    inJack,
    outJack,
    { ...outJack, id: 'send', label: 'dry send' },
    { ...inJack, id: 'return', label: 'dry return' },
    midiIn,
    midiOut,
    usbDevice,
    switchIn('hold', 'hold switch', 'any'),
  ],
  figures: [
    ...pedalFigures(1e6, -95, 'converters on both ends'),
    latency(
      12,
      'it hears one wave of the lowest note first: 12 ms at 82 Hz, 8 to 25 by instrument',
    ),
    ...midiFigures({ programMs: 40, controlMs: 5, why: 'a synth voice is loaded' }),
  ],
  parameters: [knob('synth', 'Synth level', 6), knob('dry', 'Dry level', 10)],
  through,
  tracksPitch: true,
  programs: true,
  midi: {
    programs: { count: 128, bank: 'none', shows: { from: 1 } },
    controls: [
      { setting: 'engaged', cc: 80, ways: ['absolute'] },
      { setting: 'synth', cc: 16, ways: ['absolute'] },
    ],
    sends: ['control'],
    thrus: ['none'],
  },
  loops: [{ id: 'dry', label: 'dry loop', send: ['send'], return: ['return'], opensAt: 'return' }],
  power: { volts: 9, milliamps: 200, noisy: true },
  size: medium,
  passes: (s, plugged) => {
    const db = (v: number) => (v <= 0 ? -Infinity : 20 * Math.log10(v / 10));
    return [
      stage(s, { id: 'send', to: 'send', noiseDbu: -105 }),
      stage(s, {
        id: 'dry',
        from: plugged('return') ? 'return' : 'in',
        noiseDbu: -105,
        outputDb: s.engaged ? db(s.knob('dry')) : 0,
      }),
      ...(s.engaged
        ? [
            stage(s, {
              id: 'voice',
              latencyMs: s.figure('latencyMs'),
              wet: { dryDb: -Infinity, wetDb: db(s.knob('synth')) },
            }),
          ]
        : []),
    ];
  },
});

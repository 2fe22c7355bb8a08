import { defineKind } from './define';
import { figure, outJack, scaled, stage, wire } from './parts';

export const attenuator = defineKind({
  id: 'attenuator',
  name: 'Attenuator and load box',
  family: 'Amplifiers and speakers',
  job: 'cabinet',
  about:
    'Takes the power of an amplifier and passes on a part of it. With no cabinet behind ' +
    'it, it is the load. At 0 dB it is a piece of speaker lead.',
  jacks: [
    {
      id: 'in',
      label: 'from the amplifier',
      direction: 'in',
      signal: 'speaker',
      connector: 'speaker',
    },
    {
      id: 'out',
      label: 'to the cabinet',
      direction: 'out',
      signal: 'speaker',
      connector: 'speaker',
    },
    { ...outJack, id: 'line', label: 'line out' },
  ],
  figures: [
    figure('ohms', 'Impedance', 'Ω', 8, [2, 32], 'must match the tap'),
    figure('watts', 'Rated power', 'W', 100, [1, 2000], 'a box with a fan'),
    figure(
      'lineDb',
      'Line output under the speaker line',
      'dB',
      -34,
      [-80, 0],
      'brings a speaker line to line level',
    ),
  ],
  parameters: [scaled('cut', 'Takes away', 12, [0, 60], 'dB')],
  through: { in: 'in', out: 'out' },
  alwaysOn: true,
  size: { width: 220, depth: 200, height: 90, grams: 3500 },
  passes: (s, plugged) => {
    const silent = { noiseDbu: -130, ceiling: { dbu: 60, shape: 'hard' as const, meant: false } };
    const line = stage(s, {
      ...silent,
      id: 'line',
      to: 'line',
      inOhms: 1e5,
      outOhms: 600,
      outputDb: s.figure('lineDb'),
    });
    if (s.knob('cut') <= 0 && plugged('out')) return [wire('in', 'out'), line];
    return [
      { is: 'shunt', at: 'in', ohms: s.figure('ohms'), coil: { watts: s.figure('watts') } },
      stage(s, {
        ...silent,
        id: 'cut',
        inOhms: Infinity,
        outOhms: 0.5,
        outputDb: -s.knob('cut'),
        passesPower: true,
      }),
      line,
    ];
  },
});

import { defineKind } from './define';
import { AT_BRIDGE, passiveInstrument, pickupFigures, guitarControls } from './instrument-parts';
import { figure, outJack, knob } from './parts';

export const instrumentDual = defineKind({
  id: 'instrument-dual',
  name: 'Guitar with magnetic and piezo outputs',
  family: 'Instruments',
  job: 'instrument',
  about:
    'Two signals at once: the magnetic pickups on one jack, the bridge piezo with its preamplifier on the other.',
  jacks: [
    { ...outJack, label: 'magnetic out' },
    { ...outJack, id: 'piezo', label: 'piezo out' },
  ],
  figures: [
    ...pickupFigures({
      ohms: 8000,
      henries: 4.5,
      pF: 130,
      volume: 500_000,
      tone: 500_000,
      nF: 22,
      nominal: -18,
      peak: -2,
      hum: -95,
      why: 'a humbucker',
    }),
    figure(
      'outputOhms',
      'Piezo output impedance',
      'Ω',
      1000,
      [0, 1e6],
      'a preamplifier on a battery',
    ),
    figure('piezoDbu', 'Piezo level', 'dBu', -18, [-60, 20], 'a piezo with preamplifier'),
    figure('piezoPeakDbu', 'Piezo peak', 'dBu', 0, [-60, 30], 'a piezo with preamplifier'),
    figure('noiseDbu', 'Piezo preamplifier noise', 'dBu', -95, [-140, -40], 'a small preamplifier'),
  ],
  parameters: [...guitarControls, knob('piezo', 'Piezo volume', 10)],
  startsEngaged: true,
  stateWords: { on: 'played', off: 'not played' },
  size: { width: 1000, depth: 350, height: 60, grams: 3500 },
  passes: (s) => {
    const down = 20 * Math.log10(Math.max(1e-6, (s.knob('piezo') / 10) ** 2));
    return [
      ...passiveInstrument(s),
      ...(s.engaged
        ? [
            {
              is: 'source' as const,
              at: 'piezo',
              name: 'piezo',
              ohms: s.figure('outputOhms'),
              henries: 0,
              touch: true,
              bare: false,
              noiseDbu: s.figure('noiseDbu'),
              nominalDbu: s.figure('piezoDbu') + down,
              peakDbu: s.figure('piezoPeakDbu') + down,
              played: AT_BRIDGE,
            },
          ]
        : []),
    ];
  },
});

import { defineKind } from './define';
import { figure, knob } from './parts';

export const instrumentDigital = defineKind({
  id: 'instrument-digital',
  name: 'Guitar with a digital output',
  family: 'Instruments',
  job: 'instrument',
  about:
    'Two signals down one digital lead: channel 1 the magnetic pickups, channel 2 a modelled instrument.',
  jacks: [
    {
      id: 'digital',
      label: 'digital out, 2 channels',
      direction: 'out',
      signal: 'digital',
      connector: 'digital',
      channels: ['digital', 'digital2'],
    },
  ],
  figures: [
    figure('nominalDbu', 'Level, magnetic', 'dBu', -10, [-60, 20], 'a modelled or wireless line'),
    figure('peakDbu', 'Peak, magnetic', 'dBu', 6, [-60, 30], 'a modelled or wireless line'),
    figure('modelledDbu', 'Level, modelled', 'dBu', -10, [-60, 20], 'a modelled or wireless line'),
    figure('modelledPeakDbu', 'Peak, modelled', 'dBu', 6, [-60, 30], 'a modelled or wireless line'),
    figure('noiseDbu', 'Noise', 'dBu', -100, [-140, -40], 'converters in the instrument'),
  ],
  parameters: [knob('volume', 'Volume', 10), knob('modelled', 'Modelled volume', 10)],
  startsEngaged: true,
  stateWords: { on: 'played', off: 'not played' },
  size: { width: 1000, depth: 350, height: 60, grams: 3600 },
  passes: (s) => {
    if (!s.engaged) return [];
    const one = (
      at: string,
      level: 'nominalDbu' | 'modelledDbu',
      peak: 'peakDbu' | 'modelledPeakDbu',
      knobId: 'volume' | 'modelled',
    ) => {
      const down = 20 * Math.log10(Math.max(1e-6, (s.knob(knobId) / 10) ** 2));
      return {
        is: 'source' as const,
        at,
        ...(at === 'digital2' && { name: 'modelled' }),
        ohms: 0.01,
        henries: 0,
        touch: true,
        bare: false,
        noiseDbu: s.figure('noiseDbu'),
        nominalDbu: s.figure(level) + down,
        peakDbu: s.figure(peak) + down,
      };
    };
    return [
      one('digital', 'nominalDbu', 'peakDbu', 'volume'),
      one('digital2', 'modelledDbu', 'modelledPeakDbu', 'modelled'),
    ];
  },
});

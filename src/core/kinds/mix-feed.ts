import { defineKind } from './define';
import { figure, knob, noise, outputOhms } from './parts';

export const mixFeed = defineKind({
  id: 'mix-feed',
  name: 'Mix from the console',
  family: 'Instruments',
  job: 'instrument',
  feed: 'band',
  stands: 'house',
  about:
    'What the house or monitor console sends to the stage: the band without the player, for one ear or both.',
  jacks: [
    {
      id: 'out',
      label: 'left (mono)',
      direction: 'out',
      signal: 'audio',
      connector: 'XLR',
      pair: { with: 'outR', side: 'left', loose: true },
    },
    {
      id: 'outR',
      label: 'right',
      direction: 'out',
      signal: 'audio',
      connector: 'XLR',
      pair: { with: 'out', side: 'right', loose: true },
    },
  ],
  figures: [
    outputOhms(150, 'a balanced console output'),
    noise(-90, 'a console bus'),
    figure('nominalDbu', 'Level', 'dBu', 0, [-60, 24], 'a monitor mix at nominal'),
    figure('peakDbu', 'Peak', 'dBu', 14, [-60, 30], 'a monitor mix at nominal'),
  ],
  parameters: [knob('level', 'Level', 10)],
  startsEngaged: true,
  stateWords: { on: 'sent', off: 'not sent' },
  passes: (s, plugged) =>
    s.engaged
      ? (['out', 'outR'] as const)
          .filter((at) => at === 'out' || plugged(at))
          .map((at) => {
            const down = 20 * Math.log10(Math.max(1e-6, s.knob('level') / 10));
            return {
              is: 'source' as const,
              at,
              ohms: s.figure('outputOhms'),
              henries: 0,
              touch: false,
              bare: false,
              noiseDbu: s.figure('noiseDbu'),
              nominalDbu: s.figure('nominalDbu') + down,
              peakDbu: s.figure('peakDbu') + down,
            };
          })
      : [],
});

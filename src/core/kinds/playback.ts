import { defineKind } from './define';
import { figure, knob, noise, outJack, outputOhms } from './parts';

export const playback = defineKind({
  id: 'playback',
  name: 'Playback, tracks and click',
  family: 'Instruments',
  job: 'instrument',
  feed: 'tracks',
  about:
    'Backing tracks on one output, the click on the other: never both to the same ears by mistake.',
  jacks: [
    { ...outJack, label: 'tracks out' },
    { ...outJack, id: 'click', label: 'click out' },
  ],
  figures: [
    outputOhms(200, 'a line output'),
    noise(-100, 'a converter'),
    figure('nominalDbu', 'Level', 'dBu', -10, [-60, 20], 'an unbalanced line output'),
    figure('peakDbu', 'Peak', 'dBu', 4, [-60, 30], 'an unbalanced line output'),
  ],
  parameters: [knob('tracks', 'Tracks', 10), knob('click', 'Click', 10)],
  startsEngaged: true,
  stateWords: { on: 'running', off: 'stopped' },
  size: { width: 250, depth: 170, height: 20, grams: 700 },
  passes: (s) =>
    s.engaged
      ? [{ at: 'out', id: 'tracks' } as const, { at: 'click', id: 'click' } as const].map(
          ({ at, id }) => {
            const down = 20 * Math.log10(Math.max(1e-6, s.knob(id) / 10));
            return {
              is: 'source' as const,
              at,
              ...(at === 'click' && { name: 'click' }),
              ohms: s.figure('outputOhms'),
              henries: 0,
              touch: false,
              bare: false,
              noiseDbu: s.figure('noiseDbu'),
              nominalDbu: s.figure('nominalDbu') + down,
              peakDbu: s.figure('peakDbu') + down,
            };
          },
        )
      : [],
});

import { defineKind } from './define';
import { noise, inputOhms, ceiling, outputOhms, sides, stage, stereoJacks, through } from './parts';

export const cabBlock = defineKind({
  id: 'cab-block',
  name: 'Cab block',
  family: 'Modelers',
  job: 'simulator',
  about:
    'Filters as a loudspeaker in its cabinet with a microphone does. Full-range ' +
    'speakers and consoles need it; a real guitar cabinet does not.',
  jacks: stereoJacks,
  figures: [
    inputOhms(1e6, 'inside a host it loads nothing'),
    outputOhms(100, 'inside a host it drives nothing'),
    noise(-120, 'arithmetic'),
    ceiling(20, 'full scale'),
  ],
  parameters: [],
  through,
  startsEngaged: true,
  block: { slots: 1, percent: 8 },
  passes: (s, plugged) =>
    sides(plugged, (from, to, _, gainDb) => [
      stage(s, {
        id: `${from}>${to}`,
        from,
        to,
        outputDb: gainDb,
        ...(s.engaged ? { tiltDb: -6, cabinet: true } : {}),
      }),
    ]),
});

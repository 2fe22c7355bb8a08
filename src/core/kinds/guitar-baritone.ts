import { defineKind } from './define';
import { guitarControls, passiveInstrument, pickupFigures } from './instrument-parts';
import { outJack } from './parts';

export const guitarBaritone = defineKind({
  id: 'guitar-baritone',
  name: 'Baritone guitar',
  family: 'Instruments',
  job: 'instrument',
  about:
    'Magnetic pickup with passive volume and tone; the lead and the first input shape its tone.',
  jacks: [outJack],
  figures: pickupFigures({
    ohms: 9000,
    henries: 5,
    pF: 150,
    volume: 500_000,
    tone: 500_000,
    nF: 22,
    nominal: -17,
    peak: -1,
    hum: -94,
    why: 'a humbucker wound for a long scale and heavy strings',
  }),
  parameters: guitarControls,
  stateWords: { on: 'in use', off: 'not in use' },
  startsEngaged: true,
  // Its lowest string sounds B.
  passes: (s) => passiveInstrument(s, { hertz: 61.74, pluckedAt: 0.17, heardAt: 0.12 }),
});

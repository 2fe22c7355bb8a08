import { defineKind } from './define';
import { guitarControls, passiveInstrument, pickupFigures } from './instrument-parts';
import { outJack } from './parts';

export const electricMandolin = defineKind({
  id: 'electric-mandolin',
  name: 'Electric mandolin',
  family: 'Instruments',
  job: 'instrument',
  about:
    'Magnetic pickup with passive volume and tone; the lead and the first input shape its tone.',
  jacks: [outJack],
  figures: pickupFigures({
    ohms: 5200,
    henries: 2,
    pF: 100,
    volume: 250_000,
    tone: 250_000,
    nF: 47,
    nominal: -26,
    peak: -9,
    hum: -76,
    why: 'a small single coil over light double strings',
  }),
  parameters: guitarControls,
  stateWords: { on: 'in use', off: 'not in use' },
  startsEngaged: true,
  // Its lowest string sounds G.
  passes: (s) => passiveInstrument(s, { hertz: 196, pluckedAt: 0.15, heardAt: 0.12 }),
});

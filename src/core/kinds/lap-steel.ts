import { defineKind } from './define';
import { guitarControls, passiveInstrument, pickupFigures } from './instrument-parts';
import { outJack } from './parts';

export const lapSteel = defineKind({
  id: 'lap-steel',
  name: 'Lap steel',
  family: 'Instruments',
  job: 'instrument',
  about:
    'Magnetic pickup with passive volume and tone; the lead and the first input shape its tone.',
  jacks: [outJack],
  figures: pickupFigures({
    ohms: 7500,
    henries: 3.6,
    pF: 120,
    volume: 250_000,
    tone: 250_000,
    nF: 47,
    nominal: -20,
    peak: -5,
    hum: -73,
    why: 'a wide single coil under a short, heavy scale',
  }),
  parameters: guitarControls,
  stateWords: { on: 'in use', off: 'not in use' },
  startsEngaged: true,
  // Its lowest string sounds C.
  passes: (s) => passiveInstrument(s, { hertz: 65.41, pluckedAt: 0.14, heardAt: 0.07 }),
});

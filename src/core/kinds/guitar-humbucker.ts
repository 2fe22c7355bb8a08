import { defineKind } from './define';
import { guitarControls, passiveInstrument, pickupFigures } from './instrument-parts';
import { outJack } from './parts';

export const guitarHumbucker = defineKind({
  id: 'guitar-humbucker',
  name: 'Guitar, humbuckers',
  family: 'Instruments',
  job: 'instrument',
  about:
    'Magnetic pickup with passive volume and tone; the lead and the first input shape its tone.',
  jacks: [outJack],
  figures: pickupFigures({
    ohms: 8000,
    henries: 4.5,
    pF: 130,
    volume: 500_000,
    tone: 500_000,
    nF: 22,
    nominal: -18,
    peak: -2,
    hum: -95,
    why: 'a humbucker of about 8 kΩ and 4.5 H',
  }),
  parameters: guitarControls,
  stateWords: { on: 'in use', off: 'not in use' },
  startsEngaged: true,
  passes: (s) => passiveInstrument(s),
});

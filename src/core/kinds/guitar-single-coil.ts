import { defineKind } from './define';
import { guitarControls, passiveInstrument, pickupFigures } from './instrument-parts';
import { outJack } from './parts';

export const guitarSingleCoil = defineKind({
  id: 'guitar-single-coil',
  name: 'Guitar, single coils',
  family: 'Instruments',
  job: 'instrument',
  about:
    'Magnetic pickup with passive volume and tone; the lead and the first input shape its tone.',
  jacks: [outJack],
  figures: pickupFigures({
    ohms: 6000,
    henries: 2.5,
    pF: 110,
    volume: 250_000,
    tone: 250_000,
    nF: 47,
    nominal: -24,
    peak: -8,
    hum: -75,
    why: 'a single coil of about 6 kΩ and 2.5 H',
  }),
  parameters: guitarControls,
  stateWords: { on: 'in use', off: 'not in use' },
  startsEngaged: true,
  passes: (s) => passiveInstrument(s),
});

import { defineKind, jack } from './define';
import { wire } from './parts';

const LINES = [1, 2, 3, 4, 5, 6];
const socket = <const I extends string>(id: I, label: string) =>
  jack({
    id,
    label,
    direction: 'either',
    signal: 'audio',
    connector: 'TS',
  });

export const panel = defineKind({
  id: 'panel',
  name: 'Connector panel',
  family: 'Routing',
  job: 'direct',
  about:
    'Six jacks at the back of a rack or the side of a board, joined to six inside: ' +
    'abuse breaks a panel jack and not the gear. Metal, both ways round.',
  jacks: LINES.flatMap((n) => [
    socket(`rear${n}`, `line ${n}, outside`),
    socket(`front${n}`, `line ${n}, inside`),
  ]),
  figures: [],
  parameters: [
    { type: 'switch', id: 'insulated', label: 'Sockets insulated from the metal', initial: true },
  ],
  through: { in: 'rear1', out: 'front1' },
  alwaysOn: true,
  rackUnits: 1,
  size: { width: 483, depth: 40, height: 44, grams: 500 },
  jackSpots: Object.fromEntries<{ edge: 'rear' | 'front'; mm: number }>(
    LINES.flatMap((n) => [
      [`rear${n}`, { edge: 'rear', mm: 70 * n - 4 }],
      [`front${n}`, { edge: 'front', mm: 70 * n - 4 }],
    ]),
  ),
  passes: (s) =>
    LINES.map((n) => {
      const line = wire(`rear${n}`, `front${n}`);
      return s.on('insulated') ? { insulated: true, ...line } : line;
    }),
});

import { jack } from './define';
import { inJack } from './parts';

/** A microphone: sound in front of it, a balanced line behind. */
export const microphoneJacks = [
  jack({ id: 'air', label: 'in front', direction: 'in', signal: 'air', connector: 'air' }),
  jack({ id: 'out', label: 'out', direction: 'out', signal: 'audio', connector: 'XLR' }),
];

/** A direct box: an instrument in and on, a microphone line out. */
export const directJacks = [
  inJack,
  jack({ id: 'thru', label: 'thru', direction: 'out', signal: 'audio', connector: 'TS' }),
  jack({ id: 'out', label: 'line out', direction: 'out', signal: 'audio', connector: 'XLR' }),
];

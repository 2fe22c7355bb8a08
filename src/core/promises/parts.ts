import type { SoundFigures } from '../analysis/sound-figures';
import { nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import { sourceDevice } from '../rig/source-id';

type Side = 'left' | 'right';
export type Destination = SoundFigures['destinations'][number];

/** Which side, and whose, in words: "the left side", "Mandolin on the left side"; none where there is but one. */
export const partWords = (
  rig: Rig,
  x: { side: Side | null; source?: string },
  many: boolean,
): string =>
  [
    ...(x.source !== undefined && many ? [nameOf(rig, x.source)] : []),
    ...(x.side ? [`the ${x.side} side`] : []),
  ].join(' on ');
/** Each source on each side that a promise speaks of. */
export const partsOf = (d: Destination, p: { side?: Side; source?: string }) =>
  d.each.filter(
    (x) =>
      (!p.side || x.side === p.side) &&
      (p.source === undefined || x.source === p.source || sourceDevice(x.source) === p.source),
  );

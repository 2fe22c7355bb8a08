import type { SoundFigures } from '../analysis';
import type { Rig } from '../rig/schema';
import { placeWalk } from './walk-geometry';
import { walkView } from './walk-view';

/** A walk so small that it fits in a line of a list: where each strip stands, and whether it is heard. */
export interface SmallWalk {
  width: number;
  height: number;
  lanes: number;
  /** From the left and from the top, width, in px of the walk; then 1 where a signal is there. */
  strips: [x: number, y: number, width: number, isLive: 0 | 1][];
}

/** The walk of one sound, small; nothing where there is no signal path yet. */
export function smallWalk(rig: Rig, figures: SoundFigures | undefined): SmallWalk | null {
  if (!figures) return null;
  // Without rows of figures below, lanes stand as close as strips are high.
  const g = placeWalk(walkView(rig, figures), rig.leads, 0);
  if (!g.stations.length) return null;
  return {
    width: Math.round(g.width),
    height: Math.round(g.height),
    lanes: g.lanes.length,
    strips: g.stations.map((p) => [
      Math.round(p.x),
      Math.round(p.y),
      Math.round(p.width),
      p.station.output.levelDbu ? 1 : 0,
    ]),
  };
}

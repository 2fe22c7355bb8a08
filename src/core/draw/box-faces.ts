import { spotsOnBox } from '../build';
import type { Kind } from '../kinds';
import { type Edge, EDGES, type Sheet } from '../rig';
import { kindOfSheet } from '../rig/sheets';

/** A jack on a face of a box: how far from the left and from the bottom of what one sees, in mm. */
export interface FaceJack {
  id: string;
  label: string;
  edge: Edge;
  /** From the left or rear end of its edge, as a plan of the box counts. */
  mm: number;
  x: number;
  y: number;
}

/** One side of a box as one sees it who stands before that side; in mm. */
export interface Face {
  edge: Edge;
  width: number;
  height: number;
  jacks: FaceJack[];
}

/** What a box measures that says nothing of it: a pedal of the usual size, in mm. */
const USUAL = { width: 72, depth: 120, height: 55 };

/**
 * The sides of a box that have jacks, each as one sees it who stands before it: from behind, the left
 * end of the box is on the right. Jacks sit at half the height, since no sheet says how high they are.
 */
export function boxFaces(sheet: Sheet): Face[] {
  const kind: Kind = kindOfSheet(sheet);
  const size = kind.size ?? USUAL;
  const spots = spotsOnBox(kind, size);
  return EDGES.flatMap((edge): Face[] => {
    const width = edge === 'rear' || edge === 'front' ? size.width : size.depth;
    // From the left or rear end: so the rear, and the right side, are seen the other way round.
    const isTurned = edge === 'rear' || edge === 'right';
    const jacks = spots
      .filter((s) => s.edge === edge)
      .map(({ jack, mm }) => ({
        id: jack.id,
        label: jack.label,
        edge,
        mm,
        x: isTurned ? width - mm : mm,
        y: size.height / 2,
      }))
      .sort((a, b) => a.x - b.x);
    return jacks.length ? [{ edge, width, height: size.height, jacks }] : [];
  });
}

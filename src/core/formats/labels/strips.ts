import { kindOf } from '../../kinds';
import type { Rig } from '../../rig/schema';
import { pagesFor } from '../../songs/pads';
import { box, cells, type Label, LEAST_MM, lettersIn, line, MIDDLE } from './label';

/**
 * A strip of pads for each controller, a cell for each of its switches as far apart as they are, in
 * pieces where it is longer than the sheet; and a name for each box on a board.
 */
export function strips(rig: Rig, most: number): Label[] {
  return rig.devices
    .filter((d) => d.host === undefined)
    .flatMap((d): Label[] => {
      const kind = kindOf(d.kind);
      const width = d.size?.width ?? kind.size?.width;
      const switches = kind.switches ?? 0;
      if (width === undefined) return [];
      if (switches > 1) {
        const cell = width / switches;
        const letters = Math.max(4, lettersIn(cell - 2, LEAST_MM));
        return pagesFor(rig, '', switches, letters).flatMap((page) =>
          cells(
            Array.from({ length: switches }, (_, k) => page[k]?.label ?? ''),
            { width: cell, height: 12, most },
            (at, words, middle) => line(at, middle, 7.6, words, cell - 2, 4.4, MIDDLE),
          ),
        );
      }
      if (!d.at) return [];
      const wide = Math.min(width, 120);
      return [
        {
          width: wide,
          height: 10,
          draw: (at) => {
            box(at, wide, 10);
            line(at, wide / 2, 6.8, d.name, wide - 3, 5, MIDDLE);
          },
        },
      ];
    });
}

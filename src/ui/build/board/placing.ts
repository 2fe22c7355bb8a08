import { boardModel, freePlace, placesNow, sizeOf } from '../../../core/build';
import { kindOf } from '../../../core/kinds';
import { at as entryAt } from '../../../core/outcome';
import type { Board, Device, Edit, Rig } from '../../../core/rig';

/** Whether a device belongs on the floor and stands nowhere yet. */
export const standsOnFloor = (rig: Rig) => (d: Device) =>
  !rig.stage?.spots.some((s) => s.id === d.id) &&
  d.host === undefined &&
  !d.at &&
  !d.rack &&
  sizeOf(d) !== null &&
  ['floor', undefined].includes(d.place) &&
  kindOf(d.kind).job !== 'instrument' &&
  !kindOf(d.kind).destination;

/**
 * The edits that stand devices on a board one after the other, each where there is room beside
 * those before it; beside the board where there is none.
 */
export function placing(
  rig: Rig,
  board: Board,
  pressed: ReadonlyMap<string, number>,
  list: readonly Device[],
): Edit[] {
  const edits: Edit[] = [];
  let on = rig;
  for (const d of list) {
    const trial = boardModel(on, board, pressed, [d.id]);
    const i = trial.items.findIndex((x) => x.device.id === d.id);
    const to = freePlace(trial, i, placesNow(trial));
    const at = {
      board: board.id,
      ...(to ?? { x: board.width + 20, y: 0 }),
      ...(entryAt(trial.items, i).under && { under: true }),
    };
    edits.push({ edit: 'placeOnBoard', device: d.id, at });
    on = { ...on, devices: on.devices.map((x) => (x.id === d.id ? { ...x, at } : x)) };
  }
  return edits;
}

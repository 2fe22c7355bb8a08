import { useMemo, useState } from 'react';
import { boardModel, judge, placesNow, pressedDevices, type XY } from '../../../core/build';
import { boardSvg } from '../../../core/formats';
import { at as entryAt, sure } from '../../../core/outcome';
import type { Board, Device, Rig } from '../../../core/rig';
import { useRig } from '../../store/use-rig';
import type { Item, Turn } from './board-keys';
import { placing } from './placing';

/** A board on the bench: how it stands and is judged, what is chosen, and what a hand does to it. */
export type BenchState = ReturnType<typeof useBench>;

export function useBench(rig: Rig, board: Board) {
  const edit = useRig((s) => s.edit);
  const [selected, select] = useState<string | null>(null);
  const [moving, setMoving] = useState<{ id: string; to: XY } | null>(null);
  const pressed = useMemo(() => pressedDevices(rig), [rig]);
  const model = useMemo(() => boardModel(rig, board, pressed), [rig, board, pressed]);
  const now = useMemo(() => placesNow(model), [model]);
  const at = useMemo(
    () =>
      moving
        ? now.map((p, i) => (entryAt(model.items, i).device.id === moving.id ? moving.to : p))
        : now,
    [model, now, moving],
  );
  const index = model.items.findIndex((i) => i.device.id === selected);
  const put = (id: string, change: Partial<NonNullable<Device['at']>>) => {
    const d = sure(rig.devices.find((x) => x.id === id));
    return edit({
      edit: 'placeOnBoard',
      device: id,
      at: { board: board.id, x: 0, y: 0, ...d.at, ...change },
    }).ok;
  };
  return {
    rig,
    board,
    model,
    now,
    moving,
    setMoving,
    selected,
    select,
    put,
    /** What is chosen, and where it stands. */
    item: model.items[index],
    place: now[index],
    judged: useMemo(() => judge(model, at), [model, at]),
    rest: useMemo(() => judge(model, now), [model, now]),
    svg: useMemo(
      () => boardSvg(rig, board, { selected, at }, model),
      [rig, board, selected, at, model],
    ),
    /** Places devices where they fit, as one step. */
    placeAll: (list: readonly Device[]) => {
      const edits = placing(rig, board, pressed, list);
      const what = edits.length === 1 ? entryAt(list, 0).name : `${edits.length} devices`;
      if (edits.length) edit(edits, `placed ${what} on ${board.name}`);
    },
    choose: (by: number) =>
      select(
        model.items[(index + by + model.items.length) % model.items.length]?.device.id ?? null,
      ),
    takeOff: (id: string) => {
      edit({ edit: 'placeOnBoard', device: id, at: null });
      select(null);
    },
    turn: (it: Item) => put(it.device.id, { turn: ((it.turn + 90) % 360) as Turn }),
  };
}

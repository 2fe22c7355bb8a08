import {
  type Dispatch,
  type KeyboardEvent,
  type ReactNode,
  type SetStateAction,
  useMemo,
  useState,
} from 'react';
import {
  boardModel,
  judge,
  placesNow,
  pressedDevices,
  snapped,
  type XY,
} from '../../../core/build';
import type { Judged } from '../../../core/build/board';
import type { Model } from '../../../core/build/board-model';
import { boardSvg } from '../../../core/formats';
import { at as entryAt, sure } from '../../../core/outcome';
import type { Board, Device, Rig } from '../../../core/rig';
import { useRig } from '../../store/use-rig';
import { DrawnPlan } from '../drawn-plan';
import { Arrange } from './arrange';
import { BenchBar } from './bench-bar';
import { boardKeys, type Item, type Turn } from './board-keys';
import { BoardPanel } from './board-panel';
import { Clashes } from './clashes';
import { ItemPanel } from './item-panel';
import { placing, standsOnFloor } from './placing';
import { Tray } from './tray';

/** One board from above, with the panel of what is chosen on it. */
export function Bench({
  rig,
  board,
  onBoard,
  adding,
}: {
  rig: Rig;
  board: Board;
  onBoard: (id: string | null) => void;
  adding: React.ReactNode;
}) {
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
  const judged = useMemo(() => judge(model, at), [model, at]);
  const rest = useMemo(() => judge(model, now), [model, now]);
  const svg = useMemo(
    () => boardSvg(rig, board, { selected, at }, model),
    [rig, board, selected, at, model],
  );
  const index = model.items.findIndex((i) => i.device.id === selected);
  const item = model.items[index];
  const loose = rig.devices.filter(standsOnFloor(rig));
  const put = (id: string, change: Partial<NonNullable<Device['at']>>) => {
    const d = sure(rig.devices.find((x) => x.id === id));
    return edit({
      edit: 'placeOnBoard',
      device: id,
      at: { board: board.id, x: 0, y: 0, ...d.at, ...change },
    }).ok;
  };
  const place = (list: readonly Device[]) => {
    const edits = placing(rig, board, pressed, list);
    if (edits.length)
      edit(
        edits,
        edits.length === 1
          ? `placed ${entryAt(list, 0).name} on ${board.name}`
          : `placed ${edits.length} devices on ${board.name}`,
      );
  };
  const choose = (by: number) =>
    select(model.items[(index + by + model.items.length) % model.items.length]?.device.id ?? null);
  const takeOff = (id: string) => {
    edit({ edit: 'placeOnBoard', device: id, at: null });
    select(null);
  };
  const turn = (it: Item) => put(it.device.id, { turn: ((it.turn + 90) % 360) as Turn });
  const onKey = boardKeys(item, {
    choose,
    shift: (it, by) =>
      put(it.device.id, { x: entryAt(now, index).x + by.x, y: entryAt(now, index).y + by.y }),
    turn,
    pin: (it) => put(it.device.id, { pinned: !it.pinned }),
    takeOff: (it) => takeOff(it.device.id),
    leave: () => {
      select(null);
      setMoving(null);
    },
  });
  return (
    <div className="board" data-place="board">
      <BenchMain
        rig={rig}
        board={board}
        adding={adding}
        onBoard={onBoard}
        judged={judged}
        moving={moving}
        rest={rest}
        svg={svg}
        select={select}
        onKey={onKey}
        model={model}
        now={now}
        setMoving={setMoving}
        put={put}
      />
      <aside className="board-side scroll">
        {item ? (
          <ItemPanel
            key={`${item.device.id} ${board.id}`}
            item={item}
            onTurn={() => turn(item)}
            onPin={(pinned) => put(item.device.id, { pinned })}
            onUnder={(under) => put(item.device.id, { under })}
            onOff={() => takeOff(item.device.id)}
            canUnder={(board.under ?? 0) > 0}
          />
        ) : (
          <BoardPanel key={board.id} board={board} onGone={() => onBoard(null)} />
        )}
        <Clashes model={model} judged={judged} onPick={select} />
        <Tray loose={loose} onPlace={place} />
        <Arrange rig={rig} board={board} loose={loose} />
        <p className="faint common-text-2">
          Drag, or choose and use the keys: arrows 5 mm, Shift 1 mm, R turns, P pins, [ and ] go
          round. A lead runs on the deck where it is free, else below along a rail or edge.
        </p>
      </aside>
    </div>
  );
}

/** The board itself, drawn, with what is chosen. */
function BenchMain({
  rig,
  board,
  adding,
  onBoard,
  judged,
  moving,
  rest,
  svg,
  select,
  onKey,
  model,
  now,
  setMoving,
  put,
}: {
  rig: Rig;
  board: Board;
  adding: ReactNode;
  onBoard: (id: string | null) => void;
  judged: Judged;
  moving: { id: string; to: XY } | null;
  rest: Judged;
  svg: string;
  select: Dispatch<SetStateAction<string | null>>;
  onKey: (e: KeyboardEvent) => void;
  model: Model;
  now: XY[];
  setMoving: Dispatch<SetStateAction<{ id: string; to: XY } | null>>;
  put: (id: string, change: Partial<NonNullable<Device['at']>>) => boolean;
}) {
  return (
    <div className="board-main">
      <BenchBar
        rig={rig}
        board={board}
        adding={adding}
        onBoard={onBoard}
        judged={judged}
        before={moving ? rest : null}
      />
      <DrawnPlan
        svg={svg}
        label={
          `${board.name} from above. Square brackets choose, arrows move by 5 mm, with Shift ` +
          'by 1 mm, R turns, P pins, Delete takes off.'
        }
        onPick={select}
        onKey={onKey}
        onDrag={(id, dx, dy, done) => {
          const i = model.items.findIndex((x) => x.device.id === id);
          if (i < 0) return;
          const to = snapped(model, i, now, {
            x: entryAt(now, i).x + dx,
            y: entryAt(now, i).y + dy,
          });
          if (!done) return setMoving({ id, to });
          setMoving(null);
          put(id, { ...to });
        }}
      />
    </div>
  );
}

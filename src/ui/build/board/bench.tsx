import dynamic from 'next/dynamic';
import { type ReactNode, useEffect } from 'react';
import { snapped } from '../../../core/build';
import { at as entryAt } from '../../../core/outcome';
import type { Board, Rig } from '../../../core/rig';
import { atFirstHand } from '../../look/first-hand';
import { fetchSoon, laterPart } from '../../look/later';
import { DrawnPlan } from '../drawn-plan';
import { Arrange } from './arrange';
import { BenchBar } from './bench-bar';
import { boardKeys } from './board-keys';
import { BoardPanel } from './board-panel';
import { Clashes } from './clashes';
import { standsOnFloor } from './placing';
import { Tray } from './tray';
import { type BenchState, useBench } from './use-bench';

const ItemPanel = dynamic(
  laterPart('board item', () => import('./item-panel').then((m) => m.ItemPanel)),
  { ssr: false },
);

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
  adding: ReactNode;
}) {
  const bench = useBench(rig, board);
  useEffect(() => atFirstHand(() => fetchSoon('board item')), []);
  const { item, select, put, takeOff } = bench;
  const loose = rig.devices.filter(standsOnFloor(rig));
  return (
    <div className="board" data-place="board">
      <BenchMain bench={bench} adding={adding} onBoard={onBoard} />
      <aside className="board-side scroll">
        {item ? (
          <ItemPanel
            key={`${item.device.id} ${board.id}`}
            item={item}
            onTurn={() => bench.turn(item)}
            onPin={(pinned) => put(item.device.id, { pinned })}
            onUnder={(under) => put(item.device.id, { under })}
            onOff={() => takeOff(item.device.id)}
            canUnder={(board.under ?? 0) > 0}
          />
        ) : (
          <BoardPanel key={board.id} board={board} onGone={() => onBoard(null)} />
        )}
        <Clashes model={bench.model} judged={bench.judged} onPick={select} />
        <Tray loose={loose} onPlace={bench.placeAll} />
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
  bench,
  adding,
  onBoard,
}: {
  bench: BenchState;
  adding: ReactNode;
  onBoard: (id: string | null) => void;
}) {
  const { rig, board, model, now, item, place, select, setMoving, put } = bench;
  const onKey = boardKeys(item, {
    choose: bench.choose,
    shift: (it, by) => {
      if (place) put(it.device.id, { x: place.x + by.x, y: place.y + by.y });
    },
    turn: bench.turn,
    pin: (it) => put(it.device.id, { pinned: !it.pinned }),
    takeOff: (it) => bench.takeOff(it.device.id),
    leave: () => {
      select(null);
      setMoving(null);
    },
  });
  return (
    <div className="board-main">
      <BenchBar
        rig={rig}
        board={board}
        adding={adding}
        onBoard={onBoard}
        judged={bench.judged}
        before={bench.moving ? bench.rest : null}
      />
      <DrawnPlan
        svg={bench.svg}
        label={
          `${board.name} from above. Square brackets choose, arrows move by 5 mm, with Shift ` +
          'by 1 mm, R turns, P pins, Delete takes off.'
        }
        onPick={select}
        onKey={onKey}
        onDrag={(id, dx, dy, done) => {
          const i = model.items.findIndex((x) => x.device.id === id);
          if (i < 0) return;
          const from = entryAt(now, i);
          const to = snapped(model, i, now, { x: from.x + dx, y: from.y + dy });
          if (!done) return setMoving({ id, to });
          setMoving(null);
          put(id, { ...to });
        }}
      />
    </div>
  );
}

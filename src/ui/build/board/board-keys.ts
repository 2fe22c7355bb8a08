import type { KeyboardEvent } from 'react';
import type { Model, XY } from '../../../core/build';

export type Item = Model['items'][number];
export type Turn = Item['turn'];

/** What the keys of a board do; all but choosing and leaving need a device that is chosen. */
export interface BoardMoves {
  choose: (by: 1 | -1) => void;
  shift: (item: Item, by: XY) => void;
  turn: (item: Item) => void;
  pin: (item: Item) => void;
  takeOff: (item: Item) => void;
  leave: () => void;
}

const ARROWS: Record<string, XY> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

/** Square brackets choose, arrows move by 5 mm (with Shift by 1), R turns, P pins, Delete takes off. */
export const boardKeys = (item: Item | undefined, moves: BoardMoves) => (e: KeyboardEvent) => {
  if (e.ctrlKey || e.metaKey || e.altKey) return;
  if (!pressed(e.key, e.shiftKey ? 1 : 5, item, moves)) return;
  e.preventDefault();
  e.stopPropagation();
};

/** Does what a key stands for; `false` where it stands for nothing here. */
function pressed(key: string, mm: number, item: Item | undefined, moves: BoardMoves): boolean {
  if (key === ']' || key === '[') moves.choose(key === ']' ? 1 : -1);
  else if (key === 'Escape') moves.leave();
  else if (!item) return false;
  else if (ARROWS[key]) moves.shift(item, { x: ARROWS[key].x * mm, y: ARROWS[key].y * mm });
  else if (key.toLowerCase() === 'r') moves.turn(item);
  else if (key.toLowerCase() === 'p') moves.pin(item);
  else if (key === 'Delete' || key === 'Backspace') moves.takeOff(item);
  else return false;
  return true;
}

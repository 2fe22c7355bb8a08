import { useCallback, useState } from 'react';
import { kindOf } from '../../../core/kinds';
import { sure } from '../../../core/outcome';
import { deviceOf, leadOf } from '../../../core/rig/find';
import { useRigStore } from '../../store/use-rig';
import { moveEdit } from '../moving-edits';
import type { Moving } from '../walk-looks';

/** A device in hand: by the pointer, or by keys that choose its place. */
export interface InHand {
  moving: Moving | null;
  byKeys: boolean;
  setMoving: (moving: Moving | null) => void;
  start: () => void;
  drop: (device: string, lead: string) => void;
  leave: () => void;
  /** Chooses the next place on the walk, or the one before. */
  step: (by: 1 | -1) => void;
}

/** Takes the chosen device in hand and puts it into another of the walk's leads. */
export function useMoving(order: readonly string[]): InHand {
  const store = useRigStore();
  const [moving, setMoving] = useState<Moving | null>(null);
  const [byKeys, setByKeys] = useState(false);
  const start = useCallback(() => {
    const { selection, history } = store.getState();
    if (selection?.kind !== 'device') return;
    if (!kindOf(sure(deviceOf(history.rig, selection.id)).kind).through) return;
    setByKeys(true);
    setMoving({ device: selection.id, lead: null });
  }, [store]);
  const leave = useCallback(() => {
    setMoving(null);
    setByKeys(false);
  }, []);
  const drop = useCallback(
    (device: string, lead: string) => {
      const { history, edit } = store.getState();
      edit(moveEdit(history.rig, device, lead));
      leave();
    },
    [store, leave],
  );
  const step = (by: 1 | -1) => {
    if (!moving) return;
    const { rig } = store.getState().history;
    const targets = order.filter((id) => {
      const l = leadOf(rig, id);
      return l && l.from.device !== moving.device && l.to.device !== moving.device;
    });
    const at = moving.lead ? targets.indexOf(moving.lead) : by > 0 ? -1 : targets.length;
    setMoving({ ...moving, lead: within(targets, at + by) ?? null });
  };
  return { moving, byKeys, setMoving, start, drop, leave, step };
}

/** The entry at a place, or the nearest there is. */
export const within = <T>(list: readonly T[], i: number): T | undefined =>
  list[Math.min(list.length - 1, Math.max(0, i))];

import { type PointerEvent, useEffect, useState } from 'react';
import { SIZE } from '../../core/draw';
import type { WalkGeometry } from '../../core/draw/walk-geometry';
import { useRigStore } from '../store/use-rig';

/** How far the mouse goes before a press is a frame, in px. */
const LEAST = 6;

/** A frame that is drawn over the walk, in px of it. */
export interface Frame {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The devices whose strips a frame touches, each once, in the order of the walk. */
export function devicesIn({ stations }: Pick<WalkGeometry, 'stations'>, f: Frame): string[] {
  const isIn = stations.filter(
    (p) =>
      p.x < f.x + f.width &&
      p.x + p.width > f.x &&
      p.y < f.y + f.height &&
      p.y + (p.narrow ? SIZE.label + SIZE.meter : SIZE.label) > f.y,
  );
  return [...new Set(isIn.map((p) => p.station.device))];
}

interface Drawn {
  from: { x: number; y: number };
  to: { x: number; y: number };
  /** Whether what was chosen before stays so. */
  isMore: boolean;
}

const frameOf = ({ from, to }: Drawn): Frame => ({
  x: Math.min(from.x, to.x),
  y: Math.min(from.y, to.y),
  width: Math.abs(to.x - from.x),
  height: Math.abs(to.y - from.y),
});

/**
 * Choosing by a frame that the mouse draws over the walk from where nothing stands; with Shift, what was
 * chosen stays chosen. Escape leaves it. Fingers scroll instead.
 */
export function useMarquee(geometry: WalkGeometry) {
  const store = useRigStore();
  const [drawn, setDrawn] = useState<Drawn | null>(null);
  useEffect(() => {
    if (!drawn) return;
    const onKey = (e: KeyboardEvent) => {
      if (e.key === 'Escape') setDrawn(null);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [drawn]);
  const pointOf = (e: PointerEvent<HTMLElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    return { x: e.clientX - box.left, y: e.clientY - box.top };
  };
  const frame = drawn && frameOf(drawn);
  const isFrame = frame !== null && Math.max(frame.width, frame.height) >= LEAST;
  const handlers = {
    onPointerDown: (e: PointerEvent<HTMLElement>) => {
      const onSomething = (e.target as Element).closest('button, a, input, [role="button"]');
      if (e.pointerType !== 'mouse' || e.button !== 0 || onSomething) return;
      const from = pointOf(e);
      setDrawn({ from, to: from, isMore: e.shiftKey });
      e.currentTarget.setPointerCapture(e.pointerId);
    },
    onPointerMove: (e: PointerEvent<HTMLElement>) => {
      if (!drawn) return;
      // Figures under the frame are not to be marked as text.
      window.getSelection()?.removeAllRanges();
      setDrawn({ ...drawn, to: pointOf(e) });
    },
    onPointerUp: () => {
      if (!drawn || !frame) return;
      setDrawn(null);
      if (!isFrame) return;
      const { chosen, selection, choose } = store.getState();
      const one = selection?.kind === 'device' ? [selection.id] : [];
      const before = drawn.isMore ? (chosen.length ? chosen : one) : [];
      choose([...before, ...devicesIn(geometry, frame)]);
    },
    onPointerCancel: () => setDrawn(null),
  };
  return { frame: isFrame ? frame : null, handlers };
}

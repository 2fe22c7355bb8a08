'use client';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';

interface Props {
  svg: string;
  label: string;
  /** A thing was pressed; nothing where the sheet was. */
  onPick: (id: string | null) => void;
  /**
   * A thing is dragged: by how much since it was pressed, in units of the drawing; `done` when it
   * is let go.
   */
  onDrag?: (id: string, dx: number, dy: number, done: boolean) => void;
  onKey?: (e: KeyboardEvent) => void;
}

/**
 * A drawing whose things can be picked, dragged, and worked by keys while it has the focus. The
 * drawing itself is the one that is printed.
 */
export function DrawnPlan({ svg, label, onPick, onDrag, onKey }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const held = useRef<{ id: string; x: number; y: number; moved: boolean } | null>(null);
  const point = (e: PointerEvent) => {
    const drawing = box.current?.querySelector('svg');
    const matrix = drawing?.getScreenCTM();
    if (!matrix) return { x: 0, y: 0 };
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    return { x: p.x, y: p.y };
  };
  const itemAt = (e: PointerEvent) =>
    (e.target as Element).closest?.('[data-item]')?.getAttribute('data-item') ?? null;
  // A drawing that is worked on with keys and pointer, as its role says.
  /* eslint-disable jsx-a11y/no-noninteractive-element-interactions, jsx-a11y/no-noninteractive-tabindex */
  return (
    <div
      ref={box}
      className="plan"
      role="application"
      aria-label={label}
      tabIndex={0}
      onKeyDown={onKey}
      onPointerDown={(e) => {
        const id = itemAt(e);
        onPick(id);
        if (id === null || !onDrag) return;
        held.current = { id, ...point(e), moved: false };
        box.current?.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        const h = held.current;
        if (!h) return;
        const p = point(e);
        if (!h.moved && Math.hypot(p.x - h.x, p.y - h.y) < 3) return;
        h.moved = true;
        onDrag?.(h.id, p.x - h.x, p.y - h.y, false);
      }}
      onPointerUp={(e) => {
        const h = held.current;
        held.current = null;
        if (!h?.moved) return;
        const p = point(e);
        onDrag?.(h.id, p.x - h.x, p.y - h.y, true);
      }}
      dangerouslySetInnerHTML={{ __html: svg.replace(/^<\?xml[^>]*\?>\s*/, '') }}
    />
  );
}

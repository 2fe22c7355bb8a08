'use client';
import { type RefObject, useDeferredValue } from 'react';
import type { WalkGeometry } from '../../core/draw/walk-geometry';
import { useShown } from './use-shown';

const HEIGHT = 44;
/** Between the edge of the pane and the walk. */
const MARGIN = 14;

/**
 * The whole walk at a glance, with what is on screen marked; press or drag to look elsewhere. Only
 * there when not all of it fits.
 */
export function Minimap({
  placed,
  scroller,
}: {
  placed: WalkGeometry;
  scroller: RefObject<HTMLDivElement | null>;
}) {
  const shown = useShown(scroller);
  // The walk itself comes first.
  const g = useDeferredValue(placed);
  if (!shown) return null;
  const [fullWidth, fullHeight] = [g.width + 2 * MARGIN, g.height];
  if (fullWidth <= shown.width + 4 && fullHeight <= shown.height + 4) return null;
  // Wide and low: each way has its own scale.
  const sx = Math.min(0.3, (shown.width - 30) / fullWidth);
  const sy = HEIGHT / Math.max(fullHeight, shown.height);
  // All strips of a kind in one piece: there may be hundreds.
  const strips = (isHeard: boolean) =>
    g.stations
      .filter((p) => (p.station.output.levelDbu !== null) === isHeard)
      .map((p) => {
        const [x, y] = [(p.x + MARGIN) * sx, p.y * sy].map((v) => v.toFixed(2));
        const width = Math.max(2, p.width * sx).toFixed(2);
        return `M${x} ${y}h${width}v${Math.max(4, 58 * sy).toFixed(2)}h-${width}z`;
      })
      .join('');
  const go = (e: React.PointerEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    scroller.current?.scrollTo({
      left: (e.clientX - box.left) / sx - shown.width / 2,
      top: (e.clientY - box.top) / sy - shown.height / 2,
    });
  };
  return (
    <div className="minimap">
      <svg
        width={fullWidth * sx}
        height={HEIGHT}
        role="img"
        aria-label="The whole walk; the frame is what is on screen"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          go(e);
        }}
        onPointerMove={(e) => e.buttons > 0 && go(e)}
      >
        <path d={strips(false)} fill="var(--rule)" />
        <path d={strips(true)} fill="var(--live)" />
        <rect
          x={shown.left * sx + 0.75}
          y={shown.top * sy + 0.75}
          width={Math.min(shown.width, fullWidth) * sx - 1.5}
          height={Math.min(shown.height, fullHeight) * sy - 1.5}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      </svg>
    </div>
  );
}

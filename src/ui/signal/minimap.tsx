'use client';
import { type RefObject, useEffect, useState } from 'react';
import { placeWalk, type WalkView } from '../../core/draw';
import type { Rig } from '../../core/rig';

const HEIGHT = 44;

interface Shown { left: number; top: number; width: number; height: number; fullWidth: number; fullHeight: number; margin: number }

/** The whole walk at a glance, with what is on screen marked; press or drag to look elsewhere. Only there when not all of it fits. */
export function Minimap({ rig, view, rows, scroller }: { rig: Rig; view: WalkView; rows: number; scroller: RefObject<HTMLDivElement | null> }) {
  const [shown, setShown] = useState<Shown | null>(null);
  useEffect(() => {
    const el = scroller.current;
    if (!el) return;
    const look = () => setShown({ left: el.scrollLeft, top: el.scrollTop, width: el.clientWidth, height: el.clientHeight, fullWidth: el.scrollWidth, fullHeight: el.scrollHeight, margin: 14 });
    look();
    el.addEventListener('scroll', look);
    const sizes = new ResizeObserver(look);
    sizes.observe(el);
    if (el.firstElementChild) sizes.observe(el.firstElementChild);
    return () => {
      el.removeEventListener('scroll', look);
      sizes.disconnect();
    };
  }, [scroller, view]);
  if (!shown || (shown.fullWidth <= shown.width + 4 && shown.fullHeight <= shown.height + 4)) return null;
  const g = placeWalk(view, rig.leads, rows);
  const scale = Math.min(HEIGHT / shown.fullHeight, (shown.width - 30) / shown.fullWidth);
  const go = (e: React.PointerEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    scroller.current?.scrollTo({ left: (e.clientX - box.left) / scale - shown.width / 2, top: (e.clientY - box.top) / scale - shown.height / 2 });
  };
  return (
    <div className="minimap">
      <svg width={shown.fullWidth * scale} height={shown.fullHeight * scale} role="img" aria-label="The whole walk; the frame is what is on screen" onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        go(e);
      }} onPointerMove={(e) => e.buttons > 0 && go(e)}>
        {g.stations.map((p) => <rect key={p.station.id} x={(p.x + shown.margin) * scale} y={p.y * scale} width={Math.max(1.5, p.width * scale)} height={Math.max(2, 58 * scale)} fill={p.station.output.levelDbu ? 'var(--live)' : 'var(--rule)'} />)}
        <rect x={shown.left * scale + 0.5} y={shown.top * scale + 0.5} width={Math.min(shown.width, shown.fullWidth) * scale - 1} height={Math.min(shown.height, shown.fullHeight) * scale - 1} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
      </svg>
    </div>
  );
}

import { type RefObject, useDeferredValue, useMemo } from 'react';
import { SIZE } from '../../core/draw';
import type { WalkGeometry } from '../../core/draw/walk-geometry';
import { type Shown, useShown } from './use-shown';

/** What is so near to what is on screen counts as on it, in px: whoever scrolls a little sees it. */
const NEAR = 200;
/** Seldomer than at every px of scrolling is enough to know what is near. */
const STEP = 100;

/** Strips and tags that are on screen or near it as they are now; those far from it as they were. */
export function nearFirst(now: WalkGeometry, before: WalkGeometry, shown: Shown): WalkGeometry {
  const isNear = (p: { x: number; y: number }, width: number) =>
    p.x + width > shown.left - NEAR &&
    p.x < shown.left + shown.width + NEAR &&
    p.y + SIZE.label + SIZE.meter > shown.top - NEAR &&
    p.y < shown.top + shown.height + NEAR;
  const stations = new Map(before.stations.map((p) => [p.station.id, p]));
  const leads = new Map(before.leads.map((l) => [l.lead.id, l]));
  return {
    ...now,
    stations: now.stations.map((p) => (isNear(p, p.width) ? p : (stations.get(p.station.id) ?? p))),
    leads: now.leads.map((l) => (isNear(l, 0) ? l : (leads.get(l.lead.id) ?? l))),
  };
}

/**
 * A walk of which what is on screen is drawn at once, and what is far from it as soon as there is
 * time: what a hand changed is seen before what nobody looks at is drawn.
 */
export function useFarLater(
  geometry: WalkGeometry,
  scroller: RefObject<HTMLElement | null>,
): WalkGeometry {
  const late = useDeferredValue(geometry);
  const shown = useShown(scroller, STEP);
  return useMemo(
    () => (late === geometry || !shown ? geometry : nearFirst(geometry, late, shown)),
    [geometry, late, shown],
  );
}

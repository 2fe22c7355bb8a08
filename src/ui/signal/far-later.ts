import { type RefObject, useDeferredValue, useMemo } from 'react';
import { SIZE } from '../../core/draw';
import type { PlacedLead, PlacedStation, Way, WalkGeometry } from '../../core/draw/walk-geometry';
import { type Shown, useShown } from './use-shown';

/** What is so near to what is on screen counts as on it, in px: whoever scrolls a little sees it. */
const NEAR = 200;
/** Seldomer than at every px of scrolling is enough to know what is near. */
const STEP = 100;
/** Of a walk of more strips than this, what is far from the screen is not drawn at all. */
export const MANY = 48;
/** What is taken to be on screen before the page knows. */
const AT_FIRST: Shown = { left: 0, top: 0, width: 1280, height: 800 };

/** What of a walk is on screen, or near it. */
function sight(shown: Shown) {
  const isNear = (left: number, top: number, right: number, bottom: number) =>
    right > shown.left - NEAR &&
    left < shown.left + shown.width + NEAR &&
    bottom > shown.top - NEAR &&
    top < shown.top + shown.height + NEAR;
  return {
    strip: (p: PlacedStation) => isNear(p.x, p.y, p.x + p.width, p.y + SIZE.label + SIZE.meter),
    tag: (l: PlacedLead) => isNear(l.x, l.y, l.x, l.y + SIZE.label + SIZE.meter),
    way: (w: Way) => isNear(w.from.x, w.from.y, w.to.x, w.to.y),
  };
}

/** What is on screen or near it as it is now; what is far from it as it was. */
export function nearFirst(now: WalkGeometry, before: WalkGeometry, shown: Shown): WalkGeometry {
  const see = sight(shown);
  const stations = new Map(before.stations.map((p) => [p.station.id, p]));
  const leads = new Map(before.leads.map((l) => [l.lead.id, l]));
  const ways = new Map(before.ways.map((w) => [w.key, w]));
  return {
    ...now,
    stations: now.stations.map((p) => (see.strip(p) ? p : (stations.get(p.station.id) ?? p))),
    leads: now.leads.map((l) => (see.tag(l) ? l : (leads.get(l.lead.id) ?? l))),
    ways: now.ways.map((w) => (see.way(w) ? w : (ways.get(w.key) ?? w))),
  };
}

/** What is on screen or near it, and what is `held` wherever it is: devices and leads by their ids. */
export function nearOnly(
  all: WalkGeometry,
  shown: Shown,
  held: { has: (id: string) => boolean },
): WalkGeometry {
  const see = sight(shown);
  return {
    ...all,
    stations: all.stations.filter((p) => held.has(p.station.device) || see.strip(p)),
    leads: all.leads.filter((l) => held.has(l.lead.id) || see.tag(l)),
    ways: all.ways.filter(see.way),
  };
}

/**
 * A walk of which what is on screen is drawn at once, and what is far from it as soon as there is
 * time: what a hand changed is seen before what nobody looks at is drawn. Of a long walk only what is
 * near is drawn, and what is held.
 */
export function useFarLater(
  geometry: WalkGeometry,
  scroller: RefObject<HTMLElement | null>,
  held: ReadonlySet<string>,
): WalkGeometry {
  const late = useDeferredValue(geometry);
  const shown = useShown(scroller, STEP);
  return useMemo(() => {
    if (geometry.stations.length > MANY) return nearOnly(geometry, shown ?? AT_FIRST, held);
    return late === geometry || !shown ? geometry : nearFirst(geometry, late, shown);
  }, [geometry, late, shown, held]);
}

'use client';
import { SegmentedControl } from '@mantine/core';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { type ComponentType, Suspense } from 'react';
import { type PartId, PLACES, type PlaceId, placeOf } from '../frame/place-list';

type PlaceWithParts = {
  [P in PlaceId]: (typeof PLACES)[P] extends { parts: object } ? P : never;
}[PlaceId];
/** The view of every part of a place. */
export type Views<P extends PlaceWithParts> = { [K in PartId<P>]: ComponentType };

/**
 * The parts of a place, one shown at a time; which one is in the address, so that it can be linked
 * and comes back.
 */
export function Tabs<P extends PlaceWithParts>({ place, views }: { place: P; views: Views<P> }) {
  return (
    <Suspense>
      <Inner place={place} views={views} />
    </Suspense>
  );
}

function Inner({ place, views }: { place: PlaceId; views: Record<string, ComponentType> }) {
  const router = useRouter();
  const path = usePathname();
  const wanted = useSearchParams().get('part');
  const parts = Object.entries(placeOf(place).parts ?? {});
  const [part] = parts.find(([id]) => id === wanted) ?? parts[0] ?? [''];
  const View = views[part];
  return (
    <div className="tabs">
      <div className="tabs-bar">
        <SegmentedControl
          size="xs"
          value={part}
          onChange={(v) => router.replace(`${path}?part=${v}`, { scroll: false })}
          data={parts.map(([value, p]) => ({ value, label: p.label }))}
        />
      </div>
      {View && <View />}
    </div>
  );
}

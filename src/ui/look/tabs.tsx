'use client';
import { SegmentedControl } from '@mantine/core';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { type ComponentType, Suspense } from 'react';

export type Parts = Record<string, { label: string; view: ComponentType }>;

/**
 * The parts of a place, one shown at a time; which one is in the address, so that it can be linked
 * and comes back.
 */
export function Tabs({ parts }: { parts: Parts }) {
  return (
    <Suspense>
      <Inner parts={parts} />
    </Suspense>
  );
}

function Inner({ parts }: { parts: Parts }) {
  const router = useRouter();
  const path = usePathname();
  const wanted = useSearchParams().get('part');
  const part = wanted && Object.hasOwn(parts, wanted) ? wanted : Object.keys(parts)[0]!;
  const View = parts[part]!.view;
  return (
    <div style={{ display: 'grid', gridTemplateRows: 'auto minmax(0,1fr)', minHeight: 0 }}>
      <div style={{ padding: '8px 14px' }}>
        <SegmentedControl
          size="xs"
          value={part}
          onChange={(v) => router.replace(`${path}?part=${v}`, { scroll: false })}
          data={Object.entries(parts).map(([value, p]) => ({ value, label: p.label }))}
        />
      </div>
      <View />
    </div>
  );
}

'use client';
import { useMemo } from 'react';
import type { Kind } from '../../core/kinds';
import { TypedList } from './typed-list';

/** Kinds of devices, chosen from by typing; `onMark` is told which one Enter would take. */
export function KindList({
  kinds,
  onMark,
  onPick,
}: {
  kinds: readonly Kind[];
  onMark?: (kind: Kind | undefined) => void;
  onPick: (kind: Kind) => void;
}) {
  const items = useMemo(() => kinds.map(asTyped), [kinds]);
  const mark = useMemo(
    () => onMark && ((item: (typeof items)[number] | undefined) => onMark(item?.kind)),
    [onMark],
  );
  return (
    <TypedList
      label="Find a kind"
      list="Kinds"
      placeholder="Type to find: drive, delay, isolated …"
      nothing="No kind is called that. Try a shorter word."
      items={items}
      attribute="data-kind"
      onMark={mark}
      onPick={({ kind }) => onPick(kind)}
    />
  );
}

const asTyped = (kind: Kind) => ({
  kind,
  id: kind.id,
  name: `${kind.name} ${kind.family} ${kind.job}`,
  words: kind.about,
  shown: (
    <>
      <strong>{kind.name}</strong> <span className="common-text-2">{kind.family}</span>
    </>
  ),
});

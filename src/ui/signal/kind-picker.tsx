'use client';
import { Modal } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { Kind } from '../../core/kinds';
import { type Edit, kindsFor } from '../../core/rig';
import { useDocument } from '../store/use-rig';
import { TypedList } from '../look/typed-list';
import { PreviewPanel } from './preview-panel';
import { usePreview } from './use-preview';

/** Chooses a kind by typing and arrow keys; while one is marked, shows what taking it would change. */
export function KindPicker({
  title,
  fits,
  editsFor,
  onPick,
  onClose,
}: {
  title: string;
  fits: (k: Kind) => boolean;
  editsFor: (k: Kind) => Edit[];
  onPick: (k: Kind) => void;
  onClose: () => void;
}) {
  const { sheets } = useDocument();
  const items = useMemo(() => kindsFor(sheets).filter(fits).map(asTyped), [fits, sheets]);
  const [marked, setMarked] = useState<Kind>();
  const preview = usePreview(useMemo(() => (marked ? editsFor(marked) : null), [marked, editsFor]));
  return (
    <Modal opened onClose={onClose} title={title} size="xl" centered>
      <TypedList
        label="Find a kind"
        list="Kinds"
        placeholder="Type to find: drive, delay, isolated …"
        nothing="No kind is called that. Try a shorter word."
        items={items}
        attribute="data-kind"
        onMark={(item: (typeof items)[number] | undefined) => setMarked(item?.kind)}
        onPick={({ kind }) => onPick(kind)}
      />
      {marked && <div className="kind-picker-text">{marked.about}</div>}
      {marked && preview && <PreviewPanel title={`With ${marked.name}:`} preview={preview} />}
    </Modal>
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

'use client';
import { Modal } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { Kind } from '../../core/kinds';
import { type Edit, kindsFor } from '../../core/rig';
import { useDocument } from '../store/use-rig';
import { KindList } from '../look/kind-list';
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
  const kinds = useMemo(() => kindsFor(sheets).filter(fits), [fits, sheets]);
  const [marked, setMarked] = useState<Kind>();
  const preview = usePreview(useMemo(() => (marked ? editsFor(marked) : null), [marked, editsFor]));
  return (
    <Modal opened onClose={onClose} title={title} size="xl" centered>
      <KindList kinds={kinds} onMark={setMarked} onPick={onPick} />
      {marked && <div className="kind-picker-text">{marked.about}</div>}
      {marked && preview && <PreviewPanel title={`With ${marked.name}:`} preview={preview} />}
    </Modal>
  );
}

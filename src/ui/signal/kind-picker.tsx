'use client';
import { Modal, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import { type Kind, KINDS } from '../../core/kinds';
import type { Edit } from '../../core/rig';
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
  const [query, setQuery] = useState('');
  const [at, setAt] = useState(0);
  const found = useMemo(
    () =>
      KINDS.filter(
        (k) =>
          fits(k) &&
          `${k.name} ${k.family} ${k.job}`.toLowerCase().includes(query.toLowerCase().trim()),
      ),
    [query, fits],
  );
  const marked = found[Math.min(at, found.length - 1)];
  const preview = usePreview(useMemo(() => (marked ? editsFor(marked) : null), [marked, editsFor]));
  return (
    <Modal opened onClose={onClose} title={title} size="xl" centered>
      <TextInput
        autoFocus
        data-autofocus
        aria-label="Find a kind"
        placeholder="Type to find: drive, delay, buffer …"
        value={query}
        onChange={(e) => {
          setQuery(e.currentTarget.value);
          setAt(0);
        }}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown') setAt(Math.min(at + 1, found.length - 1));
          else if (e.key === 'ArrowUp') setAt(Math.max(at - 1, 0));
          else if (e.key === 'Enter' && marked) onPick(marked);
          else return;
          e.preventDefault();
        }}
      />
      <div role="listbox" aria-label="Kinds" className="kind-picker-box">
        {found.map((k, i) => (
          // Keys work on the field above, which marks an option; the list itself takes no focus.
          // eslint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/interactive-supports-focus
          <div
            key={k.id}
            role="option"
            aria-selected={k === marked}
            data-kind={k.id}
            ref={(el) => {
              if (k === marked) el?.scrollIntoView({ block: 'nearest' });
            }}
            onMouseMove={() => setAt(i)}
            onClick={() => onPick(k)}
            className="kind-picker-box-2"
            style={{
              background: k === marked ? 'var(--tape)' : undefined,
              color: k === marked ? 'var(--tape-ink)' : undefined,
            }}
          >
            <strong>{k.name}</strong> <span className="common-text-2">{k.family}</span>
          </div>
        ))}
        {!found.length && <div className="empty">No kind is called that. Try a shorter word.</div>}
      </div>
      {marked && <div className="kind-picker-text">{marked.about}</div>}
      {marked && preview && <PreviewPanel title={`With ${marked.name}:`} preview={preview} />}
    </Modal>
  );
}

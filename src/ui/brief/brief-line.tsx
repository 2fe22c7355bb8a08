'use client';
import { ActionIcon, Button, Select, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { type ReactNode, useState } from 'react';
import type { BriefState } from '../../core/start';
import { useDocument } from '../store/use-rig';
import { kindOptions } from './words';
import { CommitText } from '../look/commit-text';

export function Part({
  title,
  add,
  children,
}: {
  title: string;
  add: ReactNode;
  children: ReactNode;
}) {
  return (
    <section className="brief-part" aria-label={title}>
      <div className="brief-head">
        <h2>{title}</h2>
        {add}
      </div>
      {children}
    </section>
  );
}

export interface LineProps {
  part: keyof BriefState;
  line: { id: string; name: string };
  state: BriefState;
  what?: string;
  onName: (name: string) => void;
  onRemove: () => void;
  onMake?: () => void;
  children?: ReactNode;
}

/** One line of the brief: its name, what it is, and what in the rig answers it. */
export function Line({ part, line, state, what, onName, onRemove, onMake, children }: LineProps) {
  const rig = useDocument();
  const found = state[part][line.id];
  const called =
    part === 'sounds'
      ? rig.sounds.find((s) => s.id === found)?.name
      : rig.devices.find((d) => d.id === found)?.name;
  return (
    <div className="brief-line" data-line={line.id} data-answered={found !== undefined}>
      <CommitText
        w={170}
        aria-label={`Name of ${line.name}`}
        needed
        value={line.name}
        onCommit={(name) => name && onName(name)}
      />
      {children}
      <span className="faint line-text">
        {what && what !== line.name ? `${what}. ` : ''}
        {found !== undefined
          ? called === line.name
            ? 'In the rig.'
            : `In the rig as ${called}.`
          : 'Not in the rig yet.'}
      </span>
      {found === undefined && onMake && (
        <Button size="compact-xs" variant="default" onClick={onMake}>
          {part === 'sounds' ? 'Make it' : 'Add it'}
        </Button>
      )}
      <Remove words={line.name} onRemove={onRemove} />
    </div>
  );
}

export const Remove = ({ words, onRemove }: { words: string; onRemove: () => void }) => (
  <ActionIcon size="sm" variant="subtle" aria-label={`Strike out ${words}`} onClick={onRemove}>
    <IconX size={14} />
  </ActionIcon>
);

export function AddKind({
  label,
  data,
  onAdd,
}: {
  label: string;
  data: ReturnType<typeof kindOptions>;
  onAdd: (kind: string) => void;
}) {
  return (
    <Select
      size="xs"
      w={230}
      searchable
      placeholder={label}
      aria-label={label}
      value={null}
      data={data}
      onChange={(v) => v && onAdd(v)}
    />
  );
}

export function AddText({ label, onAdd }: { label: string; onAdd: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <form
      className="add-text-row"
      onSubmit={(e) => {
        e.preventDefault();
        if (!text.trim()) return;
        onAdd(text.trim());
        setText('');
      }}
    >
      <TextInput
        size="xs"
        w={180}
        placeholder={label}
        aria-label={label}
        maxLength={120}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      <Button size="xs" variant="default" type="submit">
        Add
      </Button>
    </form>
  );
}

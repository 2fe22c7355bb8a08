'use client';
import { TextInput } from '@mantine/core';
import { type ReactNode, useEffect, useMemo, useState } from 'react';

/** One of a list that is found by typing: what it is called, what else it is found by, and what is shown. */
export interface Typed {
  id: string;
  name: string;
  /** What it means: an entry is found by it too, behind those that are called what is typed. */
  words: string;
  shown: ReactNode;
}

/** So many are drawn at most; typing narrows the rest down. */
const MOST = 80;

/**
 * A list that is chosen from by typing and arrow keys: every word that is typed must be in an entry, in any
 * order. `onMark` is told which one Enter would take.
 */
export function TypedList<T extends Typed>({
  label,
  list,
  placeholder,
  nothing,
  items,
  attribute,
  onMark,
  onPick,
}: {
  /** What the field is called, and the list. */
  label: string;
  list: string;
  placeholder: string;
  nothing: string;
  items: readonly T[];
  /** The data attribute that carries the id of an entry. */
  attribute: `data-${string}`;
  onMark?: (item: T | undefined) => void;
  onPick: (item: T) => void;
}) {
  const [query, setQuery] = useState('');
  const [at, setAt] = useState(0);
  const found = useMemo(() => {
    const typed = query.toLowerCase().split(/\s+/).filter(Boolean);
    const has = (text: string) => typed.every((w) => text.toLowerCase().includes(w));
    const named = items.filter((i) => has(i.name));
    return [...named, ...items.filter((i) => !has(i.name) && has(`${i.name} ${i.words}`))];
  }, [query, items]);
  const marked = found[Math.min(at, found.length - 1)];
  useEffect(() => onMark?.(marked), [marked, onMark]);
  return (
    <>
      <TextInput
        autoFocus
        data-autofocus
        aria-label={label}
        placeholder={placeholder}
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
      {/* It can be scrolled by keys too; what is marked follows the field above. */}
      <div
        role="listbox"
        aria-label={list}
        tabIndex={0}
        hidden={!found.length}
        className="typed-list"
      >
        {found.slice(0, MOST).map((item, i) => (
          // Keys work on the field above, which marks an option; the list itself takes no focus.
          // eslint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/interactive-supports-focus
          <div
            key={item.id}
            role="option"
            aria-selected={item === marked}
            {...{ [attribute]: item.id }}
            ref={(el) => {
              if (item === marked) el?.scrollIntoView({ block: 'nearest' });
            }}
            onMouseMove={() => setAt(i)}
            onClick={() => onPick(item)}
            className="typed-option"
          >
            {item.shown}
          </div>
        ))}
      </div>
      {found.length > MOST && (
        <div className="faint">… {found.length - MOST} more: type to find them.</div>
      )}
      {!found.length && <div className="empty">{nothing}</div>}
    </>
  );
}

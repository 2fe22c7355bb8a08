import { Button, Select, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import { LINE_SORTS, type LineSort, linksIn, sortOf } from '../../../core/show/book';
import { personName } from '../../keep/person';
import { useDocument } from '../../store/use-rig';
import { newId } from '../new-id';
import { useShow } from '../parts';
import { useBook } from '../use-book';

/** What each sort of line is called. */
export const SORT_WORDS: Record<LineSort, string> = {
  note: 'note',
  fault: 'fault',
  repair: 'repair',
  battery: 'battery',
  tube: 'tubes',
  measured: 'measured',
};

const DRAFT = 'yantrel log draft';
const draftNow = (rig: string): string => {
  try {
    return localStorage.getItem(`${DRAFT} ${rig}`) ?? '';
  } catch {
    return '';
  }
};

/** Where a line is typed; what is half typed outlives a reload. */
export function LineForm({ song }: { song?: string }) {
  const rig = useDocument();
  const put = useBook((s) => s.put);
  const { show } = useShow();
  const [text, setText] = useState(() => draftNow(rig.id));
  const [sort, setSort] = useState<LineSort | null>(null);
  const links = useMemo(() => linksIn(rig, text), [rig, text]);
  const type = (next: string) => {
    setText(next);
    try {
      localStorage.setItem(`${DRAFT} ${rig.id}`, next);
    } catch {
      // It stays in the page.
    }
  };
  const write = () => {
    if (!text.trim()) return;
    put('line', newId(), {
      at: new Date().toISOString(),
      text: text.trim().slice(0, 1000),
      by: (personName() ?? '').slice(0, 60),
      show: show?.id ?? '',
      song: song ?? links.find((l) => l.is === 'song')?.id ?? '',
      sort: sort ?? sortOf(text),
      links,
    });
    type('');
    setSort(null);
  };
  return (
    <form
      className="log-form"
      onSubmit={(e) => {
        e.preventDefault();
        write();
      }}
    >
      <TextInput
        size="md"
        aria-label="A line for the logbook"
        placeholder="What happened? One line, as it comes."
        value={text}
        maxLength={1000}
        onChange={(e) => type(e.currentTarget.value)}
      />
      <Select
        size="md"
        aria-label="What it is"
        className="log-sort"
        data={LINE_SORTS.map((s) => ({ value: s, label: SORT_WORDS[s] }))}
        value={sort ?? sortOf(text)}
        allowDeselect={false}
        onChange={(v) => setSort(v)}
      />
      <Button size="md" type="submit" disabled={!text.trim()}>
        Write down
      </Button>
      {links.length > 0 && (
        <p className="small-print" data-links>
          About: {links.map((l) => l.name).join(', ')}
        </p>
      )}
    </form>
  );
}

import { useToday } from '../look/use-today';
import { Button, Progress, Select } from '@mantine/core';
import { type ReactNode, useSyncExternalStore } from 'react';
import { LIVE_CAUTIONS } from './cautions';
import { EMPTY_BOOK, playedBefore, type Show } from '../../core/show/book';
import { useDocument } from '../store/use-rig';
import { useBook } from './use-book';

/** How far long work is, with a way to stop it. */
export function Progressing({
  share,
  words,
  onCancel,
}: {
  share: number;
  words: string;
  onCancel?: () => void;
}) {
  return (
    <div className="show-working" role="status">
      <Progress value={100 * share} aria-label="How far it is" />
      <span className="faint small-print">{words}</span>
      {onCancel && (
        <Button size="compact-sm" variant="default" onClick={onCancel}>
          Stop
        </Button>
      )}
    </div>
  );
}

const SHOW_KEY = 'yantrel show chosen';
const listeners = new Set<() => void>();
const chosenNow = (): string => {
  try {
    return localStorage.getItem(SHOW_KEY) ?? '';
  } catch {
    return '';
  }
};

/** The show that is being played or got ready: the chosen one, else today's, else the next. */
export function useShow(): { show: Show | undefined; shows: Show[]; choose: (id: string) => void } {
  const all = useBook((s) => s.book.show);
  const chosen = useSyncExternalStore(
    (heard) => {
      listeners.add(heard);
      return () => listeners.delete(heard);
    },
    chosenNow,
    () => '',
  );
  const shows = all.filter((s) => !s.gone).sort((a, b) => a.date.localeCompare(b.date));
  const day = useToday();
  const show =
    shows.find((s) => s.id === chosen) ??
    shows.find((s) => s.date >= day) ??
    playedBefore({ ...EMPTY_BOOK, show: shows }, day).at(-1);
  return {
    show,
    shows,
    choose: (id) => {
      try {
        localStorage.setItem(SHOW_KEY, id);
      } catch {
        // A browser that keeps nothing takes today's show again.
      }
      listeners.forEach((heard) => heard());
    },
  };
}

export const showWords = (s: Show): string => `${s.date}${s.venue ? `, ${s.venue}` : ''}`;

/** Which show is meant. */
export function ShowPicker() {
  const { show, shows, choose } = useShow();
  if (!shows.length) return null;
  return (
    <Select
      size="sm"
      label="Show"
      className="show-picker"
      data={shows.map((s) => ({ value: s.id, label: showWords(s) }))}
      value={show?.id ?? null}
      allowDeselect={false}
      searchable
      onChange={(id) => id && choose(id)}
    />
  );
}

/** The set of a show, else the rig's first. */
export function useSet() {
  const rig = useDocument();
  const { show } = useShow();
  return rig.sets?.find((s) => s.id === show?.set) ?? rig.sets?.[0];
}

/** Whether everything that was written down is saved; what is not, is in this browser. */
export function BookMark() {
  const waiting = useBook((s) => s.waiting);
  const away = useBook((s) => s.away);
  const trouble = useBook((s) => s.trouble);
  return (
    <span
      className="small-print"
      role="status"
      data-book={waiting ? (away ? 'kept' : 'saving') : away ? 'away' : 'saved'}
    >
      {waiting
        ? away
          ? `${waiting} kept in this browser, saved when the server is back`
          : 'saving …'
        : away
          ? 'no network: everything you write is kept here'
          : 'written down'}
      {trouble && <strong role="alert"> {trouble}</strong>}
    </span>
  );
}

/** What two people wrote otherwise at once: both are shown, and one is taken. */
export function Differing() {
  const differs = useBook((s) => s.differs);
  const settle = useBook((s) => s.settle);
  if (!differs.length) return null;
  return (
    <ul className="show-note" role="alert" data-differs>
      {differs.map((d) => (
        <li key={`${d.id} ${d.field}`}>
          Somebody else changed the same: theirs is “{words(d.theirs)}”, yours “{words(d.yours)}”.{' '}
          <Button size="compact-sm" variant="default" onClick={() => settle(d, 'theirs')}>
            Keep theirs
          </Button>{' '}
          <Button size="compact-sm" variant="default" onClick={() => settle(d, 'yours')}>
            Put yours
          </Button>
        </li>
      ))}
    </ul>
  );
}

const words = (value: unknown): string =>
  typeof value === 'string' ? value : JSON.stringify(value);

/** What to mind where it can hurt somebody. */
export function Caution({ about }: { about: (keyof typeof LIVE_CAUTIONS)[] }) {
  return (
    <ul className="show-cautions" aria-label="Mind">
      {about.map((a) => (
        <li key={a}>{LIVE_CAUTIONS[a]}</li>
      ))}
    </ul>
  );
}

/** A heading with what can be done beside it. */
export function Head({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="show-head">
      <h2>{title}</h2>
      {children}
    </div>
  );
}

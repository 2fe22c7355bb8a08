'use client';
import { useCallback, useEffect, useState } from 'react';
import type { LockerSheet, Sheet } from '../../../core/rig';
import { askServer, problemText } from '../../keep/ask-server';
import { SheetList } from './choose';

/** The sheets of the locker, asked for when they are shown; a problem in words where that fails. */
export function useLocker(): {
  sheets: readonly LockerSheet[] | null;
  problem: string | null;
  /** Sheets that stand in the locker and cannot be read by this version, and why. */
  unread: readonly { id: string; name: string; why: string }[];
  take: (sheets: readonly LockerSheet[]) => void;
  look: () => Promise<void>;
} {
  const [sheets, setSheets] = useState<readonly LockerSheet[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [unread, setUnread] = useState<ReturnType<typeof useLocker>['unread']>([]);
  const look = useCallback(async () => {
    const reply = await askServer<{
      sheets: LockerSheet[];
      unread: ReturnType<typeof useLocker>['unread'];
    }>('/api/sheets');
    setProblem(reply.ok ? null : problemText(reply.problem));
    if (!reply.ok) return;
    setSheets(reply.value.sheets);
    setUnread(reply.value.unread);
  }, []);
  useEffect(() => void look(), [look]);
  return { sheets, problem, unread, take: setSheets, look };
}

/** Sheets of the locker to choose from. */
export function LockerList({ onPick }: { onPick: (sheet: Sheet) => void }) {
  const { sheets, problem } = useLocker();
  if (problem) return <p role="alert">{problem}</p>;
  if (!sheets) return <p>Opening the locker …</p>;
  if (!sheets.length)
    return <p>The locker holds no sheets yet. Put one in from here, and every rig can take it.</p>;
  return <SheetList sheets={sheets.map((s) => s.sheet)} onPick={onPick} />;
}

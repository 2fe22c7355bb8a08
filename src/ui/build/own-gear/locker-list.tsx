'use client';
import { useEffect, useState } from 'react';
import type { Sheet } from '../../../core/rig';
import { askServer, problemText } from '../../keep/ask-server';
import { SheetList } from './choose';

/** A sheet of the locker, as the server tells it. */
export interface LockerSheet {
  sheet: Sheet;
  version: number;
  uses: { rig: string; rigName: string; devices: number; isSame: boolean; archived: boolean }[];
}

/** The sheets of the locker, asked for when they are shown; a problem in words where that fails. */
export function useLocker(): {
  sheets: readonly LockerSheet[] | null;
  problem: string | null;
  take: (sheets: readonly LockerSheet[]) => void;
} {
  const [sheets, setSheets] = useState<readonly LockerSheet[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let wanted = true;
    void askServer<{ sheets: LockerSheet[] }>('/api/sheets').then((reply) => {
      if (!wanted) return;
      if (reply.ok) setSheets(reply.value.sheets);
      else setProblem(problemText(reply.problem));
    });
    return () => {
      wanted = false;
    };
  }, []);
  return { sheets, problem, take: setSheets };
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

'use client';
import { type ReactNode, useEffect, useLayoutEffect, useState } from 'react';
import { Button } from '@mantine/core';
import type { Report } from '../../core/report';
import { NOTHING_YET } from '../../core/report/nothing-yet';
import { keepAnalysis, loseAnalysis, openDoor, startAnalysis, watchByLock } from '../../worker';
import type { Head } from '../../core/keep';
import { newestJournal } from '../keep/journal';
import { Keeper, type Question } from '../keep/keeper';
import { atFirstHand } from '../look/first-hand';
import { LiveLine } from '../keep/live-line';
import { personName } from '../keep/person';
import { createRigStore, type RigStore } from '../store/rig-store';
import { RigContext } from '../store/use-rig';
import { RigFrame } from './rig-frame';
import { takeAddress } from './use-address';

export interface OpenedRig {
  head: Head;
  report: Report;
  /** Whether the report is that of the head; else of an earlier revision, or empty. */
  isCurrent: boolean;
}

const UNITS = 'yantrel units';

/** Keeps the units a person reads in, in this browser. */
function rememberUnits(store: RigStore): () => void {
  try {
    const kept = JSON.parse(localStorage.getItem(UNITS) ?? 'null') as {
      level?: string;
      length?: string;
    } | null;
    if (kept)
      store.getState().setUnits({
        level: kept.level === 'dBV' ? 'dBV' : 'dBu',
        length: kept.length === 'imperial' ? 'imperial' : 'metric',
      });
  } catch {
    // Nothing sensible was kept; the usual units stay.
  }
  return store.subscribe((now, before) => {
    if (now.units !== before.units) localStorage.setItem(UNITS, JSON.stringify(now.units));
  });
}

/**
 * An opened rig: its store, its worker, its keeper. Where the server could not give it, the copy in
 * this browser is opened.
 */
export function RigApp({
  id,
  opened,
  problem,
  children,
}: {
  id: string;
  opened: OpenedRig | null;
  problem: string | null;
  children: ReactNode;
}) {
  const [session, setSession] = useState<{ store: RigStore; head: Head } | null>(
    () =>
      opened && {
        store: createRigStore(opened.head.rig, opened.report, !opened.isCurrent),
        head: opened.head,
      },
  );
  const [keeper, setKeeper] = useState<Keeper | null>(null);
  const [question, setQuestion] = useState<Question | null>(null);
  const [looked, setLooked] = useState(false);

  useEffect(() => {
    if (session) return;
    // Opened on its base; what was not saved is taken up from the journal as after any reload.
    void newestJournal(id).then((journal) => {
      setLooked(true);
      if (!journal) return;
      const { base } = journal;
      // Its figures come from the worker, as soon as it is there.
      setSession({ store: createRigStore(base.rig, NOTHING_YET, true), head: base });
    });
  }, [id, session]);

  // Once, before anything can be pressed: later it would take back what was pressed meanwhile.
  useLayoutEffect(() => {
    if (session) takeAddress(session.store.getState());
  }, [session]);

  useEffect(() => {
    if (!session) return;
    const door = openDoor({
      start: startAnalysis,
      leave: keepAnalysis,
      lost: loseAnalysis,
      watch: watchByLock,
      document: () => session.store.getState().history.rig,
      onRestart: (why, report) => session.store.getState().takeOver(why, report),
    });
    session.store.getState().setDoor(door);
    // Ready before the first edit; who only looks, at figures that came with the page, needs none.
    const off = atFirstHand(() => {
      door.wake();
      // Where the server is away now, an edit says so.
      session.store
        .getState()
        .ready()
        .catch(() => undefined);
    });
    const keeps = new Keeper(session.store, session.head, setQuestion, personName);
    const line = new LiveLine(id, session.store, keeps);
    setKeeper(keeps);
    void keeps.recover();
    const forget = rememberUnits(session.store);
    return () => {
      off();
      forget();
      line.close();
      keeps.close();
      door.close();
    };
  }, [id, session]);

  if (!session) {
    return (
      <div className="page">
        <h1>{problem ?? 'Opening …'}</h1>
        {problem && looked && <p>This browser has no copy of the rig either.</p>}
        {problem && <Button onClick={() => window.location.reload()}>Try again</Button>}{' '}
        <a href="/">All rigs</a>
      </div>
    );
  }
  return (
    <RigContext.Provider value={session.store}>
      <RigFrame keeper={keeper} question={question}>
        {children}
      </RigFrame>
    </RigContext.Provider>
  );
}

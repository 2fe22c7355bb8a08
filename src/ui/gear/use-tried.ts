'use client';
import { useEffect, useState } from 'react';
import type { BySound } from '../../core/report';
import {
  type InPlace,
  kindIdOf,
  learnSheets,
  type Rig,
  type Sheet,
  substitution,
  unitInPlace,
} from '../../core/rig';
import { askServer, problemText } from '../keep/ask-server';
import { CANCELLED, propose } from '../../worker';
import type { Exchanging } from './substitute';
import type { LockerUnit } from '../../core/rig';

/** What is to take the place of something, as it is chosen; the sheet that says what it is, where one does. */
export type Comes = { id: string; name: string; sheet: Sheet | undefined } & (
  { is: 'sheet'; sheet: Sheet } | { is: 'kind' } | { is: 'unit'; unit: LockerUnit }
);

/** What an exchange would do to one rig: tried on a copy, or why it could not be. */
export type Tried =
  | { is: 'trying' }
  | { is: 'tried'; outcome: BySound; identity: string; says: string | null }
  | { is: 'not'; why: string };

const inPlace = (comes: Comes): InPlace =>
  comes.is === 'sheet'
    ? { is: 'sheet', sheet: comes.sheet }
    : comes.is === 'kind'
      ? { is: 'kind', kind: comes.id }
      : { is: 'unit', unit: unitInPlace(comes.unit, comes.sheet) };

/** Tries an exchange in every rig, one after the other, as soon as it is known what comes. */
export function useTried(
  { of, rigs }: Exchanging,
  comes: Comes | null,
): Readonly<Record<string, Tried>> {
  const [tried, setTried] = useState<Record<string, Tried>>({});
  useEffect(() => {
    setTried({});
    if (!comes) return undefined;
    let stop: () => void = () => undefined;
    let gone = false;
    const put = (rig: string, t: Tried) => !gone && setTried((now) => ({ ...now, [rig]: t }));
    void (async () => {
      for (const { rig: id } of rigs) {
        put(id, { is: 'trying' });
        const reply = await askServer<{ rig: Rig; identity: string }>(`/api/rigs/${id}`);
        if (gone) return;
        if (!reply.ok) {
          put(id, { is: 'not', why: problemText(reply.problem) });
          continue;
        }
        const { rig, identity } = reply.value;
        learnSheets([...(rig.sheets ?? []), ...(comes.sheet ? [comes.sheet] : [])]);
        const says = comes.sheet ? kindIdOf(comes.sheet) : null;
        const edits = substitution(rig, of, inPlace(comes));
        const working = propose('bySound', { rig, edits }, () => {});
        stop = working.cancel;
        await working.answer.then(
          (outcome) =>
            put(
              id,
              'refused' in outcome
                ? { is: 'not', why: outcome.refused }
                : { is: 'tried', outcome, identity, says },
            ),
          (e: Error) => e.message !== CANCELLED && put(id, { is: 'not', why: e.message }),
        );
      }
    })();
    return () => {
      gone = true;
      stop();
    };
    // What is exchanged does not change while the dialog is open.
  }, [comes, of, rigs]);
  return tried;
}

'use client';
import { Button } from '@mantine/core';
import { useEffect, useState } from 'react';
import { isSafe } from '../../core/report';
import type { Rig } from '../../core/rig';
import { useWorking } from '../look/use-working';
import { useDocument, useRig } from '../store/use-rig';
import type { Trials } from './use-trials';

/** Takes every fix that cures and breaks nothing, one after the other, as one step of undo. */
export function CureAll({ trials }: { trials: Trials }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const { work, start, cancel, clear } = useWorking('cure');
  const [said, setSaid] = useState<string[]>([]);
  const [of, setOf] = useState<Rig | null>(null);
  const [moved, setMoved] = useState(false);
  const safe =
    trials.state === 'done'
      ? Object.values(trials.answer).filter(([best]) => best && isSafe(best.tried)).length
      : 0;
  useEffect(() => {
    if (work.state !== 'done') return;
    const { edits, done } = work.answer;
    const words = done.map((d) => d.words);
    // Tried on the rig as it stood: another one has to be tried anew.
    if (of !== rig) setMoved(true);
    else if (edits.length && edit(edits, `fixed all that was safe: ${words.join('; ')}`).ok)
      setSaid(words);
    clear();
  }, [work, edit, clear, of, rig]);
  const begin = () => {
    setMoved(false);
    setSaid([]);
    setOf(rig);
    start({ rig });
  };
  return (
    <div className="cure-all" data-cure-all>
      {work.state === 'working' ? (
        <Button size="compact-sm" variant="default" onClick={cancel}>
          Stop ({Math.round(work.share * 100)} %)
        </Button>
      ) : (
        safe > 0 && (
          <Button size="compact-sm" onClick={begin}>
            Fix all that is safe ({safe})
          </Button>
        )
      )}
      {trials.state === 'working' && (
        <span className="faint common-text-2" role="status">
          Trying fixes on a copy, {Math.round(trials.share * 100)} %
        </span>
      )}
      {trials.state === 'failed' && (
        <span role="alert" className="common-text-2">
          Fixes could not be tried: {trials.why}
        </span>
      )}
      {moved && (
        <span role="alert" className="common-text-2">
          The rig was changed meanwhile, so nothing was done. Try again.
        </span>
      )}
      {said.length > 0 && (
        <div role="status" className="common-text-2" data-cured>
          Done, each tried on the rig as the ones before left it: {said.join('; ')}. One undo takes
          all of it back.
        </div>
      )}
    </div>
  );
}

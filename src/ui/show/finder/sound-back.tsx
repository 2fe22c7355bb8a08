import { Button } from '@mantine/core';
import { useEffect } from 'react';
import { type FaultFacts, symptomWords } from '../../../core/show';
import { useWorking } from '../../look/use-working';
import { useDocument } from '../../store/use-rig';
import type { Hunt } from './use-evidence';

/** The quickest ways to get sound back, tried on a copy with the likeliest fault in it. */
export function SoundBack({ fault, hunt }: { fault: FaultFacts; hunt: Hunt }) {
  const rig = useDocument();
  const { work, start, clear } = useWorking('rescue');
  const at = hunt.noticed.find((n) => n.what.length > 0);
  useEffect(clear, [fault.id, at, clear]);
  if (!at) return null;
  const soundName = (id?: string) => rig.sounds.find((s) => s.id === id)?.name;
  return (
    <div className="sound-back">
      <Button
        size="md"
        variant="default"
        loading={work.state === 'working'}
        onClick={() => start({ rig, fault: fault.id, sound: at.sound, ear: at.ear })}
      >
        Sound back now
      </Button>
      {work.state === 'failed' && <p role="alert">It could not be tried: {work.why}</p>}
      {work.state === 'done' && (
        <>
          <p className="faint small-print">Tried on a copy, with this in it: {fault.words}.</p>
          {work.answer.length === 0 ? (
            <p data-rescue="none">
              Nothing that was tried brings it back. Mend it, or go on without.
            </p>
          ) : (
            <ol>
              {work.answer.map((w) => (
                <li key={w.words} data-rescue={w.words}>
                  <strong>{Math.round(w.seconds)} s</strong> {w.words}
                  {w.spare && w.spare.is !== 'device' && ' (from the spares case)'}
                  <span className="faint">
                    {' '}
                    ·{' '}
                    {w.left === 0
                      ? 'then as it should be'
                      : `then: ${symptomWords(w.left)}, against ${soundName(at.sound)}`}
                  </span>
                </li>
              ))}
            </ol>
          )}
        </>
      )}
    </div>
  );
}

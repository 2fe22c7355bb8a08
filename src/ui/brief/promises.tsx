'use client';
import { sure } from '../../core/outcome';
import { Button, Switch } from '@mantine/core';
import { IconAlertTriangle, IconCheck } from '@tabler/icons-react';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import type { PromiseResult } from '../../core/promises/check';
import { nameOf, promiseWords } from '../../core/rig';
import type { RigPromise } from '../../core/rig/promise-types';
import { fetchSoon, laterPart } from '../look/later';
import { useDocument, useRig } from '../store/use-rig';

const PromiseForm = dynamic(
  laterPart('promise', () => import('./promise-form').then((m) => m.PromiseForm)),
  { ssr: false },
);

/** What the rig must keep: each promise kept or broken, with the sounds and the routes that break it. */
export function Promises() {
  const rig = useDocument();
  const results = useRig((s) => s.report.promises);
  const [adding, setAdding] = useState(false);
  const promises = rig.promises ?? [];
  const broken = promises.filter((p) => results.find((r) => r.id === p.id)?.kept === false).length;
  return (
    <section aria-label="Promises">
      <h2>
        Promises{' '}
        <span className="faint promises-text">
          {promises.length ? `${promises.length - broken} kept, ${broken} broken` : ''}
        </span>
      </h2>
      <p className="faint promises-text-2">
        What must never happen, in words that can be checked: in every sound, after every change.
      </p>
      {promises.length === 0 && !adding && (
        <div className="empty">
          Nothing is promised yet. Promise, say, that the house always hears the guitar, or that no
          tube amplifier is ever without a load.
        </div>
      )}
      {promises.map((p) => {
        const result = results.find((r) => r.id === p.id);
        return <PromiseCard key={p.id} p={p} result={result} />;
      })}
      {adding ? (
        <PromiseForm onDone={() => setAdding(false)} />
      ) : (
        <Button
          size="xs"
          mt={10}
          onPointerEnter={() => fetchSoon('promise')}
          onFocus={() => fetchSoon('promise')}
          onClick={() => setAdding(true)}
        >
          Promise something …
        </Button>
      )}
    </section>
  );
}

/** One promise: whether it is kept, by what it was judged, and where not. */
function PromiseCard({ p, result }: { p: RigPromise; result: PromiseResult | undefined }) {
  const rig = useDocument();
  const setSound = useRig((s) => s.setSound);
  const edit = useRig((s) => s.edit);
  return (
    <article className="finding" data-promise={p.id} data-kept={result?.kept}>
      <div className="promises-row">
        {result === undefined ? (
          <span className="faint">checking …</span>
        ) : result.kept ? (
          <span className="sev kept">
            <IconCheck size={15} aria-hidden /> kept
          </span>
        ) : (
          <span className="sev" data-severity="fault">
            <IconAlertTriangle size={15} aria-hidden /> broken
          </span>
        )}
        <strong className="fills">
          {promiseWords(rig, p).replace(/^./, (c) => c.toUpperCase())}.
        </strong>
      </div>
      {result && !result.kept && (
        <ul className="promises-box">
          {result.breaches.slice(0, 4).map((b, i) => (
            <li key={i}>
              {b.sound && (
                <button type="button" className="linklike" onClick={() => setSound(sure(b.sound))}>
                  In {rig.sounds.find((s) => s.id === b.sound)?.name ?? b.sound}
                </button>
              )}
              {b.sound ? ': ' : ''}
              {b.why}
              {b.route ? (
                <span className="faint">
                  {' '}
                  Route: {b.route.map((d) => nameOf(rig, d)).join(' → ')}
                </span>
              ) : null}
            </li>
          ))}
          {result.breaches.length > 4 && <li>and {result.breaches.length - 4} more</li>}
        </ul>
      )}
      <div className="promises-row-2">
        <Switch
          size="xs"
          label="must survive a failure"
          checked={p.mustSurvive === true}
          onChange={(e) =>
            edit({
              edit: 'setPromise',
              promise: { ...p, mustSurvive: e.currentTarget.checked },
            })
          }
        />
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => edit({ edit: 'removePromise', promise: p.id })}
        >
          Take it back
        </Button>
      </div>
    </article>
  );
}

'use client';
import { Button, NumberInput } from '@mantine/core';
import { useState } from 'react';
import { countTurned, type ToMeasure, type TurnedVerdict } from '../../core/report';
import { deviceOf, nameOf, type Rig } from '../../core/rig';
import { showFigure } from '../../core/units';
import type { Proposals } from '../../worker';
import type { WorkState } from '../look/use-working';
import { useDocument, useRig } from '../store/use-rig';

/** Which figures were found to turn verdicts, for which rig, and how to find out anew. */
export interface Measuring {
  work: WorkState<Proposals['measure']['answer']>;
  of: Rig | null;
  begin: () => void;
  cancel: () => void;
}

/** What to measure first: figures that nobody measured, by how many verdicts hang on each. */
export function MeasurePart({ measuring: { work, of, begin, cancel } }: { measuring: Measuring }) {
  const rig = useDocument();
  return (
    <div data-measure>
      <p className="small-print">
        Figures that nobody measured are typical of their kind. Each is tried here at the lowest and
        the highest that is believable, on a copy of the rig: those that turn a verdict are worth
        measuring.
      </p>
      {work.state === 'working' ? (
        <Button size="compact-sm" variant="default" onClick={cancel}>
          Stop ({Math.round(work.share * 100)} %)
        </Button>
      ) : (
        <Button size="compact-sm" onClick={begin}>
          {work.state === 'done' ? 'Find anew what to measure' : 'Find what to measure'}
        </Button>
      )}
      {work.state === 'working' && (
        <span className="faint common-text-2" role="status">
          {' '}
          {work.words}
        </span>
      )}
      {work.state === 'failed' && <p role="alert">It could not be found out: {work.why}</p>}
      {work.state === 'done' && of !== rig && (
        <p className="small-print" role="status">
          The rig has changed since: find anew to see what still turns.
        </p>
      )}
      {work.state === 'done' && !work.answer.length && (
        <div className="empty">No typical figure turns a verdict within what is believable.</div>
      )}
      {work.state === 'done' &&
        work.answer
          .filter((m) => deviceOf(rig, m.device))
          .map((m) => <Figure key={`${m.device} ${m.figure}`} one={m} />)}
    </div>
  );
}

/** One figure: what hangs on it, how to measure it, and a place for the reading. */
function Figure({ one }: { one: ToMeasure }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [value, setValue] = useState<number | string>('');
  const own = deviceOf(rig, one.device)?.figures?.[one.figure];
  const n = countTurned(one);
  const show = (x: number) => showFigure(one.unit, x);
  return (
    <article className="finding" data-to-measure={`${one.device} ${one.figure}`}>
      <strong>
        {nameOf(rig, one.device)}: {one.label}
      </strong>
      <p className="small-print">
        {show(one.typical)} is typical. Between {show(one.low)} and {show(one.high)} it turns {n}{' '}
        {n === 1 ? 'verdict' : 'verdicts'}:
      </p>
      <ul className="small-print">
        {one.turns.map((t) => (
          <li key={`${t.id} ${t.at}`}>{turnWords(t, show)}</li>
        ))}
      </ul>
      <p className="small-print">
        With {one.tool}. {one.steps}
      </p>
      {own ? (
        <p className="small-print" role="status">
          {show(own.value)}, {own.from}.
        </p>
      ) : (
        <form
          className="override-columns"
          onSubmit={(e) => {
            e.preventDefault();
            if (typeof value !== 'number') return;
            const on = new Date().toISOString().slice(0, 10);
            edit({
              edit: 'overrideFigure',
              device: one.device,
              figure: one.figure,
              override: { value, from: 'measured', on },
            });
          }}
        >
          <NumberInput
            size="xs"
            aria-label={`Reading of ${one.label} of ${nameOf(rig, one.device)}`}
            placeholder={`reading, ${one.unit || 'ratio'}`}
            value={value}
            onChange={setValue}
          />
          <Button size="xs" type="submit" disabled={typeof value !== 'number'}>
            Take this reading
          </Button>
        </form>
      )}
    </article>
  );
}

/** What is told at one end of a range and not at the other. */
const turnWords = (t: TurnedVerdict, show: (x: number) => string): string =>
  `at ${show(t.at)} ${t.appears ? 'it is told that' : 'it is no longer told that'}: ${t.what}`;

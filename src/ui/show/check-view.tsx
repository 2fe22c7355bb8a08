'use client';
import { Button, TextInput } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { CHECK_PARTS, type CheckPart, type CheckStep, type Noticing } from '../../core/show';
import { type Show, type Tick, tickId } from '../../core/show/book';
import { pathOf } from '../frame/place-list';
import { personName } from '../keep/person';
import { CommitText } from '../look/commit-text';
import { fileName, save } from '../look/save-file';
import { useWorking } from '../look/use-working';
import { useDocument } from '../store/use-rig';
import { beginHunt, leaveHunt } from './finder/use-evidence';
import {
  BookMark,
  Caution,
  Head,
  Progressing,
  ShowPicker,
  showWords,
  useSet,
  useShow,
} from './parts';
import { useBook } from './use-book';

/** The show that ticks belong to where no show was written down yet. */
const NO_SHOW = 'rehearsal';

/** The line check of a show: the fewest plays that cover everything, ticked, kept by show. */
export function CheckView() {
  const rig = useDocument();
  const set = useSet();
  const { show, shows } = useShow();
  const { work, start, cancel } = useWorking('lineCheck');
  useEffect(() => start({ rig, set: set?.id ?? null }), [rig, set?.id, start]);
  const ticks = useBook((s) => s.book.tick);
  const showId = show?.id ?? NO_SHOW;
  const before = shows.filter((s) => show && s.date < show.date).at(-1);
  const [by, setBy] = useState(() => initials(personName() ?? ''));
  if (work.state === 'failed') return <p role="alert">{work.why}</p>;
  if (work.state !== 'done')
    return (
      <div className="scroll show-part">
        <Head title="Line check" />
        <p className="faint">Looking for the fewest plays that cover everything …</p>
        <Progressing share={0.3} words="" onCancel={cancel} />
      </div>
    );
  const { steps, uncovered, covered, proven } = work.answer;
  const tickOf = (step: CheckStep, of: string) => ticks.find((t) => t.id === tickId(of, step.id));
  const doneSteps = steps.filter((s) => tickOf(s, showId)?.state === 'done');
  const done = doneSteps.length;
  const failed = steps.filter((s) => tickOf(s, showId)?.state === 'failed').length;
  const left = steps.filter((s) => (tickOf(s, showId)?.state ?? 'open') === 'open');
  return (
    <div className="scroll show-part">
      <Head title="Line check">
        <ShowPicker />
        <TextInput
          size="sm"
          label="Initials"
          className="show-initials"
          value={by}
          maxLength={6}
          onChange={(e) => setBy(e.currentTarget.value)}
        />
        <TicksTable />
        <BookMark />
      </Head>
      <p className="figures" data-progress={`${done}/${steps.length}`}>
        <strong>
          {done} of {steps.length}
        </strong>{' '}
        done{failed > 0 && `, ${failed} failed`}. About{' '}
        {Math.ceil(left.reduce((s, x) => s + x.seconds, 0) / 60)} min left. The plays cover{' '}
        {covered} things
        {proven ? '; fewer could not' : ', by every sound: the fewest were not found'}.
      </p>
      {(Object.keys(CHECK_PARTS) as CheckPart[]).map((part) => {
        const list = steps.filter((s) => s.part === part);
        return (
          list.length > 0 && (
            <section key={part}>
              <h3>{CHECK_PARTS[part]}</h3>
              <ul className="check-steps">
                {list.map((step) => (
                  <StepRow
                    key={step.id}
                    step={step}
                    showId={showId}
                    by={by}
                    tick={tickOf(step, showId)}
                    done={doneSteps}
                    last={before && { show: before, tick: tickOf(step, before.id) }}
                  />
                ))}
              </ul>
            </section>
          )
        );
      })}
      {uncovered.length > 0 && (
        <p className="faint small-print">
          No sound of this set uses: {uncovered.join('; ')}. Nothing checks them.
        </p>
      )}
      <Caution about={['hearing', 'tubes', 'mains', 'radio']} />
    </div>
  );
}

/** What was ticked and failed at every show, as a table. */
function TicksTable() {
  const rig = useDocument();
  const book = useBook((s) => s.book);
  const write = async () => {
    const { ticksToCsv } = await import('../../core/formats/show-csv');
    save(fileName(rig.name, 'line-checks.csv'), ticksToCsv(book), 'text/csv');
  };
  return (
    <Button size="compact-sm" variant="default" onClick={() => void write()}>
      As CSV
    </Button>
  );
}

const initials = (name: string): string =>
  name
    .split(/\s+/)
    .map((w) => w.slice(0, 1).toUpperCase())
    .join('')
    .slice(0, 3);

/** What steps that were done say: all was fine at the ears at which they were heard alone. */
const fineIn = (done: readonly CheckStep[]): Noticing[] =>
  done.flatMap(({ sound, alone = [] }) =>
    sound === undefined ? [] : alone.map((ear) => ({ ear, sound, what: [] })),
  );

/** One step: ticked, failed or open; with who and when, and what it was last time. */
function StepRow({
  step,
  showId,
  by,
  tick,
  done,
  last,
}: {
  step: CheckStep;
  showId: string;
  by: string;
  tick: Tick | undefined;
  /** Steps that were done before. */
  done: readonly CheckStep[];
  last: { show: Show; tick: Tick | undefined } | undefined;
}) {
  const rig = useDocument();
  const router = useRouter();
  const put = useBook((s) => s.put);
  const state = tick?.state ?? 'open';
  const mark = (next: Tick['state']) =>
    put('tick', tickId(showId, step.id), {
      show: showId,
      step: step.id,
      state: next,
      by,
      at: new Date().toISOString(),
      note: tick?.note ?? '',
    });
  const toFinder = () => {
    mark('failed');
    leaveHunt(rig.id, {
      ...beginHunt(step.sound ?? rig.sounds[0]?.id ?? ''),
      noticed: fineIn(done),
    });
    router.push(pathOf(rig.id, 'show', 'finder'));
  };
  return (
    <li className="check-step" data-step={step.id} data-state={state}>
      <div>
        <div className="check-words">{step.words}</div>
        {step.mind && <div className="next-mind">Mind: {step.mind}</div>}
        <div className="faint small-print">
          {step.covers.length > 0 && <>Covers {step.covers.join('; ')}. </>}
          {tick && state !== 'open' && (
            <>
              {state === 'done' ? 'Done' : 'Failed'} {tick.at.slice(11, 16)} UTC
              {tick.by && `, ${tick.by}`}.{' '}
            </>
          )}
          {last?.tick && (
            <>
              {showWords(last.show)}: {last.tick.state}
              {last.tick.note && `, ${last.tick.note}`}.
            </>
          )}
        </div>
        {state !== 'open' && (
          <CommitText
            size="xs"
            placeholder="Note"
            aria-label={`Note on ${step.words}`}
            value={tick?.note}
            onCommit={(note) =>
              put('tick', tickId(showId, step.id), { note: (note ?? '').slice(0, 400) })
            }
          />
        )}
      </div>
      <div className="taps">
        <Button
          size="md"
          variant={state === 'done' ? 'filled' : 'default'}
          aria-pressed={state === 'done'}
          onClick={() => mark(state === 'done' ? 'open' : 'done')}
        >
          Done
        </Button>
        <Button
          size="md"
          variant={state === 'failed' ? 'filled' : 'default'}
          aria-pressed={state === 'failed'}
          onClick={toFinder}
        >
          It fails
        </Button>
      </div>
    </li>
  );
}

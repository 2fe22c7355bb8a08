'use client';
import { Button, Select } from '@mantine/core';
import dynamic from 'next/dynamic';
import { useEffect, useMemo, useState } from 'react';
import {
  diceOf,
  DIFFICULTIES,
  type Difficulty,
  type Effects,
  evidenceOf,
  Finder,
  hide,
  type Made,
  makeTest,
  type Score,
  scoreOf,
  SYMPTOMS,
  type Trouble,
} from '../../core/show';
import { knownOf } from '../../core/show/book';
import { personName } from '../keep/person';
import { useDocument } from '../store/use-rig';
import { minutesWords } from './finder/finder-view';
import { Head, Progressing } from './parts';
import { today } from '../look/use-today';
import { newId } from './new-id';
import { takeOldScores } from './scores';
import { useBook } from './use-book';
import { useEffects } from './use-effects';

const ScoreChart = dynamic(() => import('./score-chart').then((m) => m.ScoreChart), { ssr: false });

/** Cases that are the same for everybody who practises on a rig. */
const CASES = [1, 2, 3];

/** Hides a fault in a copy of the rig, plays the player, and answers every test as the rig would. */
export function TrainerView() {
  const { is } = useEffects();
  return (
    <div className="scroll show-part">
      <Head title="Trainer" />
      {is.state === 'working' && <Progressing share={is.share} words={is.words} />}
      {is.state === 'failed' && <p role="alert">{is.why}</p>}
      {is.state === 'done' && <Training effects={is.effects} />}
    </div>
  );
}

function Training({ effects }: { effects: Effects }) {
  const rig = useDocument();
  const book = useBook((s) => s.book);
  const [difficulty, setDifficulty] = useState<Difficulty>('easy');
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [made, setMade] = useState<Made[]>([]);
  const [score, setScore] = useState<Score | null>(null);
  const put = useBook((s) => s.put);
  const kept = useBook((s) => s.book.score);
  const scores = useMemo(() => [...kept].sort((a, b) => a.at.localeCompare(b.at)), [kept]);
  useEffect(() => {
    for (const { id, ...score } of takeOldScores(rig.id)) put('score', id, score);
  }, [rig.id, put]);
  const begin = (random: () => number) => {
    setTrouble(hide(rig, effects, difficulty, random, knownOf(book, today())) ?? null);
    setMade([]);
    setScore(null);
  };
  return (
    <>
      <div className="show-head">
        <Select
          size="sm"
          label="How hard"
          data={Object.entries(DIFFICULTIES).map(([value, d]) => ({ value, label: d.words }))}
          value={difficulty}
          allowDeselect={false}
          onChange={(v) => setDifficulty(v as Difficulty)}
        />
        <Button size="md" onClick={() => begin(Math.random)}>
          {trouble ? 'Another fault' : 'Hide a fault'}
        </Button>
        {CASES.map((n) => (
          <Button
            key={n}
            size="md"
            variant="default"
            title="The same for everybody who practises on this rig"
            onClick={() => begin(diceOf(rig.id, n))}
          >
            Case {n}
          </Button>
        ))}
      </div>
      {!trouble && (
        <p className="faint">
          A fault that this rig can have is put into a copy; you find it by tests. Every test is
          answered by the figures of the copy.
        </p>
      )}
      {trouble && (
        <Case
          {...{ effects, trouble, made, score }}
          onTest={(m) => setMade([...made, m])}
          onGuess={(f) => {
            const result = scoreOf(effects, trouble, made, f);
            setScore(result);
            put('score', newId(), {
              at: new Date().toISOString(),
              points: result.points,
              difficulty,
              by: (personName() ?? '').slice(0, 60),
            });
          }}
        />
      )}
      {scores.length > 0 && (
        <section>
          <h3>How it went</h3>
          <ScoreChart scores={scores} />
        </section>
      )}
    </>
  );
}

/** One hidden fault: what the player says, tests, a guess, and how well it went. */
function Case({
  effects,
  trouble,
  made,
  score,
  onTest,
  onGuess,
}: {
  effects: Effects;
  trouble: Trouble;
  made: Made[];
  score: Score | null;
  onTest: (m: Made) => void;
  onGuess: (fault: number) => void;
}) {
  const rig = useDocument();
  const [guess, setGuess] = useState<string | null>(null);
  const evidence = useMemo(
    () => ({
      ...evidenceOf(trouble.complaint),
      answers: made.map((m) => ({ test: m.test.id, answer: m.answer })),
    }),
    [trouble, made],
  );
  const tests = useMemo(
    () => new Finder(rig, effects, evidenceOf(trouble.complaint)).allTests(),
    [rig, effects, trouble],
  );
  const name = (list: readonly { id?: string; device?: string; name: string }[], id: string) =>
    list.find((x) => (x.id ?? x.device) === id)?.name ?? id;
  const done = new Set(made.map((m) => m.test.id));
  return (
    <div className="finder-columns">
      <section>
        <p className="show-note" data-complaint>
          “In {name(effects.sounds, trouble.complaint.sound)}, at{' '}
          {name(effects.ears, trouble.complaint.ear)}:{' '}
          {trouble.complaint.what.map((w) => SYMPTOMS[w].words).join(', ')}!”
        </p>
        <Select
          size="md"
          label="Make a test"
          searchable
          placeholder="What do you do?"
          value={null}
          data={tests
            .filter((t) => !done.has(t.id))
            .map((t) => ({ value: t.id, label: `${t.words} (${Math.round(t.seconds)} s)` }))}
          onChange={(id) => {
            const m = id && makeTest(rig, effects, trouble, evidence, id);
            if (m) onTest(m);
          }}
        />
        <ol className="noticed">
          {made.map((m) => (
            <li key={m.test.id} data-made={m.test.id}>
              <span>
                {m.test.words} <strong>{m.answer}</strong>
                {score && (m.wasted ? ` Wasted: ${m.wasted}.` : ` Left ${m.after} of ${m.before}.`)}
              </span>
            </li>
          ))}
        </ol>
      </section>
      <section>
        <Select
          size="md"
          label="I think it is"
          searchable
          limit={60}
          placeholder="Name the fault"
          value={guess}
          onChange={setGuess}
          data={effects.faults.map((f, i) => ({ value: String(i), label: f.words }))}
        />
        <Button
          mt={8}
          size="md"
          disabled={guess === null || score !== null}
          onClick={() => guess !== null && onGuess(Number(guess))}
        >
          That is it
        </Button>
        {score && (
          <div className="show-note" role="status" data-score={score.points}>
            <strong>{score.right ? `Right: ${score.points} points.` : 'No.'}</strong> It was:{' '}
            {effects.faults[trouble.fault]?.words}. You took {minutesWords(score.seconds)}, the best
            strategy {minutesWords(score.bestSeconds)} on average; {trouble.alike} faults are
            noticed in this way.
          </div>
        )}
      </section>
    </div>
  );
}

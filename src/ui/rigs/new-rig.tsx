'use client';
import { Button, Group, TextInput } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { analyse } from '../../core/report';
import { checkSheet, learnSheets, type Rig, type Sheet } from '../../core/rig';
import type { ReadChain } from '../../core/start';
import { useLocker } from '../build/own-gear/locker-list';
import { askServer, problemText } from '../keep/ask-server';
import {
  A_NAME,
  type Answers,
  briefOfAnswers,
  calledAs,
  choiceOf,
  missingIn,
  NOTHING_YET,
} from '../start/answers';
import { ProposalView } from '../start/proposal';
import { Questions } from '../start/questions';
import { type Proposed, useProposal } from '../start/use-proposal';
import { ChainLine, readLine } from './chain-line';
import { FromTemplate } from './from-template';

/** What a line still lacks to make a rig of. */
const missingInLine = ({ name }: Answers, read: ReadChain): string[] => [
  ...(name.trim() ? [] : [A_NAME]),
  ...(read.broken ? ['the end of the line'] : []),
  ...read.items.flatMap((i) => (i.kind === undefined ? [`what “${i.words}” is`] : [])),
];

/** A rig in which nothing had to be decided, as a proposal. */
const asProposed = (rig: Rig): Proposed => ({
  rig,
  choices: [],
  report: analyse(rig),
  whole: true,
});

/** The sheets of the locker that can be read, their kinds known; none while it is not open. */
function useOwnSheets(): readonly Sheet[] {
  const { sheets } = useLocker();
  return useMemo(() => {
    const sound = (sheets ?? []).flatMap(({ sheet }) => (checkSheet(sheet).ok ? [sheet] : []));
    learnSheets(sound);
    return sound;
  }, [sheets]);
}

/**
 * The short start: what comes in, what must be heard where, what is on hand, what switches it; then a
 * rig that is whole, with each decision and its reason. Or a line.
 */
export function NewRig() {
  const router = useRouter();
  const [answers, setAnswers] = useState(NOTHING_YET);
  const [saying, setSaying] = useState<string | null>(null);
  const [line, setLine] = useState('');
  const own = useOwnSheets();
  const read = useMemo(
    () => (line.trim() ? readLine(line, answers.name, own) : null),
    [line, answers.name, own],
  );
  const typed = useMemo(() => (read?.rig ? asProposed(read.rig) : null), [read]);
  const [model, setModel] = useState<Rig | null>(null);
  const taken = useMemo(() => model && asProposed(model), [model]);
  const answer = (part: Partial<Answers>) => setAnswers((before) => ({ ...before, ...part }));
  const asked = useProposal(
    read || model ? null : briefOfAnswers(answers),
    choiceOf(answers, own),
    answers.means.built ?? false,
  );
  const proposed = read ? typed : (taken ?? asked.proposed);
  const [isWanted, setWanted] = useState(false);
  const isBusy = !read && !taken && asked.busy !== null;
  const make = async () => {
    const missing = read
      ? missingInLine(answers, read)
      : missingIn(answers).filter((what) => !taken || what === A_NAME);
    if (!proposed || missing.length) return setSaying(`Still needed: ${missing.join(', ')}.`);
    if (isBusy) {
      setWanted(true);
      return setSaying('It is made as soon as the rest is worked out.');
    }
    const reply = await askServer<{ id: string }>('/api/rigs', 'POST', {
      rig: taken && !read ? { ...taken.rig, ...calledAs(answers) } : proposed.rig,
      words: read
        ? 'started from a line'
        : taken
          ? `started from ${taken.rig.name}`
          : 'started from the short questions',
    });
    if (reply.ok) router.push(`/rigs/${reply.value.id}/signal`);
    else setSaying(problemText(reply.problem));
  };
  const makeNow = useRef(make);
  useEffect(() => {
    makeNow.current = make;
  });
  useEffect(() => {
    if (!isWanted || isBusy) return;
    setWanted(false);
    void makeNow.current();
  }, [isWanted, isBusy]);
  return (
    <main className="page new-rig-columns">
      <form
        className="new-rig-columns-2"
        onSubmit={(e) => {
          e.preventDefault();
          void make();
        }}
      >
        <h1 className="new-rig-text">A new rig</h1>
        <TextInput
          label="What is it called?"
          placeholder="Fly rig, autumn"
          value={answers.name}
          onChange={(e) => answer({ name: e.currentTarget.value })}
          data-autofocus
        />
        <ChainLine line={line} read={read} onLine={setLine} />
        {!read && <FromTemplate model={model} onModel={setModel} onSay={setSaying} />}
        {!read && !model && <Questions answers={answers} own={own} onAnswer={answer} />}
        <Group>
          <Button type="submit">Make this rig</Button>
          <Button variant="default" component="a" href="/">
            Cancel
          </Button>
        </Group>
        {saying && <p role="alert">{saying}</p>}
      </form>
      <section aria-label="Proposal">
        <h2 className="new-rig-text-2">The proposal</h2>
        {proposed ? (
          <ProposalView
            proposed={proposed}
            busy={isBusy ? asked.busy : null}
            failed={read || taken ? undefined : asked.failed}
            onChange={(id, value) =>
              answer({
                means: {
                  ...answers.means,
                  changed: { ...answers.means.changed, [id]: value },
                },
              })
            }
            {...(!read && !taken && { onLine: setLine })}
          />
        ) : (
          <div className="empty" role="status">
            {asked.failed ??
              (isBusy
                ? `Working it out: ${asked.busy?.words ?? ''} …`
                : 'Choose what comes in and where it must be heard; the order appears here.')}
          </div>
        )}
      </section>
    </main>
  );
}

'use client';
import { Button, Group, Modal, SegmentedControl } from '@mantine/core';
import { clashWords } from '../../core/changes';
import type { Side } from '../../core/rig';
import type { Keeper, Question } from '../keep/keeper';
import { saveRigFile } from '../look/save-file';

/**
 * Asks what a page that saves has to know: who is right where two changed one thing, or what holds
 * after a set-back.
 */
export function QuestionDialog({
  question,
  keeper,
}: {
  question: Question;
  keeper: Keeper | null;
}) {
  if (question.state === 'astray')
    return <AstrayDialog question={question} onDecide={(side) => keeper?.decide(side)} />;
  return (
    <ClashDialog
      question={question}
      onChoose={(where, side) => keeper?.choose(where, side)}
      onDone={() => keeper?.settle()}
    />
  );
}

/** Two people changed the same thing: both values, thing by thing. All else of both sides is in. */
function ClashDialog({
  question: { clashes, chosen, theirs, rig, base },
  onChoose,
  onDone,
}: {
  question: Extract<Question, { state: 'clash' }>;
  onChoose: (where: string, side: Side) => void;
  onDone: () => void;
}) {
  const who = theirs.by ?? 'somebody else';
  const all = (side: Side) => clashes.forEach((c) => onChoose(c.where, side));
  return (
    <Modal
      opened
      onClose={() => undefined}
      withCloseButton={false}
      size="xl"
      title={`You and ${who} changed the same`}
    >
      <p>
        Say what holds, thing by thing. Everything else that either of you changed stays as it is,
        whatever you choose, and both sides are in the history.
      </p>
      <table className="sheet-table" data-table="clash">
        <thead>
          <tr>
            <th>What</th>
            <th>Yours</th>
            <th>Theirs</th>
            <th>Holds</th>
          </tr>
        </thead>
        <tbody>
          {clashes.map((c) => {
            const words = clashWords(rig, theirs.rig, c, base.rig);
            return (
              <tr key={c.where} data-clash={c.where}>
                <td>
                  <strong>{words.what}</strong>
                  {words.why && <div className="faint common-text-2">{words.why}</div>}
                </td>
                <td>{words.mine}</td>
                <td>{words.theirs}</td>
                <td>
                  <SegmentedControl
                    size="xs"
                    aria-label={`What holds for ${words.what}`}
                    data={[
                      { value: 'mine', label: 'yours' },
                      { value: 'theirs', label: 'theirs' },
                    ]}
                    value={chosen[c.where] ?? 'theirs'}
                    onChange={(side) => onChoose(c.where, side)}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Group mt={12}>
        <Button onClick={onDone}>Go on with these</Button>
        {clashes.length > 1 && (
          <>
            <Button variant="default" onClick={() => all('mine')}>
              All yours
            </Button>
            <Button variant="default" onClick={() => all('theirs')}>
              All theirs
            </Button>
          </>
        )}
      </Group>
    </Modal>
  );
}

/**
 * The database does not know the revision that the page is based on: nothing is written before it is
 * said what holds.
 */
function AstrayDialog({
  question: { base, theirs, rig },
  onDecide,
}: {
  question: Extract<Question, { state: 'astray' }>;
  onDecide: (side: Side) => void;
}) {
  return (
    <Modal
      opened
      onClose={() => undefined}
      withCloseButton={false}
      size="lg"
      title="The database was set back"
    >
      <p>
        This page is based on revision {base.revision}; the database does not know that one. It has{' '}
        revision {theirs.revision}
        {theirs.words ? ` (${theirs.words})` : ''}. It was probably restored from a backup. Nothing
        is written until you say what holds.
      </p>
      <Group mt={12}>
        <Button onClick={() => onDecide('mine')}>Save this page as the next revision</Button>
        <Button variant="default" onClick={() => onDecide('theirs')}>
          Take what the database has
        </Button>
        <Button variant="default" onClick={() => saveRigFile(rig)}>
          Keep this page as a file
        </Button>
      </Group>
    </Modal>
  );
}

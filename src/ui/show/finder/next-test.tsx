import { Button } from '@mantine/core';
import type { Found } from '../../../core/show';
import type { Hunt } from './use-evidence';

/** The next test: what to do, how long it takes, what it needs, what to mind; and what it showed. */
export function NextTest({
  found,
  hunt,
  set,
}: {
  found: Found;
  hunt: Hunt;
  set: (change: Partial<Hunt>) => void;
}) {
  if (!found.next)
    return found.alike ? (
      <p className="show-note">
        {hunt.cannot.length
          ? 'Nothing that can be done now tells these apart. Mend the first; if it stays, the next.'
          : 'No test tells these apart. Mend the first; if it stays, the next.'}
        {hunt.cannot.length > 0 && (
          <Button size="compact-sm" variant="default" onClick={() => set({ cannot: [] })}>
            Everything can be done again
          </Button>
        )}
      </p>
    ) : null;
  const { test, answers } = found.next;
  return (
    <div className="next-test" data-test={test.id}>
      <div className="faint small-print">
        Next · about {Math.round(test.seconds)} s
        {test.needs.length > 0 && ` · needs ${test.needs.join(', ')}`}
      </div>
      <p className="next-words">{test.words}</p>
      {test.mind && <p className="next-mind">Mind: {test.mind}.</p>}
      <div className="taps" role="group" aria-label="What it showed">
        {answers.map((answer) => (
          <button
            key={answer}
            type="button"
            className="tap"
            data-answer={answer}
            onClick={() =>
              set({
                answers: [
                  ...hunt.answers,
                  { test: test.id, answer, words: test.words, sound: hunt.sound },
                ],
              })
            }
          >
            {answer}
          </button>
        ))}
        <button
          type="button"
          className="tap quiet"
          onClick={() => set({ cannot: [...hunt.cannot, test.id] })}
        >
          Cannot do that now
        </button>
      </div>
    </div>
  );
}

import { Button, Checkbox, Group, Progress } from '@mantine/core';
import { useState } from 'react';
import type { LayoutFigures, LayoutProposal } from '../../../core/build';
import { type Outcome, reasonOf } from '../../../core/outcome';
import type { Board, Device, Edit, Rig } from '../../../core/rig';
import { fixed, showLength } from '../../../core/units';
import { useWorking } from '../../look/use-working';
import { useRig } from '../../store/use-rig';

const figuresWords = (f: LayoutFigures, length: 'metric' | 'imperial') =>
  `${showLength(f.metres, length)}, ${fixed(f.pF, 0)} ` +
  (`pF, ${f.crossings} ` +
    (f.crossings === 1 ? 'crossing' : 'crossings') +
    ', ' +
    (f.clashes ? `${f.clashes} to put right` : 'nothing hits'));

/**
 * The optimiser: how far it is, the best so far to take or to wait for, and what it found against
 * how things stand.
 */
export function Arrange({
  rig,
  board,
  loose,
}: {
  rig: Rig;
  board: Board;
  loose: readonly Device[];
}) {
  const edit = useRig((s) => s.edit);
  const { work, start, cancel, clear } = useWorking('layout');
  const [also, setAlso] = useState(false);
  const [mayTurn, setMayTurn] = useState(true);
  const [asked, setAsked] = useState<Rig | null>(null);
  const proposed = work.state === 'done' ? work.answer : null;
  const best = work.state === 'working' ? work.soFar?.best : undefined;
  const take = (edits: Edit[]) => {
    if (edit(edits, `arranged ${board.name}`).ok) {
      cancel();
      clear();
    }
  };
  return (
    <section data-arrange>
      <h3 className="common-gap-4">Arrange it</h3>
      <Group gap={8}>
        <Button
          size="xs"
          disabled={work.state === 'working'}
          onClick={() => {
            setAsked(rig);
            start({ rig, board: board.id, add: also ? loose.map((d) => d.id) : [], mayTurn });
          }}
        >
          Look for a better layout
        </Button>
        {work.state === 'working' && (
          <Button size="xs" variant="default" onClick={cancel}>
            Cancel
          </Button>
        )}
        <Checkbox
          size="xs"
          label="things may be turned"
          checked={mayTurn}
          onChange={(e) => setMayTurn(e.currentTarget.checked)}
        />
        {loose.length > 0 && (
          <Checkbox
            size="xs"
            label={`with the ${loose.length} that stand nowhere`}
            checked={also}
            onChange={(e) => setAlso(e.currentTarget.checked)}
          />
        )}
      </Group>
      {work.state === 'working' && (
        <HowFar
          share={work.share}
          words={work.words}
          onBest={best && asked === rig ? () => take(best.edits) : undefined}
        />
      )}
      {work.state === 'failed' && (
        <p role="alert">It stopped: {work.why}. Nothing was changed; try again.</p>
      )}
      {proposed && (
        <Proposed proposed={proposed} isStale={asked !== rig} onTake={take} onLeave={clear} />
      )}
    </section>
  );
}

/** What came out: the layout found, or why there is none; to take or to leave. */
function Proposed({
  proposed,
  isStale,
  onTake,
  onLeave,
}: {
  proposed: Outcome<LayoutProposal>;
  isStale: boolean;
  onTake: (edits: Edit[]) => void;
  onLeave: () => void;
}) {
  return (
    <div className="verdict common-gap-3" data-layout>
      {!proposed.ok ? (
        reasonOf(proposed)
      ) : isStale ? (
        'The rig has changed since. Look again before you take it.'
      ) : (
        <Against found={proposed.value} />
      )}
      <Group gap={6} mt={4}>
        {proposed.ok && !isStale && proposed.value.better && (
          <Button size="compact-sm" onClick={() => onTake(proposed.value.edits)}>
            Stand it so
          </Button>
        )}
        <Button size="compact-sm" variant="default" onClick={onLeave}>
          Leave it
        </Button>
      </Group>
    </div>
  );
}

/** How far the search is; the best so far can be taken at any time. */
function HowFar({
  share,
  words,
  onBest,
}: {
  share: number;
  words: string;
  onBest: (() => void) | undefined;
}) {
  return (
    <div role="status" className="arrange-gap">
      <Progress value={100 * share} aria-label="How far it is" />
      <div className="common-text-2">
        {Math.round(100 * share)} %: {words}
      </div>
      {onBest && (
        <Button size="compact-xs" variant="default" mt={4} onClick={onBest}>
          Take the best so far
        </Button>
      )}
    </div>
  );
}

/** What was found against how things stand, and how much of all there is was tried. */
function Against({ found }: { found: LayoutProposal }) {
  const units = useRig((s) => s.units);
  return (
    <>
      <div>
        Found: <strong>{figuresWords(found.found, units.length)}</strong>.
      </div>
      {found.now && <div>Yours: {figuresWords(found.now, units.length)}.</div>}
      <div className="faint common-text-2">
        {found.tried.toLocaleString('en')} moves were tried.
        {found.leastMetres === null || found.leastMetres < 0.01
          ? ' A better layout may exist: that none does is proven only where a chain is too long for ' +
            'its board, and things stay turned as they are.'
          : ` No layout of these here has less than ${showLength(found.leastMetres, units.length)}: that is ` +
            'proven. How much of the difference can be had is not known.'}
      </div>
      {!found.better && <div>Yours is as good: there is nothing to gain.</div>}
    </>
  );
}

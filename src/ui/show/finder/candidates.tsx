import { Button } from '@mantine/core';
import { useState } from 'react';
import { type Candidate, type Effects, type Found, SORTS } from '../../../core/show';
import { oddsId } from '../../../core/show/book';
import { fixed } from '../../../core/units';
import { CommitNumber } from '../../look/commit-number';
import { useDocument } from '../../store/use-rig';
import { useBook } from '../use-book';

const SHOWN = 6;

/** What it can be, likeliest first, with the odds and how it is mended. */
export function Candidates({
  found,
  effects,
  onItWas,
}: {
  found: Found;
  effects: Effects;
  onItWas: (c: Candidate) => void;
}) {
  const [all, setAll] = useState(false);
  const list = all ? found.candidates : found.candidates.slice(0, SHOWN);
  return (
    <div className="candidates">
      <h3>
        {found.pairs
          ? 'No single fault explains it; these two together do'
          : `What it can be (${found.candidates.length})`}
      </h3>
      <ol>
        {list.map((c) => {
          const faults = c.faults.flatMap((f) => effects.faults[f] ?? []);
          return (
            <li key={c.faults.join()} data-candidate={faults.map((f) => f.id).join(' + ')}>
              <div>
                <strong>{Math.round(100 * c.share)} %</strong>{' '}
                {faults.map((f) => f.words).join('; and ')}
              </div>
              <div className="faint small-print">
                <span title={faults.map((f) => SORTS[f.sort].odds).join(' ')}>
                  {faults.map((f) => SORTS[f.sort].words).join(', ')}, {fixed(c.perThousand)} in
                  1000 shows
                </span>{' '}
                · {faults.map((f) => f.mend.words).join('; ')}
              </div>
              {faults.length === 1 && faults[0] && <SetOdds fault={faults[0].id} />}
              <Button size="compact-sm" variant="default" data-it-was onClick={() => onItWas(c)}>
                It was this
              </Button>
            </li>
          );
        })}
      </ol>
      {found.candidates.length > SHOWN && (
        <button type="button" className="linklike" onClick={() => setAll(!all)}>
          {all ? 'Show fewer' : `Show all ${found.candidates.length}`}
        </button>
      )}
    </div>
  );
}

/** Odds set by hand for one fault, in thousandths of shows; emptied, the trade and the logbook say. */
function SetOdds({ fault }: { fault: string }) {
  const rig = useDocument();
  const id = oddsId(rig.id, fault);
  const set = useBook((s) => s.book.odds.find((o) => o.id === id)?.perThousand);
  const put = useBook((s) => s.put);
  return (
    <details className="set-odds">
      <summary className="small-print">Odds{typeof set === 'number' ? ' (set)' : ''}</summary>
      <CommitNumber
        size="xs"
        label="In 1000 shows"
        min={0}
        max={1000}
        value={set ?? undefined}
        onCommit={(n) => put('odds', id, { fault, perThousand: n ?? null })}
      />
    </details>
  );
}

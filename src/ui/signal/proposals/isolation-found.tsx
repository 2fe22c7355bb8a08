import { Button } from '@mantine/core';
import type { IsolateProposal } from '../../../core/solve';
import { TriedEdits } from '../../look/tried-edits';
import type { TakeFound } from './found';
import { Spared } from './spared';

/** Where hum loops should be opened, and which are left. */
export function IsolationFound({ proposal: p, stale, onTake }: TakeFound<IsolateProposal>) {
  return (
    <div data-proposal="isolation">
      <p className="small-print">
        {p.loopsNow} hum {p.loopsNow === 1 ? 'loop' : 'loops'} now, {p.loopsThen} then.
        {p.pairs > 0
          ? ` ${p.pairs} more are pairs of leads between the same two boxes: tie those together ` +
            'along their whole length.'
          : ''}
      </p>
      {p.cuts.map((c) => (
        <article key={c.words} className="finding">
          <strong>{c.words}</strong>
          <p className="small-print">
            {c.why.charAt(0).toUpperCase()}
            {c.why.slice(1)}.
          </p>
        </article>
      ))}
      {p.left.length > 0 && (
        <p className="small-print">
          Left, because nothing there may be opened: {p.left.join('; ')}. Keep those leads short and
          side by side.
        </p>
      )}
      <Spared words={p.spared} />
      {p.cuts.length > 0 ? (
        <>
          <Button
            size="xs"
            disabled={stale}
            onClick={() => onTake(p.edits, 'opened the hum loops as proposed')}
          >
            Do all of this
          </Button>
          <TriedEdits edits={p.edits} />
        </>
      ) : (
        <div className="empty">No hum loop needs opening.</div>
      )}
    </div>
  );
}

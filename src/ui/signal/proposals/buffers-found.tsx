import { Button } from '@mantine/core';
import { nameOf } from '../../../core/rig';
import type { BufferProposal } from '../../../core/solve';
import { showChange } from '../../../core/units';
import { TriedEdits } from '../../look/tried-edits';
import { useDocument } from '../../store/use-rig';
import type { TakeFound } from './found';
import { Spared } from './spared';

/** Where buffers earn their keep, each with what it gives on top of the ones before. */
export function BuffersFound({ proposal: p, stale, onTake }: TakeFound<BufferProposal>) {
  const rig = useDocument();
  const name = (id: string) => nameOf(rig, id);
  return (
    <div data-proposal="buffers">
      <Spared words={p.spared} />
      {p.gains.length === 0 && (
        <div className="empty">No buffer would give a decibel at 5 kHz.</div>
      )}
      {p.gains.map((g, i) => (
        <article key={g.lead + i} className="finding" data-gain={i}>
          <strong>
            {i + 1}. {g.words}: {showChange(g.gainDb)} at 5 kHz
          </strong>
          <p className="small-print">
            Heard at the input of {name(g.listener)}
            {i > 0 ? ', on top of the ones before' : ''}.
          </p>
          <Button
            size="compact-xs"
            variant="default"
            disabled={stale}
            onClick={() =>
              onTake(
                p.gains.slice(0, i + 1).flatMap((x) => x.edits),
                `put in ${i + 1 === 1 ? 'a buffer' : `${i + 1} buffers`}`,
              )
            }
          >
            Put in {i === 0 ? 'this one' : `these ${i + 1}`}
          </Button>
          <TriedEdits edits={p.gains.slice(0, i + 1).flatMap((x) => x.edits)} />
        </article>
      ))}
    </div>
  );
}

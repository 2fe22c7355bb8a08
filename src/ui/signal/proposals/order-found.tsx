import { Button } from '@mantine/core';
import { nameOf } from '../../../core/rig';
import type { OrderMove, OrderProposal } from '../../../core/solve';
import { fixed } from '../../../core/units';
import { TriedEdits } from '../../look/tried-edits';
import { useDocument } from '../../store/use-rig';
import { FigureChanges } from './figure-changes';
import type { TakeFound } from './found';
import { Spared } from './spared';

/** The proposed order, what it changes, and each move with what leaving it out would cost. */
export function OrderFound({ proposal: p, stale, onTake }: TakeFound<OrderProposal>) {
  const rig = useDocument();
  const name = (id: string) => nameOf(rig, id);
  if (!p.edits.length)
    return (
      <div className="empty" data-proposal="order">
        {p.stays.length
          ? 'Nothing can be moved that would cure what is told and break nothing.'
          : 'It is in order already: no move would cure anything that is told.'}
        <Spared words={p.stays.map((s) => s.words)} />
      </div>
    );
  return (
    <div data-proposal="order">
      <p className="small-print">{p.order.map(name).join(' → ')}</p>
      <p className="small-print">
        Broken rules: {fixed(p.pointsNow)} points now, {fixed(p.points)} then
        {p.exact && ' (proven the fewest)'}.
      </p>
      <FigureChanges title="What is heard differently, all moves made" rows={p.figures} />
      <Button
        size="xs"
        mt={6}
        disabled={stale}
        onClick={() => onTake(p.edits, 'took the proposed order')}
      >
        Take this order
      </Button>
      <TriedEdits edits={p.edits} />
      <Spared words={p.stays.map((s) => s.words)} />
      {p.moves.map((m) => (
        <Move key={m.device} move={m} />
      ))}
    </div>
  );
}

function Move({ move: m }: { move: OrderMove }) {
  return (
    <article className="finding" data-move={m.device}>
      <strong>{m.words}</strong>
      {m.reasons.map((r) => (
        <p key={r} className="small-print">
          {r}
        </p>
      ))}
      <p className="small-print">
        Left where it is: {fixed(m.ifLeft.points)} points more
        {m.ifLeft.breaks.length ? `; ${m.ifLeft.breaks.join(' ')}` : ''}
      </p>
      <FigureChanges title="and heard against the proposal" rows={m.ifLeft.figures} />
    </article>
  );
}

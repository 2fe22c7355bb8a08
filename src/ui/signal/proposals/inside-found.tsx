import { Button } from '@mantine/core';
import { nameOf } from '../../../core/rig';
import type { HostMove, InsideProposal } from '../../../core/solve';
import { fixed } from '../../../core/units';
import { TriedEdits } from '../../look/tried-edits';
import { useDocument } from '../../store/use-rig';
import type { TakeFound } from './found';

type Hold = (device: string, inside: boolean) => void;

/** What should live inside a modeler and what outside, with its budget now and then. */
export function InsideFound({
  proposal: p,
  stale,
  onTake,
  held,
  onHold,
}: TakeFound<InsideProposal> & { held: readonly [string, boolean][]; onHold: Hold }) {
  const rig = useDocument();
  const name = (id: string) => nameOf(rig, id);
  if (!p.possible)
    return (
      <div className="empty" data-proposal="inside">
        It does not fit, whatever leaves: {p.short.join(', ')}. Take a block out, correct what one
        costs, or free a send and return.
      </div>
    );
  return (
    <div data-proposal="inside">
      <BudgetTable proposal={p} />
      {p.moves.length === 0 && <p>Everything can stay where it is.</p>}
      {p.moves.length > 0 && (
        <>
          <Button
            size="xs"
            mt={6}
            disabled={stale}
            onClick={() =>
              onTake(p.edits, `moved ${p.moves.map((m) => name(m.device)).join(', ')} as proposed`)
            }
          >
            Make these moves
          </Button>
          <TriedEdits edits={p.edits} />
        </>
      )}
      {p.moves.map((m) => (
        <Move key={m.device} move={m} onHold={onHold} />
      ))}
      {held.length > 0 && (
        <p className="faint common-text-2">
          Kept as you said:{' '}
          {held.map(([d, inside]) => `${name(d)} ${inside ? 'inside' : 'outside'}`).join(', ')}.
        </p>
      )}
      <p className="faint common-text-2">
        Points weigh what is always on, what changes between sounds, what it costs inside, and what
        is on hand as a real pedal. They are a judgement; budgets and loops are not.
      </p>
    </div>
  );
}

function BudgetTable({ proposal: p }: { proposal: InsideProposal & { possible: true } }) {
  const rig = useDocument();
  const name = (id: string) => nameOf(rig, id);
  return (
    <table className="sheet-table numbers figures">
      <thead>
        <tr>
          <th>{name(p.host)}</th>
          <th>Has</th>
          <th>Now</th>
          <th>Then</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <td>Slots</td>
          <td>{p.has.slots}</td>
          <td>{p.now.slots}</td>
          <td>{p.then.slots}</td>
        </tr>
        <tr>
          <td>Processing</td>
          <td>{p.has.percent} %</td>
          <td>{fixed(p.now.percent, 0)} %</td>
          <td>{fixed(p.then.percent, 0)} %</td>
        </tr>
      </tbody>
    </table>
  );
}

function Move({ move: m, onHold }: { move: HostMove; onHold: Hold }) {
  const rig = useDocument();
  const name = (id: string) => nameOf(rig, id);
  return (
    <article className="finding" data-move={m.device}>
      <strong>
        {name(m.device)}: {m.to}, {m.place}
      </strong>
      <ul className="found-box">
        {m.reasons.map((r) => (
          <li key={r}>{r}</li>
        ))}
      </ul>
      <p className="small-print">
        {'impossible' in m.ifLeft
          ? 'Left where it is, the rest does not fit.'
          : `Left where it is: ${fixed(m.ifLeft.points)} points worse.`}
      </p>
      <Button
        size="compact-xs"
        variant="default"
        disabled={'impossible' in m.ifLeft}
        onClick={() => onHold(m.device, m.to === 'outside')}
      >
        Keep it {m.to === 'outside' ? 'inside' : 'outside'} and work it out again
      </Button>
    </article>
  );
}

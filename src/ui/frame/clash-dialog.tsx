'use client';
import { Button, Group, Modal } from '@mantine/core';
import { compareRigs } from '../../core/changes';
import type { Clash } from '../keep/keeper';
import { useDocument } from '../store/use-rig';

const say = (v: unknown): string =>
  v === undefined ? 'removed' : typeof v === 'string' ? v : JSON.stringify(v);

/**
 * Two people changed the same thing: both sides, side by side, to choose from. Neither is lost;
 * every revision stays in the history.
 */
export function ClashDialog({
  clash,
  onSettle,
}: {
  clash: Clash;
  onSettle: (side: 'mine' | 'theirs') => void;
}) {
  const mine = useDocument();
  const differences = compareRigs(clash.theirs.rig, mine);
  return (
    <Modal
      opened
      onClose={() => undefined}
      withCloseButton={false}
      size="xl"
      title="Somebody else changed the same thing"
    >
      {clash.conflicts.length > 0 ? (
        <table className="sheet-table" data-table="clash">
          <thead>
            <tr>
              <th>What</th>
              <th>Yours</th>
              <th>Theirs (saved)</th>
            </tr>
          </thead>
          <tbody>
            {clash.conflicts.map((c) => (
              <tr key={c.where}>
                <td className="figures">{c.where}</td>
                <td>{say(c.mine)}</td>
                <td>{say(c.theirs)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        clash.problems.map((p) => (
          <p key={p.where + p.what}>
            {p.where}: {p.what}
          </p>
        ))
      )}
      <p>With yours, compared to what is saved:</p>
      <ul>
        {differences.slice(0, 12).map((d, i) => (
          <li key={i}>{d}</li>
        ))}
      </ul>
      <Group>
        <Button onClick={() => onSettle('mine')}>Save mine on top of theirs</Button>
        <Button variant="default" onClick={() => onSettle('theirs')}>
          Take theirs, drop mine
        </Button>
      </Group>
      <p className="faint small-print">
        Theirs stays in the history either way. To keep a copy of yours before dropping it, choose
        yours, then go back to theirs in the history.
      </p>
    </Modal>
  );
}

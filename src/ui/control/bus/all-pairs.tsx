import { Button, Group, Progress } from '@mantine/core';
import { keyName, type PairReport, type Stage } from '../../../core/midi';
import { nameOf } from '../../../core/rig/find';
import type { Rig } from '../../../core/rig/schema';
import { fixed } from '../../../core/units';
import { useWorking } from '../../look/use-working';
import { useDocument } from '../../store/use-rig';

/** Every ordered pair of sounds, from the states of the first: worked out beside the page. */
export function AllPairs({ rig, stage }: { rig: Rig; stage: Stage }) {
  const { work, start, cancel } = useWorking('pairs');
  const name = (id: string) => stage.scene(id)?.name ?? id;
  const n = stage.orders.scenes.length;
  return (
    <section data-list="pairs">
      <h3>Every change, whatever was on before</h3>
      <Group gap={8}>
        <Button
          size="xs"
          variant="default"
          disabled={work.state === 'working'}
          onClick={() => start({ rig })}
        >
          Simulate all {n * (n - 1)} changes
        </Button>
        {work.state === 'working' && (
          <>
            <Button size="xs" variant="default" onClick={cancel}>
              Cancel
            </Button>
            <Progress w={220} value={100 * work.share} aria-label="How far it is" />
            <span role="status">{Math.round(100 * work.share)} %</span>
          </>
        )}
      </Group>
      {work.state === 'failed' && <p role="alert">It stopped: {work.why}. Try again.</p>}
      {work.state === 'done' && (
        <>
          <p>
            <strong>
              {work.answer.good} of {work.answer.pairs}
            </strong>{' '}
            changes end as meant
            {work.answer.byHand > 0 &&
              `, and ${work.answer.byHand} more once hands and feet have done what no message does`}
            .
            {work.answer.slowest &&
              ` The slowest, from ${name(work.answer.slowest.from)} ` +
                `to ${name(work.answer.slowest.to)}, takes ${fixed(work.answer.slowest.ms, 1)} ms.`}
          </p>
          {work.answer.faults.length > 0 && <FaultsTable faults={work.answer.faults} name={name} />}
        </>
      )}
    </section>
  );
}

function FaultsTable({
  faults,
  name,
}: {
  faults: PairReport['faults'];
  name: (scene: string) => string;
}) {
  const rig = useDocument();
  return (
    <table className="sheet-table figures" data-table="pair-faults">
      <thead>
        <tr>
          <th>Device</th>
          <th>Because</th>
          <th>Settings</th>
          <th>Changes</th>
          <th>Such as</th>
        </tr>
      </thead>
      <tbody>
        {faults.map((f) => (
          <tr key={`${f.device} ${f.because}`}>
            <td>
              <strong>{nameOf(rig, f.device)}</strong>
            </td>
            <td>
              {f.because}
              {f.because !== 'by hand' && <div className="faint">{f.cure} cures it</div>}
            </td>
            <td>{f.keys.map((k) => keyName(rig, f.device, k)).join(', ')}</td>
            <td>{f.count}</td>
            <td>
              {f.pairs
                .slice(0, 3)
                .map((p) => `${name(p.from)} to ${name(p.to)}`)
                .join('; ')}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

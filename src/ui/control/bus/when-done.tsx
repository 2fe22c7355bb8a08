import { keyWords, runChange } from '../../../core/midi';
import { nameOf } from '../../../core/rig/find';
import { allOf, fixed } from '../../../core/units';
import { useDocument } from '../../store/use-rig';

type Change = ReturnType<typeof runChange>;

/** When all is in place, and how long it is silent on the way. */
export function WhenDone({ change }: { change: Change }) {
  const rig = useDocument();
  return (
    <div data-done className="bus-view-text">
      {change.pressed.length ? (
        <>
          Pressed on {allOf(change.pressed.map((p) => nameOf(rig, p)))}. All in place after{' '}
          <strong>{fixed(change.doneMs, 2)} ms</strong>
          {change.silentMs > 0 ? (
            <>, {fixed(change.silentMs, 1)} ms of it silent while something loads</>
          ) : null}
          .
        </>
      ) : (
        'No sender calls this sound: give it a program, or write out what is sent.'
      )}
      {change.traffic.endless && <strong> Messages go round without end.</strong>}
    </div>
  );
}

/** What does not end as the sound wants it, and why. */
export function Mismatches({ change, wanted }: { change: Change; wanted: string }) {
  const rig = useDocument();
  return change.mismatches.length > 0 ? (
    <div role="alert" data-list="mismatches">
      <strong>Not as {wanted} wants it:</strong>
      <ul>
        {change.mismatches.map((m) => (
          <li key={m.key}>
            {keyWords(rig, m)} ({m.because}).
          </li>
        ))}
      </ul>
    </div>
  ) : (
    <p data-list="mismatches">Everything that messages reach ends as {wanted} wants it.</p>
  );
}

/** How late the clock arrives at each device. */
export function JitterTable({ change, bpm }: { change: Change; bpm: number }) {
  const rig = useDocument();
  if (!change.jitter.length) return null;
  return (
    <>
      <h3>
        Clock at {bpm} bpm, one every {fixed(60_000 / bpm / 24, 2)} ms
      </h3>
      <table className="sheet-table figures" data-table="jitter">
        <thead>
          <tr>
            <th>At</th>
            <th>Late at worst</th>
            <th>On average</th>
          </tr>
        </thead>
        <tbody>
          {change.jitter.map((j) => (
            <tr key={j.device}>
              <td>{nameOf(rig, j.device)}</td>
              <td>{fixed(j.worstMs, 3)} ms</td>
              <td>{fixed(j.typicalMs, 3)} ms</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

import { hex, messageWords, midiDevices, runChange, screenOn } from '../../../core/midi';
import type { Message } from '../../../core/midi/message';
import { nameOf } from '../../../core/rig/find';
import type { Rig } from '../../../core/rig/schema';
import { fixed } from '../../../core/units';
import { useDocument } from '../../store/use-rig';

/** Every message on the wire: its bytes, what it means, when it begins and ends. */
export function WireTable({ sent }: { sent: ReturnType<typeof runChange>['traffic']['sent'] }) {
  const rig = useDocument();
  return (
    <>
      <h3>On the wire</h3>
      <table className="sheet-table figures" data-table="messages">
        <thead>
          <tr>
            <th>From</th>
            <th>To</th>
            <th>Bytes</th>
            <th>Means</th>
            <th>Begins</th>
            <th>Ends</th>
          </tr>
        </thead>
        <tbody>
          {sent
            .filter((s) => s.message.type !== 'clock')
            .map((s, i) => (
              <tr key={i}>
                <td>{nameOf(rig, s.from)}</td>
                <td>{nameOf(rig, s.to)}</td>
                <td>
                  <code>{hex(s.bytes)}</code>
                </td>
                <td>
                  {messageWords(s.message)}
                  {screenAt(rig, s.to, s.message)}
                </td>
                <td>{fixed(s.start, 2)} ms</td>
                <td>{fixed(s.end, 2)} ms</td>
              </tr>
            ))}
        </tbody>
      </table>
    </>
  );
}

/** What the receiver's screen would show for a program that is meant for it. */
function screenAt(rig: Rig, to: string, message: Message): string {
  const m = midiDevices(rig).get(to);
  return m &&
    message.type === 'program' &&
    m.programs &&
    (m.channel === 'all' || m.channel === message.channel)
    ? ` (screen ${screenOn(m, message)})`
    : '';
}

import { numbersOn, midiDevices, runChange } from '../../../core/midi';
import type { MidiDevice } from '../../../core/midi/setup';
import { sure } from '../../../core/outcome';
import { fixed } from '../../../core/units';
import { useDocument } from '../../store/use-rig';

type Change = ReturnType<typeof runChange>;
type Landing = Change['landings'][number];

/** What each device does, in the order in which it does it. */
export function LandingsTable({ change }: { change: Change }) {
  const rig = useDocument();
  const told = change.landings.filter((l) => l.effect.what !== 'bank');
  return (
    <>
      <h3>In the order in which it lands</h3>
      <table className="sheet-table figures" data-table="landings">
        <thead>
          <tr>
            <th>At</th>
            <th>Device</th>
            <th>Does</th>
            <th>Asked at</th>
          </tr>
        </thead>
        <tbody>
          {told.map((l, i) => {
            const m = sure(midiDevices(rig).get(l.device));
            return (
              <tr key={i} data-landing={l.device}>
                <td>{fixed(l.at, 2)} ms</td>
                <td>
                  <strong>{m.device.name}</strong>
                </td>
                <td>{doesWords(m, l.effect)}</td>
                <td>{fixed(l.arrived, 2)} ms</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

/** What a message makes a device do, in words. */
function doesWords(m: MidiDevice, effect: Landing['effect']): string {
  const numbers = (at: { bank: number; number: number }) =>
    numbersOn(m, { ...(m.bank !== 'none' && { bank: at.bank }), number: at.number });
  switch (effect.what) {
    case 'program':
      return `${numbers(effect)}: ${effect.recalled.name}`;
    case 'unknown':
      return `nothing is kept at ${numbers(effect)}`;
    case 'control':
      return (
        `${effect.setting.split(' ')[1]} ` +
        (typeof effect.value === 'number' ? fixed(effect.value) : effect.value ? 'on' : 'off') +
        (effect.toggled ? ' (flipped)' : '')
      );
    default:
      return '';
  }
}

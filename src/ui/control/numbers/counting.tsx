'use client';
import { SegmentedControl, Select } from '@mantine/core';
import type { Numbering } from '../../../core/kinds';
import { type MidiDevice, shownOn } from '../../../core/midi';
import { type Outcome } from '../../../core/outcome';
import type { Rig } from '../../../core/rig';
import { CommitNumber } from '../../look/commit-number';
import { useRig } from '../../store/use-rig';

/** How each device counts on its screen. */
export function Counting({ devices }: { devices: MidiDevice[] }) {
  const edit = useRig((s) => s.edit);
  return (
    <>
      <h3>How each counts</h3>
      <table className="sheet-table figures" data-table="counting">
        <thead>
          <tr>
            <th>Device</th>
            <th>Screen counts from</th>
            <th>Slots in a bank</th>
            <th>Slots are</th>
            <th>Banks count from</th>
            <th>Takes bank select</th>
            <th>So wire 21 reads</th>
          </tr>
        </thead>
        <tbody>
          {devices.map((m) => {
            const set = (shows: Partial<Numbering>) =>
              edit({
                edit: 'setMidi',
                device: m.device.id,
                midi: { ...m.device.midi, shows: { ...m.shows, ...shows } },
              });
            return <CountingRow key={m.device.id} m={m} set={set} />;
          })}
        </tbody>
      </table>
    </>
  );
}

/** How one device counts its programs and banks. */
function CountingRow({
  m,
  set,
}: {
  m: MidiDevice;
  set: (shows: Partial<Numbering>) => Outcome<Rig>;
}) {
  const edit = useRig((s) => s.edit);
  return (
    <tr data-counting={m.device.id}>
      <td>
        <strong>{m.device.name}</strong>
      </td>
      <td>
        <SegmentedControl
          size="xs"
          aria-label={`${m.device.name} counts from`}
          data={['0', '1']}
          value={String(m.shows.from)}
          onChange={(v) => set({ from: v === '1' ? 1 : 0 })}
        />
      </td>
      <td>
        <CommitNumber
          w={90}
          aria-label={`Slots in a bank of ${m.device.name}`}
          min={1}
          max={128}
          allowDecimal={false}
          placeholder="no banks"
          value={m.shows.size}
          onCommit={(size) => set({ size })}
        />
      </td>
      <td>
        {m.shows.size === undefined ? (
          <span className="faint">–</span>
        ) : (
          <SegmentedControl
            size="xs"
            aria-label={`Slots of ${m.device.name}`}
            data={[
              { value: 'numbers', label: '1 2 3' },
              { value: 'letters', label: 'A B C' },
            ]}
            value={m.shows.slots ?? 'numbers'}
            onChange={(v) => set({ slots: v })}
          />
        )}
      </td>
      <td>
        <SegmentedControl
          size="xs"
          aria-label={`Banks of ${m.device.name} count from`}
          data={['0', '1']}
          value={String(m.shows.banksFrom ?? m.shows.from)}
          onChange={(v) => set({ banksFrom: v === '1' ? 1 : 0 })}
        />
      </td>
      <td>
        <Select
          size="xs"
          w={150}
          aria-label={`Bank select of ${m.device.name}`}
          data={[
            { value: 'none', label: 'none' },
            { value: 'msb', label: 'control 0 (MSB)' },
            { value: 'lsb', label: 'control 32 (LSB)' },
            { value: 'both', label: 'both' },
          ]}
          value={m.bank}
          allowDeselect={false}
          onChange={(v) =>
            v &&
            edit({
              edit: 'setMidi',
              device: m.device.id,
              midi: { ...m.device.midi, bankSelect: v },
            })
          }
        />
      </td>
      <td>screen {shownOn(m.shows, { number: 21 })}</td>
    </tr>
  );
}

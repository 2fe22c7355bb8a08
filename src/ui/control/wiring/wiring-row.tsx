import { sure } from '../../../core/outcome';
import { Checkbox, Select } from '@mantine/core';
import type { Severity } from '../../../core/findings/finding';
import type { Thru } from '../../../core/kinds';
import { THRUS } from '../../../core/kinds/kind';
import { ordersOf } from '../../../core/midi/commands';
import { reachIn } from '../../../core/midi/graph';
import { type MidiDevice, wantsClock } from '../../../core/midi/setup';
import { needsOf } from '../../../core/midi/message-reach';
import type { Outcome } from '../../../core/outcome';
import type { MidiSetup } from '../../../core/rig';
import { nameOf } from '../../../core/rig/find';
import type { Device, Rig } from '../../../core/rig/schema';
import { SeverityMark } from '../../look/severity';
import { useDocument, useRig } from '../../store/use-rig';
import { Reception } from '../reception';

const THRU_WORDS: Record<Thru, string> = {
  none: 'passes nothing on',
  hardware: 'copies',
  software: 'repeats',
  merged: 'repeats and joins its own',
};

type SetMidi = (change: Partial<MidiSetup>) => Outcome<Rig>;
/** What the device listens for, if anything. */
type Listens = true | 'can' | 'wants' | 'leads' | undefined;

/** One device: its channel, thru, clock, what it waits for, who brings it, and its sockets. */
export function WiringRow({
  m,
  orders,
  severity,
  current,
  onPick,
}: {
  m: MidiDevice;
  orders: ReturnType<typeof ordersOf>;
  severity: Severity | undefined;
  current: boolean;
  onPick: (id: string) => void;
}) {
  const edit = useRig((s) => s.edit);
  const device: Device = m.device;
  const set = (change: Partial<MidiSetup>) =>
    edit({ edit: 'setMidi', device: device.id, midi: { ...device.midi, ...change } });
  const needs = needsOf(orders, m);
  const by = [...orders.graph.devices.values()].filter(
    (s) =>
      s.sends.length &&
      s.device.id !== device.id &&
      reachIn(orders.graph, s.device.id).has(device.id),
  );
  const thrus = sure(m.kind.midi).thrus;
  const listens = m.programs || m.mapped.length > 0 || sure(m.kind.midi).clock;
  return (
    <tr data-midi={device.id} aria-current={current} onClick={() => onPick(device.id)}>
      <td>
        <strong>{device.name}</strong> {severity && <SeverityMark severity={severity} />}
        <div className="faint common-text">{m.kind.name}</div>
      </td>
      <ChannelCell listens={listens} device={device} m={m} set={set} />
      <ThruCell m={m} thrus={thrus} device={device} set={set} />
      <ClockCell m={m} device={device} set={set} />
      <CommanderCell listens={listens} device={device} orders={orders} by={by} set={set} />
      <td>
        {needs.join(', ') || <span className="faint">nothing</span>}
        {wantsClock(m) && device.tempo ? (
          <span className="faint"> ({device.tempo.division ?? 'quarter'})</span>
        ) : null}
      </td>
      <td>{by.map((s) => s.device.name).join(', ') || <span className="faint">nobody</span>}</td>
      <WaitsCell m={m} listens={listens} />
      <SocketsCell m={m} device={device} set={set} />
    </tr>
  );
}

/** Who tells the device what to play: chosen, or the nearest that could. */
function CommanderCell({
  listens,
  device,
  orders,
  by,
  set,
}: {
  listens: Listens;
  device: Device;
  orders: ReturnType<typeof ordersOf>;
  by: MidiDevice[];
  set: SetMidi;
}) {
  const rig = useDocument();
  if (!listens)
    return (
      <td>
        <span className="faint">–</span>
      </td>
    );
  const nearest = orders.commanderOf.get(device.id);
  return (
    <td>
      <Select
        searchable
        size="xs"
        w={140}
        aria-label={`Who tells ${device.name}`}
        clearable
        placeholder={nearest === undefined ? 'nobody' : `${nameOf(rig, nearest)} (nearest)`}
        data={by
          .filter((s) => s.commands || s.recalls)
          .map((s) => ({ value: s.device.id, label: s.device.name }))}
        value={device.midi?.commander ?? null}
        onChange={(v) => set({ commander: v ?? undefined })}
      />
    </td>
  );
}

/** How long the device takes over a message, and whether it got what it was sent. */
function WaitsCell({ m, listens }: { m: MidiDevice; listens: Listens }) {
  return (
    <td>
      {m.programs
        ? `${m.programMs} ms program${m.gapMs ? `, ${m.gapMs} ms of it silent` : ''}`
        : ''}
      {m.mapped.length ? `${m.programs ? '; ' : ''}${m.controlMs} ms control` : ''}
      {m.reports ? <div className="faint common-text">reports back</div> : null}
      {listens && (
        <div>
          <Reception m={m} />
        </div>
      )}
    </td>
  );
}

/** The sockets that the device has, and whether it sends in running status. */
function SocketsCell({ m, device, set }: { m: MidiDevice; device: Device; set: SetMidi }) {
  const midiJack = m.kind.jacks.find((j) => j.midi);
  if (!midiJack)
    return (
      <td>
        <span className="faint">USB</span>
      </td>
    );
  return (
    <td>
      <Select
        size="xs"
        w={92}
        aria-label={`Sockets of ${device.name}`}
        data={[
          { value: 'DIN', label: 'DIN' },
          { value: 'TRS-A', label: 'TRS A' },
          { value: 'TRS-B', label: 'TRS B' },
        ]}
        value={device.midi?.socket ?? midiJack.connector}
        allowDeselect={false}
        onChange={(v) => v && set({ socket: v as MidiSetup['socket'] })}
      />
      {m.sends.some((s) => s === 'program' || s === 'control') && (
        <Checkbox
          size="xs"
          mt={4}
          label="running status"
          checked={m.runningStatus}
          onChange={(e) => set({ runningStatus: e.currentTarget.checked })}
        />
      )}
    </td>
  );
}

/** What the device does about the clock. */
function ClockCell({ m, device, set }: { m: MidiDevice; device: Device; set: SetMidi }) {
  return (
    <td>
      {sure(m.kind.midi).clock || m.sends.includes('clock') ? (
        <Select
          size="xs"
          w={104}
          aria-label={`Clock of ${device.name}`}
          data={[
            ...(m.sends.includes('clock') ? [{ value: 'send', label: 'leads' }] : []),
            ...(sure(m.kind.midi).clock ? [{ value: 'follow', label: 'follows' }] : []),
            { value: 'ignore', label: 'ignores it' },
          ]}
          value={m.clock}
          allowDeselect={false}
          onChange={(v) => v && set({ clock: v as MidiSetup['clock'] })}
        />
      ) : (
        <span className="faint">–</span>
      )}
    </td>
  );
}

/** What the device passes on. */
function ThruCell({
  m,
  thrus,
  device,
  set,
}: {
  m: MidiDevice;
  thrus: readonly Thru[];
  device: Device;
  set: SetMidi;
}) {
  return (
    <td>
      {m.kind.jacks.some((j) => j.midi === 'out' || j.usb) && thrus.length > 1 ? (
        <Select
          searchable
          size="xs"
          w={190}
          aria-label={`Thru of ${device.name}`}
          data={THRUS.filter((t) => thrus.includes(t)).map((t) => ({
            value: t,
            label: THRU_WORDS[t],
          }))}
          value={m.thru}
          allowDeselect={false}
          onChange={(v) => v && set({ thru: v })}
        />
      ) : (
        THRU_WORDS[m.thru]
      )}
    </td>
  );
}

/** The channel that the device listens to. */
function ChannelCell({
  listens,
  device,
  m,
  set,
}: {
  listens: Listens;
  device: Device;
  m: MidiDevice;
  set: SetMidi;
}) {
  return (
    <td>
      {listens ? (
        <Select
          size="xs"
          w={76}
          aria-label={`Channel of ${device.name}`}
          data={[...Array.from({ length: 16 }, (_, i) => String(i + 1)), 'all']}
          value={String(m.channel)}
          allowDeselect={false}
          onChange={(v) => v && set({ channel: v === 'all' ? 'all' : Number(v) })}
        />
      ) : (
        <span className="faint">–</span>
      )}
    </td>
  );
}

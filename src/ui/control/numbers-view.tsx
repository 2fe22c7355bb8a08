'use client';
import { Button, Group, NumberInput, Popover, SegmentedControl, Select } from '@mantine/core';
import { useState } from 'react';
import type { Numbering } from '../../core/kinds';
import {
  addressProblem,
  bothNumbers,
  freeAddress,
  type MidiDevice,
  midiDevices,
  numberingWords,
  setStage,
  shownOn,
  wireOf,
} from '../../core/midi';
import { at, type Outcome } from '../../core/outcome';
import type { Address, Rig, Sound } from '../../core/rig';
import { numberSounds } from '../../core/songs';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';
import { CommitText } from '../look/commit-text';

/**
 * Where each device keeps each sound: the number on the wire beside what its screen shows; and what
 * a number sent by one becomes on another.
 */
export function NumbersView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const current = useRig((s) => s.sound);
  const devices = [...midiDevices(rig).values()].filter((m) => m.programs);
  if (!devices.length)
    return (
      <div className="empty common-gap-2">
        No device of this rig keeps programs. A loop switcher, a modeler or a delay with MIDI does.
      </div>
    );
  return (
    <div className="scroll common-box-2">
      <table className="sheet-table figures" data-table="numbers">
        <thead>
          <tr>
            <th>Sound</th>
            {devices.map((m) => (
              <th key={m.device.id}>
                {m.device.name}
                <div className="faint numbers-view-text">
                  channel {m.channel}; {numberingWords(m.shows)}
                  {m.bank === 'none'
                    ? ''
                    : `; bank by ${m.bank === 'both' ? 'MSB and LSB' : m.bank.toUpperCase()}`}
                </div>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rig.sounds.map((s) => (
            <tr key={s.id} aria-current={s.id === current}>
              <td>
                <strong>{s.name}</strong>
              </td>
              {devices.map((m) => (
                <td key={m.device.id} data-number={`${m.device.id} ${s.id}`}>
                  <AddressCell m={m} sound={s} address={s.states[m.device.id]?.program} />
                </td>
              ))}
            </tr>
          ))}
          <tr>
            <td className="faint">All at once</td>
            {devices.map((m) => (
              <td key={m.device.id}>
                <Button
                  size="compact-xs"
                  variant="default"
                  onClick={() =>
                    edit(
                      numberSounds(rig, m.device.id),
                      `numbered all sounds on ${m.device.name} from the first on`,
                    )
                  }
                >
                  Number from the first
                </Button>
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      <Counting devices={devices} />
      <Offsets rig={rig} devices={devices} />
    </div>
  );
}

function AddressCell({
  m,
  sound,
  address,
}: {
  m: MidiDevice;
  sound: Sound;
  address: Address | undefined;
}) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const set = (program: Address | null) => {
    const why = program && addressProblem(m, program);
    setProblem(why ?? null);
    if (why) return;
    edit({ edit: 'setProgram', device: m.device.id, sound: sound.id, program });
  };
  const bank = m.bank === 'none' ? undefined : (address?.bank ?? 0);
  const readShown = (text = ''): boolean => {
    const found = wireOf(m.shows, text, m.shows.size === undefined ? bank : undefined);
    if (found === undefined) setProblem('no number of 0 to 127 is shown so');
    else if (m.shows.size !== undefined && m.bank !== 'none')
      set({ bank: Math.floor(found / m.shows.size), number: found % m.shows.size });
    else set({ ...(bank !== undefined && { bank }), number: found });
    return found !== undefined;
  };
  return (
    <Popover opened={open} onChange={setOpen} position="bottom-start" withArrow trapFocus>
      <Popover.Target>
        <button
          type="button"
          className="press-count"
          onClick={() => setOpen(!open)}
          aria-label={`${m.device.name}, ${sound.name}: ${address ? bothNumbers(m.shows, address) : 'no program'}`}
        >
          {address ? bothNumbers(m.shows, address) : <span className="faint">no program</span>}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <Group gap={8} align="end">
          {m.bank !== 'none' && (
            <CommitNumber
              w={92}
              label="Bank, wire"
              min={0}
              max={16383}
              allowDecimal={false}
              value={bank ?? 0}
              onCommit={(v) => set({ bank: v ?? 0, number: address?.number ?? 0 })}
            />
          )}
          <CommitNumber
            w={100}
            label="Program, wire"
            min={0}
            max={127}
            allowDecimal={false}
            value={address?.number}
            onCommit={(v) =>
              set(v === undefined ? null : { ...(bank !== undefined && { bank }), number: v })
            }
          />
          <CommitText
            w={110}
            label="As its screen shows"
            needed
            value={address && shownOn(m.shows, address)}
            error={problem}
            onCommit={readShown}
          />
        </Group>
        <Group gap={6} mt={8}>
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => {
              const free = freeAddress(setStage(rig), m.device.id);
              if (free) set(free);
            }}
          >
            Next free one
          </Button>
          <Button size="compact-xs" variant="default" disabled={!address} onClick={() => set(null)}>
            No program
          </Button>
        </Group>
      </Popover.Dropdown>
    </Popover>
  );
}

/** How each device counts on its screen. */
function Counting({ devices }: { devices: MidiDevice[] }) {
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

/** What a number on one screen becomes on another: through the wire, to the sound that is kept there. */
function Offsets({ rig, devices }: { rig: Rig; devices: MidiDevice[] }) {
  const [from, setFrom] = useState<'0' | '1'>('0');
  const [number, setNumber] = useState<number | string>(0);
  const [bank, setBank] = useState<number | string>(0);
  const [to, setTo] = useState<string | null>(null);
  const m = devices.find((d) => d.device.id === to) ?? at(devices, 0);
  const base = Number(from);
  const wire: Address = {
    ...(m.bank !== 'none' && { bank: Number(bank) - base }),
    number: Number(number) - base,
  };
  const isWire = wire.number >= 0 && wire.number <= 127 && (wire.bank ?? 0) >= 0;
  const holds = rig.sounds.filter((s) => {
    const p = s.states[m.device.id]?.program;
    return p && p.number === wire.number && (p.bank ?? 0) === (wire.bank ?? 0);
  });
  return (
    <>
      <h3>From one screen to another</h3>
      <Group gap={10} align="end">
        <Select
          size="xs"
          w={210}
          label="An app or controller that counts from"
          data={['0', '1']}
          value={from}
          allowDeselect={false}
          onChange={(v) => v && setFrom(v)}
        />
        {m.bank !== 'none' && (
          <NumberInput
            size="xs"
            w={110}
            label="sends bank"
            min={base}
            value={bank}
            onChange={setBank}
          />
        )}
        <NumberInput
          size="xs"
          w={110}
          label={m.bank === 'none' ? 'sends program' : 'and program'}
          min={base}
          value={number}
          onChange={setNumber}
        />
        <Select
          size="xs"
          w={180}
          label="to"
          data={devices.map((d) => ({ value: d.device.id, label: d.device.name }))}
          value={m.device.id}
          allowDeselect={false}
          onChange={setTo}
        />
      </Group>
      <p data-offset>
        {isWire ? (
          <>
            That is <strong>{bothNumbers(m.shows, wire)}</strong> on {m.device.name}, which keeps{' '}
            {holds.length ? <strong>{holds.map((s) => s.name).join(' and ')}</strong> : 'nothing'}{' '}
            there.
          </>
        ) : (
          'That is no number of the wire: 0 to 127.'
        )}
      </p>
    </>
  );
}

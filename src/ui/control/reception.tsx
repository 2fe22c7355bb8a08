'use client';
import { sure } from '../../core/outcome';
import { Button, Checkbox, Group, Modal, Select } from '@mantine/core';
import { useState } from 'react';
import type { Figure } from '../../core/kinds/kind';
import type { MidiDevice } from '../../core/midi';
import type { Outcome } from '../../core/outcome';
import { blocksOf, type MidiSetup, nameOf } from '../../core/rig';
import type { Device, Rig } from '../../core/rig/schema';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';
import { movable } from './movable';
import { TakeOut } from '../look/take-out';

type Table = NonNullable<MidiSetup['controls']>;

const TIMES = ['programMs', 'gapMs', 'controlMs', 'thruMs'];
const WAYS = [
  { value: 'absolute', label: 'is set to the value' },
  { value: 'toggle', label: 'turns over each time' },
];

type Row = NonNullable<MidiSetup['controls']>[number];

/** What moves a setting, and how far its numbers go; pitch bend and pressure have none. */
const MOVED_BY = [
  { value: 'control', label: 'control change', max: 127 },
  { value: 'fine', label: 'control of 14 bits', max: 31 },
  { value: 'nrpn', label: 'parameter (NRPN)', max: 16383 },
  { value: 'note', label: 'note', max: 127 },
  { value: 'bend', label: 'pitch bend', max: 0 },
  { value: 'pressure', label: 'pressure', max: 0 },
] as const;
const kindOfRow = (x: Row) => MOVED_BY.find((m) => m.value === (x.as ?? 'control')) ?? MOVED_BY[0];

/** The first control number from 20 on that is not taken; 0 and 32 select banks. */
const freeNumber = (table: readonly Row[]): number =>
  Array.from({ length: 127 }, (_, n) => (20 + n) % 128).find(
    (cc) => ![0, 32].includes(cc) && !table.some((x) => x.cc === cc),
  ) ?? 20;

/**
 * What one device takes in, as its manual has it: programs, control changes and what they move, how
 * long it takes, whether it tells back.
 */
export function Reception({ m }: { m: MidiDevice }) {
  const [open, setOpen] = useState(false);
  const { device } = m;
  return (
    <>
      <Button
        size="compact-xs"
        variant="default"
        aria-label={`What ${device.name} takes in`}
        onClick={(e) => {
          e.stopPropagation();
          setOpen(true);
        }}
      >
        Takes in …
      </Button>
      <Modal
        opened={open}
        onClose={() => setOpen(false)}
        size={820}
        title={`What ${device.name} takes in`}
        data-reception={device.id}
        onClick={(e) => e.stopPropagation()}
      >
        <TakesIn m={m} onDone={() => setOpen(false)} />
        <p className="faint reception-text">
          What turns over each time ends differently with every start; where the device can be set
          to a value, that is safer. 0 and 32 select banks.
        </p>
      </Modal>
    </>
  );
}

/** The form of what a device takes in. */
function TakesIn({ m, onDone }: { m: MidiDevice; onDone: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const { device } = m;
  const set = (change: Partial<MidiSetup>) =>
    edit({ edit: 'setMidi', device: device.id, midi: { ...device.midi, ...change } });
  const table = m.mapped.map((x): Row => ({
    setting: x.setting,
    ...(x.device !== device.id && { device: x.device }),
    cc: x.cc,
    ...(x.as !== 'control' && { as: x.as }),
    way: x.way,
  }));
  const change = (i: number, part: Partial<Row>) =>
    set({ controls: table.map((x, k) => (k === i ? { ...x, ...part } : x)) });
  const all = [device, ...blocksOf(rig, device.id)].flatMap((d) =>
    movable(rig, d.id).map((o) => ({
      value: `${d.id} ${o.value}`,
      label: d.id === device.id ? o.label : `${nameOf(rig, d.id)}: ${o.label}`,
    })),
  );
  const add = (what: string) => {
    const [id, setting] = what.split(' ');
    const row: Row = {
      setting: sure(setting),
      ...(id !== device.id && { device: sure(id) }),
      cc: freeNumber(table),
      way: 'absolute',
    };
    set({ controls: [...table, row] });
  };
  const times = m.kind.figures.filter((f) => TIMES.includes(f.id));
  return (
    <>
      <Group gap={16}>
        {sure(m.kind.midi).programs && (
          <Checkbox
            size="xs"
            label="programs"
            checked={m.programs}
            onChange={(e) => set({ programs: e.currentTarget.checked })}
          />
        )}
        <Checkbox
          size="xs"
          label="tells back what is changed on it"
          checked={m.reports}
          onChange={(e) => set({ reports: e.currentTarget.checked })}
        />
      </Group>
      {times.length > 0 && <AnsweringTimes times={times} device={device} />}
      <ReceptionTable table={table} change={change} all={all} device={device} set={set} />
      {table.length === 0 && (
        <p className="faint small-print">It takes no control changes or other messages.</p>
      )}
      <Group mt={10} gap={8}>
        <Select
          size="xs"
          w={260}
          searchable
          placeholder="Add what a control change moves …"
          aria-label="Add what a control change moves"
          data={all}
          value={null}
          onChange={(v) => v && add(v)}
        />
        <Button
          size="xs"
          variant="default"
          disabled={!device.midi?.controls}
          onClick={() => set({ controls: undefined })}
        >
          As usual for its kind
        </Button>
        <Button size="xs" ml="auto" onClick={onDone}>
          Done
        </Button>
      </Group>
    </>
  );
}

/** Each control change that is taken in, what it moves and how. */
function ReceptionTable({
  table,
  change,
  all,
  device,
  set,
}: {
  table: Table;
  change: (i: number, part: Partial<Table[number]>) => Outcome<Rig>;
  all: { value: string; label: string }[];
  device: Device;
  set: (change: Partial<MidiSetup>) => Outcome<Rig>;
}) {
  return (
    <table className="sheet-table figures reception-gap" data-table="reception">
      <thead>
        <tr>
          <th>By</th>
          <th>Number</th>
          <th>Moves</th>
          <th>It</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {table.map((x, i) => (
          <ReceptionRow
            key={`${i} ${x.cc}`}
            {...{ x, i, change, all, device }}
            onRemove={() => set({ controls: table.filter((_, k) => k !== i) })}
          />
        ))}
      </tbody>
    </table>
  );
}

/** One message that is taken in, what it moves and how. */
function ReceptionRow({
  x,
  i,
  change,
  all,
  device,
  onRemove,
}: {
  x: Row;
  i: number;
  change: (i: number, part: Partial<Table[number]>) => Outcome<Rig>;
  all: { value: string; label: string }[];
  device: Device;
  onRemove: () => void;
}) {
  return (
    <tr data-takes={x.cc}>
      <td>
        <Select
          size="xs"
          w={140}
          aria-label={`What sort of message ${i + 1} is`}
          data={MOVED_BY.map(({ value, label }) => ({ value, label }))}
          value={kindOfRow(x).value}
          allowDeselect={false}
          onChange={(v) => {
            const by = MOVED_BY.find((m) => m.value === v) ?? MOVED_BY[0];
            change(i, {
              as: by.value === 'control' ? undefined : by.value,
              cc: Math.min(x.cc, by.max),
            });
          }}
        />
      </td>
      <td>
        <CommitNumber
          w={72}
          aria-label={`Number of control change ${i + 1}`}
          min={0}
          max={kindOfRow(x).max}
          disabled={kindOfRow(x).max === 0}
          allowDecimal={false}
          value={x.cc}
          onCommit={(cc) => cc !== undefined && change(i, { cc })}
        />
      </td>
      <td>
        <Select
          size="xs"
          w={250}
          searchable
          aria-label={`What control change ${x.cc} moves`}
          data={all}
          value={`${x.device ?? device.id} ${x.setting}`}
          allowDeselect={false}
          onChange={(v) => {
            const [id, setting] = (v ?? '').split(' ');
            if (id && setting) change(i, { setting, device: id === device.id ? undefined : id });
          }}
        />
      </td>
      <td>
        <Select
          size="xs"
          w={170}
          aria-label={`How control change ${x.cc} acts`}
          data={WAYS}
          value={x.way}
          allowDeselect={false}
          onChange={(v) => v && change(i, { way: v as 'absolute' | 'toggle' })}
        />
      </td>
      <td>
        <TakeOut what={`Take control change ${x.cc} out`} onClick={onRemove} />
      </td>
    </tr>
  );
}

/** How long the device takes, as its sheet has it. */
function AnsweringTimes({ times, device }: { times: Figure<string>[]; device: Device }) {
  const edit = useRig((s) => s.edit);
  return (
    <Group gap={8} mt={10} align="end">
      {times.map((f) => (
        <CommitNumber
          key={f.id}
          w={140}
          label={`${f.label}, ms`}
          min={f.min}
          max={f.max}
          value={device.figures?.[f.id]?.value ?? f.typical}
          onCommit={(v) =>
            edit(
              v === undefined
                ? { edit: 'clearFigure', device: device.id, figure: f.id }
                : {
                    edit: 'overrideFigure',
                    device: device.id,
                    figure: f.id,
                    override: {
                      value: v,
                      from: 'sheet',
                      on: new Date().toISOString().slice(0, 10),
                    },
                  },
            )
          }
        />
      ))}
    </Group>
  );
}

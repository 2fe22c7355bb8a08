'use client';
import { Checkbox, Group, Select } from '@mantine/core';
import { useState } from 'react';
import { POWER_PLUGS } from '../../../core/kinds';
import { type ChangedKind, checkSheet, kindOfSheet, type Sheet } from '../../../core/rig';
import { CommitNumber } from '../../look/commit-number';
import type { Change } from './sheet-editor';

type Put = (fields: Partial<ChangedKind>) => void;

/** The kind that a sheet describes as it stands, where it stands. */
const insideOf = (sheet: Sheet) => (checkSheet(sheet).ok ? kindOfSheet(sheet) : undefined);

/** Power, size, weight, display and price. A figure that is left empty is as of what is inside. */
export function BoxFields({ sheet, onChange }: { sheet: Sheet; onChange: Change }) {
  const put: Put = (fields) => onChange({ ...sheet, ...fields } as Sheet);
  return (
    <>
      <h3>The box</h3>
      <div className="own-gear-box">
        <Power sheet={sheet} put={put} />
        <Mains sheet={sheet} put={put} />
        <Size sheet={sheet} put={put} />
        <Others sheet={sheet} put={put} />
      </div>
    </>
  );
}

/** A number of the box; `ends` are the least and the most that it can be. */
const Figure = ({
  ends: [min, max],
  ...rest
}: {
  label: string;
  ends: [number, number];
  value: number | undefined;
  onCommit: (value: number | undefined) => void;
}) => <CommitNumber w={100} min={min} max={max} {...rest} />;

/** What it takes of a supply. What is said by halves waits here until the other half is said. */
function Power({ sheet, put }: { sheet: Sheet; put: Put }) {
  const [half, setHalf] = useState<{ volts?: number; milliamps?: number }>({});
  const { power } = sheet;
  const said = power ?? half;
  const usual = insideOf(sheet)?.power;
  const set = (fields: Partial<NonNullable<Sheet['power']>>) => {
    // A zero, or nothing, takes back what was said; the other half is as of what is inside, where that says it.
    const isTaken = fields.volts === 0 || fields.milliamps === 0;
    const next = { ...(!isTaken && usual), ...said, ...fields };
    const { volts, milliamps } = next;
    if (volts && milliamps) put({ power: { ...next, volts, milliamps } });
    else if (power) put({ power: undefined });
    setHalf(isTaken ? {} : { ...(volts && { volts }), ...(milliamps && { milliamps }) });
  };
  const isHalf = !power && (half.volts ?? half.milliamps) !== undefined;
  return (
    <Group gap={8} align="end" role="group" aria-label="What it takes of a supply">
      <Figure
        label="Power, V"
        ends={[0, 60]}
        value={said.volts}
        onCommit={(volts = 0) => set({ volts })}
      />
      <Figure
        label="mA"
        ends={[0, 20_000]}
        value={said.milliamps}
        onCommit={(milliamps = 0) => set({ milliamps })}
      />
      {isHalf && (
        <span role="status" className="faint">
          {half.volts ? 'and how many mA?' : 'and at how many V?'}
        </span>
      )}
      {power && (
        <>
          <Figure
            label="Up to, V"
            ends={[power.volts, 60]}
            value={power.maxVolts}
            onCommit={(maxVolts) => set({ maxVolts })}
          />
          <Select
            size="xs"
            w={130}
            label="Centre"
            allowDeselect={false}
            data={['negative', 'positive']}
            value={power.centre ?? 'negative'}
            onChange={(v) => set({ centre: v === 'positive' ? 'positive' : undefined })}
          />
          <Select
            size="xs"
            w={130}
            label="Plug"
            allowDeselect={false}
            data={[...POWER_PLUGS]}
            value={power.plug ?? POWER_PLUGS[0]}
            onChange={(v) => set({ plug: POWER_PLUGS.find((p) => p === v) })}
          />
          {(
            [
              ['ac', 'AC'],
              ['noisy', 'digital, makes noise'],
              ['sensitive', 'high gain, hears noise'],
              ['positiveGround', 'positive ground'],
            ] as const
          ).map(([field, label]) => (
            <Checkbox
              key={field}
              size="xs"
              label={label}
              checked={power[field] ?? false}
              onChange={(e) => set({ [field]: e.currentTarget.checked || undefined })}
            />
          ))}
        </>
      )}
    </Group>
  );
}

/** What it takes from the mains, by how many inlets, and for which voltages it is made. */
function Mains({ sheet, put }: { sheet: Sheet; put: Put }) {
  const { mains } = sheet;
  const usual = insideOf(sheet)?.mains?.volts ?? [[100, 240]];
  const [from, to] = mains?.volts?.[0] ?? usual[0] ?? [100, 240];
  const volts = (low: number, high: number) =>
    mains && put({ mains: { ...mains, volts: [[Math.min(low, high), Math.max(low, high)]] } });
  return (
    <Group gap={8} align="end" role="group" aria-label="What it takes from the mains">
      <Figure
        label="Mains, W"
        ends={[0, 20_000]}
        value={mains?.watts}
        onCommit={(v) => put({ mains: v ? { ...mains, watts: v } : undefined })}
      />
      <Figure
        label="Mains inlets"
        ends={[1, 4]}
        value={mains ? (mains.inlets ?? 1) : undefined}
        onCommit={(v) => put({ mains: { watts: 20, ...mains, inlets: v ?? 1 } })}
      />
      {mains && (
        <>
          <Figure
            label="From, V AC"
            ends={[80, 260]}
            value={from}
            onCommit={(v = from) => volts(v, to)}
          />
          <Figure
            label="To, V AC"
            ends={[80, 260]}
            value={to}
            onCommit={(v = to) => volts(from, v)}
          />
        </>
      )}
    </Group>
  );
}

/** What it measures and weighs. A weight alone can be told: it then measures what such a box usually does. */
function Size({ sheet, put }: { sheet: Sheet; put: Put }) {
  const size = sheet.size ?? { width: 0, depth: 0, height: 0, ...insideOf(sheet)?.size, grams: 0 };
  const set = (fields: Partial<typeof size>) => put({ size: { ...size, ...fields } });
  return (
    <Group gap={8} align="end" role="group" aria-label="What it measures and weighs">
      {(['width', 'depth', 'height'] as const).map((side) => (
        <Figure
          key={side}
          label={`${side[0]?.toUpperCase()}${side.slice(1)}, mm`}
          ends={[5, 3000]}
          value={sheet.size?.[side]}
          onCommit={(v = 0) => set({ [side]: v })}
        />
      ))}
      <Figure
        label="Weight, g"
        ends={[0, 1e6]}
        value={sheet.size?.grams}
        onCommit={(v = 0) => set({ grams: v })}
      />
      <Figure
        label="Rack units"
        ends={[1, 30]}
        value={sheet.rackUnits}
        onCommit={(rackUnits) => put({ rackUnits })}
      />
    </Group>
  );
}

/** Foot switches, what its display holds, and its price. */
function Others({ sheet, put }: { sheet: Sheet; put: Put }) {
  const display = sheet.display;
  return (
    <Group gap={8} align="end" role="group" aria-label="Switches, display, price">
      <Figure
        label="Foot switches"
        ends={[0, 40]}
        value={sheet.switches}
        onCommit={(switches) => put({ switches })}
      />
      <Figure
        label="Display, lines"
        ends={[0, 20]}
        value={display?.lines}
        onCommit={(lines) => put({ display: lines ? { width: 16, ...display, lines } : undefined })}
      />
      <Figure
        label="Letters a line"
        ends={[1, 80]}
        value={display?.width}
        onCommit={(width) => width && put({ display: { lines: 1, ...display, width } })}
      />
      <Figure
        label="Price"
        ends={[0, 1e6]}
        value={sheet.price}
        onCommit={(price) => put({ price })}
      />
    </Group>
  );
}

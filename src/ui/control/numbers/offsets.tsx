'use client';
import { Group, NumberInput, Select } from '@mantine/core';
import { useState } from 'react';
import { numbersOn, type MidiDevice } from '../../../core/midi';
import { at } from '../../../core/outcome';
import type { Address, Rig } from '../../../core/rig';
import { allOf } from '../../../core/units';

/** What a number on one screen becomes on another: through the wire, to the sound that is kept there. */
export function Offsets({ rig, devices }: { rig: Rig; devices: MidiDevice[] }) {
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
          searchable
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
            That is <strong>{numbersOn(m, wire)}</strong> on {m.device.name}, which keeps{' '}
            {holds.length ? <strong>{allOf(holds.map((s) => s.name))}</strong> : 'nothing'} there.
          </>
        ) : (
          'That is no number of the wire: 0 to 127.'
        )}
      </p>
    </>
  );
}

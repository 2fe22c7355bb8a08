'use client';
import { Button, Checkbox, Group } from '@mantine/core';
import Link from 'next/link';
import { gearSums, gramsOf, TWO_PERSONS_GRAMS } from '../../core/build';
import { kindOf } from '../../core/kinds';
import type { Device } from '../../core/rig';
import { fixed, howMany } from '../../core/units';
import { CommitNumber } from '../look/commit-number';
import { save } from '../look/save-file';
import { useDocument, useRig } from '../store/use-rig';
import { ReadButton } from '../look/read-button';
import { CommitText } from '../look/commit-text';

/** The units of this rig: serial number, owner, weight, value, owned or to buy; as CSV out and in. */
export function GearView() {
  const rig = useDocument();
  const setNotice = useRig((s) => s.setNotice);
  const sums = gearSums(rig);
  const write = () =>
    import('../../core/formats').then(
      (f) => save(`${rig.id}-gear.csv`, f.gearToCsv(rig), 'text/csv;charset=utf-8'),
      (e: unknown) =>
        setNotice(`The file could not be written: ${e instanceof Error ? e.message : String(e)}.`),
    );
  const real = rig.devices.filter((d) => d.host === undefined);
  return (
    <div className="scroll common-box" data-place="gear">
      <Group gap={8} className="no-print">
        <Button size="xs" variant="default" onClick={() => void write()}>
          Gear as CSV
        </Button>
        <Button size="xs" variant="default" component={Link} href="/gear">
          Gear locker, all rigs
        </Button>
        <ReadButton
          label="Read gear from CSV …"
          things="gear"
          read={(r, text) => import('../../core/formats').then((f) => f.gearFromCsv(r, text))}
        />
      </Group>
      <p data-gear-sum className="common-gap-5">
        <strong>
          {howMany(sums.devices, 'device')}, {fixed(sums.grams / 1000)} kg
        </strong>
        {sums.unweighed ? ` without ${sums.unweighed} whose weight is not known` : ''}, worth{' '}
        {Math.round(sums.value)};{' '}
        {sums.toBuy.length
          ? `to buy: ${sums.toBuy.map((d) => d.name).join(', ')}`
          : 'nothing marked to buy'}
        .
        {sums.heavy.length
          ? ` Over ${TWO_PERSONS_GRAMS / 1000} kg, two persons lift: ${sums.heavy.map((d) => d.name).join(', ')}.`
          : ''}
      </p>
      <table className="sheet-table figures" data-table="gear">
        <thead>
          <tr>
            <th>Device</th>
            <th>Serial number</th>
            <th>Owner</th>
            <th>Owned</th>
            <th>Weight, g</th>
            <th>Value</th>
          </tr>
        </thead>
        <tbody>
          {real.map((d) => (
            <GearRow key={d.id} device={d} />
          ))}
        </tbody>
      </table>
      <p className="faint common-text-2">
        Weights in grey are usual for the kind, not of this unit.
      </p>
    </div>
  );
}

function GearRow({ device }: { device: Device }) {
  const edit = useRig((s) => s.edit);
  const gear = device.gear ?? {};
  const set = (change: Partial<NonNullable<Device['gear']>>) =>
    edit({ edit: 'setDevice', device: device.id, gear: { ...gear, ...change } });
  const text = (key: 'serial' | 'owner', label: string) => (
    <CommitText
      w={150}
      aria-label={`${label} of ${device.name}`}
      value={gear[key]}
      onCommit={(v) => set({ [key]: v })}
    />
  );
  const number = (key: 'grams' | 'value', label: string, usual: number | null) => (
    <CommitNumber
      w={100}
      aria-label={`${label} of ${device.name}`}
      min={0}
      max={key === 'grams' ? 1e6 : 1e9}
      placeholder={usual === null ? '' : String(usual)}
      value={gear[key]}
      onCommit={(v) => set({ [key]: v })}
    />
  );
  return (
    <tr data-gear={device.id}>
      <td>
        <strong>{device.name}</strong>
        <div className="faint common-text">
          {[kindOf(device.kind).name, device.maker, device.model].filter(Boolean).join(', ')}
        </div>
      </td>
      <td>{text('serial', 'Serial number')}</td>
      <td>{text('owner', 'Owner')}</td>
      <td>
        <Checkbox
          size="xs"
          aria-label={`${device.name} is owned`}
          checked={gear.owned ?? false}
          indeterminate={gear.owned === undefined}
          onChange={(e) => set({ owned: e.currentTarget.checked })}
        />
      </td>
      <td>{number('grams', 'Weight', gramsOf(device))}</td>
      <td>{number('value', 'Value', null)}</td>
    </tr>
  );
}

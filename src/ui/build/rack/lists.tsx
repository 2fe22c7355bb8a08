'use client';
import { sure } from '../../../core/outcome';
import { Button, Checkbox, Group } from '@mantine/core';
import { type Dispatch, type SetStateAction } from 'react';
import { unitsOf } from '../../../core/build';
import type { Mounted, RackClash } from '../../../core/build/rack';
import type { Outcome } from '../../../core/outcome';
import { type Device, type Rack, type Rig } from '../../../core/rig';
import { CommitNumber } from '../../look/commit-number';
import { useRig } from '../../store/use-rig';

/** Devices that could go into the rack and are nowhere yet. */
export function NotMounted({
  loose,
  mount,
}: {
  loose: Device[];
  mount: (d: Device) => Outcome<Rig>;
}) {
  return (
    <section data-tray>
      <h3 className="common-gap-4">Not mounted yet</h3>
      {loose.map((d) => (
        <Group key={d.id} gap={6} my={2} wrap="nowrap">
          <span className="tape tray-box">{d.name}</span>
          <span className="faint tray-text">
            {unitsOf(d).units} U{unitsOf(d).shelf ? ', shelf' : ''}
          </span>
          <Button
            size="compact-xs"
            variant="default"
            aria-label={`Mount ${d.name}`}
            onClick={() => mount(d)}
          >
            Mount
          </Button>
        </Group>
      ))}
    </section>
  );
}

/** What is in the way of what, each with how much. */
export function ToPutRight({
  clashes,
  select,
}: {
  clashes: RackClash[];
  select: Dispatch<SetStateAction<string | null>>;
}) {
  return (
    <section data-list="clashes">
      <h3 className="common-gap-4">To put right</h3>
      {clashes.map((c, i) => (
        <button key={i} type="button" className="clash" onClick={() => select(c.a.device.id)}>
          <strong>{c.a.device.name}</strong>
          {c.b ? ` and ${c.b.device.name}` : ''}:{' '}
          {
            {
              overlap: c.mm ? `together ${Math.ceil(c.mm)} mm too deep` : 'on the same units',
              'too-high': `${Math.ceil(c.mm)} mm over the top`,
              'too-deep': `${Math.ceil(c.mm)} mm too deep`,
              'too-wide': `sticks out by ${Math.ceil(c.mm)} mm`,
              heat: 'no free unit above it to let its heat out',
              access: 'is set by hand and hangs at the rear',
            }[c.what]
          }
        </button>
      ))}
    </section>
  );
}

/** Where the chosen device is mounted, and how much room it takes. */
export function MountedPanel({
  picked,
  list,
  rack,
  put,
  select,
}: {
  picked: Device;
  list: Mounted[];
  rack: Rack;
  put: (d: Device, change: Partial<NonNullable<Device['rack']>>) => Outcome<Rig>;
  select: Dispatch<SetStateAction<string | null>>;
}) {
  const edit = useRig((s) => s.edit);
  return (
    <section data-item-panel={picked.id}>
      <h3 className="common-gap">{picked.name}</h3>
      <p className="figures item-panel-text">
        {unitsOf(picked).units} U{unitsOf(picked).shelf ? ' on a shelf' : ''}, reaches{' '}
        {list.find((m) => m.device.id === picked.id)?.inside ?? '–'} mm into {rack.depth} mm with
        its plugs.
      </p>
      <Group gap={8} align="end">
        <CommitNumber
          w={90}
          label="Lowest unit"
          min={1}
          max={60}
          value={sure(picked.rack).unit}
          onCommit={(v) => v !== undefined && put(picked, { unit: Math.round(v) })}
        />
        <CommitNumber
          w={80}
          label="Units"
          min={1}
          max={30}
          value={unitsOf(picked).units}
          onCommit={(v) =>
            v !== undefined && edit({ edit: 'setDevice', device: picked.id, units: Math.round(v) })
          }
        />
        {unitsOf(picked).shelf && (
          <CommitNumber
            w={100}
            label="From left, mm"
            min={0}
            max={450}
            value={sure(picked.rack).x ?? 0}
            onCommit={(x) => put(picked, { x: x ?? 0 })}
          />
        )}
      </Group>
      <Group gap={10} my={6}>
        <Checkbox
          size="xs"
          label="On the rear rails"
          checked={sure(picked.rack).rear ?? false}
          onChange={(e) => put(picked, { rear: e.currentTarget.checked })}
        />
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            edit({ edit: 'placeInRack', device: picked.id, rack: null });
            select(null);
          }}
        >
          Take out
        </Button>
      </Group>
    </section>
  );
}

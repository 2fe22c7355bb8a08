'use client';
import { Button, Checkbox, Group, Select } from '@mantine/core';
import { type Dispatch, type KeyboardEvent, type SetStateAction, useMemo, useState } from 'react';
import {
  draggedPlace,
  freeRackPlace,
  mountedIn,
  panelPlan,
  rackClashes,
  rackSums,
  sizeOf,
  TWO_PERSONS_GRAMS,
  UNIT_MM,
  unitsOf,
} from '../../core/build';
import type { Mounted, RackClash, RackSums } from '../../core/build/rack';
import { rackSvg } from '../../core/formats';
import type { Outcome } from '../../core/outcome';
import {
  type Device,
  endWords,
  freshId,
  jackOf,
  leadOf,
  type Rack,
  type Rig,
} from '../../core/rig';
import { fixed } from '../../core/units';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';
import { DrawingFiles } from './drawing-files';
import { DrawnPlan } from './drawn-plan';
import { CommitText } from '../look/commit-text';

/**
 * The rack from the front and the rear, what it weighs, where that sits, what heats it, and what is
 * plugged into its panels.
 */
export function RackView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [chosen, setChosen] = useState<string | null>(null);
  const rack = rig.racks?.find((r) => r.id === chosen) ?? rig.racks?.[0];
  const add = () => {
    const id = freshId(
      'rack',
      [...(rig.boards ?? []), ...(rig.racks ?? []), ...rig.devices].map((x) => x.id),
    );
    if (
      edit({
        edit: 'addRack',
        rack: {
          id,
          name: rig.racks?.length ? `Rack ${rig.racks.length + 1}` : 'Rack',
          units: 8,
          depth: 450,
          grams: 8000,
        },
      }).ok
    )
      setChosen(id);
  };
  if (!rack)
    return (
      <div className="empty common-gap-2">
        There is no rack yet. Add one, say how many units it has and how deep it is inside, then
        mount what goes into it.{' '}
        <div className="common-gap-3">
          <Button size="xs" onClick={add}>
            Add a rack
          </Button>
        </div>
      </div>
    );
  return <Inside key={rack.id} rig={rig} rack={rack} onAdd={add} onRack={setChosen} />;
}

function Inside({
  rig,
  rack,
  onAdd,
  onRack,
}: {
  rig: Rig;
  rack: Rack;
  onAdd: () => void;
  onRack: (id: string | null) => void;
}) {
  const edit = useRig((s) => s.edit);
  const [selected, select] = useState<string | null>(null);
  const list = mountedIn(rig, rack);
  const sums = rackSums(rig, rack);
  const clashes = rackClashes(rig, rack);
  const svg = useMemo(() => rackSvg(rig, rack, { selected }), [rig, rack, selected]);
  const picked = rig.devices.find((d) => d.id === selected && d.rack?.rack === rack.id);
  const loose = rig.devices.filter(
    (d) =>
      d.host === undefined &&
      !d.at &&
      !d.rack &&
      sizeOf(d) &&
      (d.place === 'rack' || d.units !== undefined || !unitsOf(d).shelf),
  );
  const put = (d: Device, change: Partial<NonNullable<Device['rack']>>) =>
    edit({
      edit: 'placeInRack',
      device: d.id,
      rack: { rack: rack.id, unit: 1, ...d.rack, ...change },
    });
  const mount = (d: Device) => put(d, freeRackPlace(rig, rack, d));
  const onKey = (e: KeyboardEvent) => {
    if (!picked || e.ctrlKey || e.metaKey || e.altKey) return;
    const at = picked.rack!;
    if (e.key === 'ArrowUp') put(picked, { unit: Math.min(60, at.unit + 1) });
    else if (e.key === 'ArrowDown') put(picked, { unit: Math.max(1, at.unit - 1) });
    else if (e.key === 'ArrowLeft') put(picked, { x: Math.max(0, (at.x ?? 0) - 5) });
    else if (e.key === 'ArrowRight') put(picked, { x: Math.min(500, (at.x ?? 0) + 5) });
    else if (e.key === 'Delete' || e.key === 'Backspace') {
      edit({ edit: 'placeInRack', device: picked.id, rack: null });
      select(null);
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div className="board" data-place="rack">
      <div className="board-main">
        <RackHead rig={rig} rack={rack} onRack={onRack} onAdd={onAdd} sums={sums} />
        <DrawnPlan
          svg={svg}
          label={
            `${rack.name}, front and rear. Arrows move what is chosen by a unit or by 5 mm on ` +
            'its shelf, Delete takes it out.'
          }
          onPick={select}
          onKey={onKey}
          onDrag={(id, dx, dy, done) => {
            const d = rig.devices.find((x) => x.id === id);
            const place = d && done && draggedPlace(d, dx, dy);
            if (place) put(d, place);
          }}
        />
      </div>
      <aside className="board-side scroll">
        {picked ? (
          <MountedPanel picked={picked} list={list} rack={rack} put={put} select={select} />
        ) : (
          <RackPanel key={rack.id} rack={rack} onGone={() => onRack(null)} />
        )}
        {clashes.length > 0 && <ToPutRight clashes={clashes} select={select} />}
        {loose.length > 0 && <NotMounted loose={loose} mount={mount} />}
        <Panels rig={rig} />
        <p className="faint common-text-2">
          A unit is 44.45 mm. Boxes without ears stand on a shelf, 450 mm between the rails. Heat is
          all that is drawn from the mains; the case’s own weight sits in its middle. Over about 23
          kg two persons lift.
        </p>
      </aside>
    </div>
  );
}

/** Devices that could go into the rack and are nowhere yet. */
function NotMounted({ loose, mount }: { loose: Device[]; mount: (d: Device) => Outcome<Rig> }) {
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
function ToPutRight({
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
function MountedPanel({
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
          value={picked.rack!.unit}
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
            value={picked.rack!.x ?? 0}
            onCommit={(x) => put(picked, { x: x ?? 0 })}
          />
        )}
      </Group>
      <Group gap={10} my={6}>
        <Checkbox
          size="xs"
          label="On the rear rails"
          checked={picked.rack!.rear ?? false}
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

/** Which rack, and its sums: weight, units, centre of gravity, heat. */
function RackHead({
  rig,
  rack,
  onRack,
  onAdd,
  sums,
}: {
  rig: Rig;
  rack: Rack;
  onRack: (id: string | null) => void;
  onAdd: () => void;
  sums: RackSums;
}) {
  return (
    <Group gap={8} px={14} pb={6} align="end">
      {(rig.racks ?? []).length > 1 && (
        <Select
          size="xs"
          w={170}
          aria-label="Rack"
          allowDeselect={false}
          value={rack.id}
          data={(rig.racks ?? []).map((r) => ({ value: r.id, label: r.name }))}
          onChange={onRack}
        />
      )}
      <Button size="xs" variant="default" onClick={onAdd}>
        Add a rack
      </Button>
      <span className="figures small-print" data-rack-sum>
        <strong>{fixed(sums.grams / 1000)} kg</strong>
        {sums.unweighed ? ` without ${sums.unweighed} not weighed` : ''}
        {sums.grams > TWO_PERSONS_GRAMS ? ', two persons lift' : ''}; {sums.used} of {rack.units} U;
        centre of gravity{' '}
        {sums.centreMm === null
          ? 'not known'
          : `${Math.round(sums.centreMm)} mm up of ${Math.round(rack.units * UNIT_MM)}`}
        ; {Math.round(sums.watts)} W of heat
      </span>
      <DrawingFiles name={`${rig.id}-${rack.id}`} svg={() => rackSvg(rig, rack)} />
    </Group>
  );
}

function RackPanel({ rack, onGone }: { rack: Rack; onGone: () => void }) {
  const edit = useRig((s) => s.edit);
  const set = (change: Partial<Rack>) => edit({ edit: 'setRack', rack: { ...rack, ...change } });
  const number = (
    label: string,
    value: number | undefined,
    most: number,
    commit: (v: number) => void,
  ) => (
    <CommitNumber
      w={92}
      label={label}
      min={1}
      max={most}
      value={value}
      onCommit={(v) => v !== undefined && commit(v)}
    />
  );
  return (
    <section>
      <Group justify="space-between" align="end">
        <CommitText
          w={180}
          label="Rack"
          needed
          value={rack.name}
          onCommit={(name) => set({ name })}
        />
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            if (edit({ edit: 'removeRack', rack: rack.id }).ok) onGone();
          }}
        >
          Remove
        </Button>
      </Group>
      <Group gap={6} mt={4} align="end">
        {number('Units', rack.units, 60, (units) => set({ units: Math.round(units) }))}
        {number('Deep, mm', rack.depth, 1500, (depth) => set({ depth }))}
        {number('Empty, g', rack.grams, 1e6, (grams) => set({ grams }))}
      </Group>
      <Checkbox
        size="xs"
        mt={6}
        label="It has wheels"
        checked={rack.wheels ?? false}
        onChange={(e) => set({ wheels: e.currentTarget.checked })}
      />
    </section>
  );
}

/** What is plugged into each line of each panel, inside and outside. */
function Panels({ rig }: { rig: Rig }) {
  const plan = panelPlan(rig);
  if (!plan.length) return null;
  const other = (id: string | undefined, panel: string) => {
    const lead = id === undefined ? undefined : leadOf(rig, id);
    return lead ? endWords(rig, lead.from.device === panel ? lead.to : lead.from) : 'free';
  };
  return (
    <section>
      <h3 className="common-gap-4">Panels</h3>
      <table className="sheet-table figures common-text-2" data-table="panels">
        <thead>
          <tr>
            <th>Line</th>
            <th>Inside</th>
            <th>Outside</th>
          </tr>
        </thead>
        <tbody>
          {plan.map((l) => (
            <tr key={`${l.panel.id} ${l.outside}`}>
              <td>
                {l.panel.name}, {jackOf(l.panel, l.outside)?.label.replace(', outside', '')}
              </td>
              <td>{other(l.insideLead, l.panel.id)}</td>
              <td>{other(l.outsideLead, l.panel.id)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

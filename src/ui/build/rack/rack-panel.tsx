'use client';
import { Button, Checkbox, Group, Select } from '@mantine/core';
import { panelPlan, TWO_PERSONS_GRAMS, UNIT_MM } from '../../../core/build';
import type { RackSums } from '../../../core/build/rack';
import { rackSvg } from '../../../core/formats';
import { endWords, jackOf, leadOf, type Rack, type Rig } from '../../../core/rig';
import { fixed } from '../../../core/units';
import { CommitNumber } from '../../look/commit-number';
import { useRig } from '../../store/use-rig';
import { DrawingFiles } from '../drawing-files';
import { CommitText } from '../../look/commit-text';

/** Which rack, and its sums: weight, units, centre of gravity, heat. */
export function RackHead({
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
          searchable
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

export function RackPanel({ rack, onGone }: { rack: Rack; onGone: () => void }) {
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
export function Panels({ rig }: { rig: Rig }) {
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

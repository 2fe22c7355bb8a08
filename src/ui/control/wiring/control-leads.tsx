import { Group, Select } from '@mantine/core';
import { type Jack, kindOf } from '../../../core/kinds';
import { sure } from '../../../core/outcome';
import { settingOf } from '../../../core/rig/device-state';
import { deviceOf, jackOf } from '../../../core/rig/find';
import type { Expects } from '../../../core/rig/midi-schema';
import type { Lead } from '../../../core/rig/schema';
import { useDocument, useRig } from '../../store/use-rig';

/** Pedals and switches by the jack that reads them: how each is made, and what the jack expects. */
export function ControlLeads() {
  const rig = useDocument();
  const leads = rig.leads.filter((l) => l.type === 'control');
  if (!leads.length) return null;
  return (
    <>
      <h3>Pedals and switches on leads</h3>
      <table className="sheet-table figures" data-table="control-leads">
        <thead>
          <tr>
            <th>Pedal or switch</th>
            <th>Is made so</th>
            <th>Goes into</th>
            <th>Which expects</th>
          </tr>
        </thead>
        <tbody>
          {leads.map((l) => (
            <ControlLeadRow key={l.id} lead={l} />
          ))}
        </tbody>
      </table>
    </>
  );
}

function ControlLeadRow({ lead: l }: { lead: Lead }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [from, to] = [sure(deviceOf(rig, l.from.device)), sure(deviceOf(rig, l.to.device))];
  const jack = jackOf(to, l.to.jack);
  const expects = to.expects?.[l.to.jack];
  const reads = jack?.reads && { ...jack.reads, ...expects };
  const set = (change: Expects) =>
    edit({
      edit: 'setExpects',
      device: to.id,
      jack: l.to.jack,
      expects: { ...expects, ...change },
    });
  const made = kindOf(from.kind).parameters.filter(
    (p) => p.role === 'wiper' || p.role === 'action' || p.role === 'contact',
  );
  return (
    <tr data-control-lead={l.id}>
      <td>
        <strong>{from.name}</strong>
      </td>
      <td>
        <Group gap={6}>
          {made.map(
            (p) =>
              p.type === 'choice' && (
                <Select
                  key={p.id}
                  size="xs"
                  w={112}
                  aria-label={`${p.label} of ${from.name}`}
                  data={p.options}
                  value={String(settingOf(kindOf(from.kind), from, undefined, p.id))}
                  allowDeselect={false}
                  onChange={(v) =>
                    v && edit({ edit: 'setSetting', device: from.id, setting: p.id, value: v })
                  }
                />
              ),
          )}
        </Group>
      </td>
      <td>
        {to.name}, {jack?.label}
      </td>
      <td>
        <Group gap={6}>
          <ReadsFields name={to.name} reads={reads} onChange={set} />
        </Group>
      </td>
    </tr>
  );
}

/** What a jack expects of a pedal, or of a switch. */
function ReadsFields({
  name,
  reads,
  onChange: set,
}: {
  name: string;
  reads: (Jack['reads'] & Expects) | undefined;
  onChange: (change: Expects) => void;
}) {
  if (!reads) return null;
  return reads.what === 'expression' ? (
    <Select
      size="xs"
      w={130}
      aria-label={`Wiper that ${name} expects`}
      data={[
        { value: 'tip', label: 'wiper on the tip' },
        { value: 'ring', label: 'wiper on the ring' },
      ]}
      value={reads.wiper ?? null}
      onChange={(v) => v && set({ wiper: v })}
    />
  ) : (
    <>
      <Select
        size="xs"
        w={130}
        aria-label={`Contacts that ${name} reads`}
        data={[
          { value: '1', label: 'one contact' },
          { value: '2', label: 'two contacts' },
        ]}
        value={String(reads.contacts ?? 1)}
        allowDeselect={false}
        onChange={(v) => v && set({ contacts: v === '2' ? 2 : 1 })}
      />
      <Select
        size="xs"
        w={120}
        aria-label={`Action that ${name} expects`}
        data={['momentary', 'latching', 'any']}
        value={reads.action ?? 'any'}
        allowDeselect={false}
        onChange={(v) => v && set({ action: v })}
      />
      <Select
        size="xs"
        w={130}
        aria-label={`Contact that ${name} expects`}
        data={[
          { value: 'open', label: 'open at rest' },
          { value: 'closed', label: 'closed at rest' },
          { value: 'any', label: 'either' },
        ]}
        value={reads.contact ?? 'any'}
        allowDeselect={false}
        onChange={(v) => v && set({ contact: v })}
      />
    </>
  );
}

'use client';
import { Button, Select } from '@mantine/core';
import { useState } from 'react';
import { kindOf } from '../../core/kinds';
import { endWords, freshId, leadFrom, leadInto, type Rig } from '../../core/rig';
import { showLength } from '../../core/units';
import { useDocument, useRig } from '../store/use-rig';
import { LEAD_TAGS } from './geometry';

/** Every lead of the rig, whatever the sound, and every jack that holds none. */
export function WiringList() {
  const rig = useDocument();
  const units = useRig((s) => s.units);
  const selection = useRig((s) => s.selection);
  const select = useRig((s) => s.select);
  return (
    <>
      <h2>Wiring</h2>
      <div className="faint" style={{ fontSize: 12 }}>{rig.leads.length} leads, {showLength(rig.leads.reduce((s, l) => s + l.metres, 0), units.length)} in all</div>
      <table className="sheet-table" style={{ fontSize: 12 }}>
        <thead><tr><th>From</th><th>To</th><th>Lead</th></tr></thead>
        <tbody>
          {rig.leads.map((l) => (
            <tr key={l.id} data-click data-wire={l.id} aria-current={selection?.kind === 'lead' && selection.id === l.id} tabIndex={0} onClick={() => select({ kind: 'lead', id: l.id })} onKeyDown={(e) => e.key === 'Enter' && select({ kind: 'lead', id: l.id })}>
              <td>{endWords(rig, l.from)}</td><td>{endWords(rig, l.to)}</td><td className="figures" style={{ whiteSpace: 'nowrap' }}>{LEAD_TAGS[l.type]} {showLength(l.metres, units.length)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <ConnectForm rig={rig} />
    </>
  );
}

function ConnectForm({ rig }: { rig: Rig }) {
  const edit = useRig((s) => s.edit);
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState<string | null>(null);
  const free = (direction: 'in' | 'out') =>
    rig.devices.map((d) => ({
      group: d.name === '' ? d.id : `${d.name} (${d.id})`,
      items: kindOf(d.kind).jacks.filter((j) => j.direction === direction && (j.many || !(direction === 'in' ? leadInto(rig, d.id, j.id) : leadFrom(rig, d.id, j.id)))).map((j) => ({ value: `${d.id} ${j.id}`, label: `${d.name}, ${j.label}` })),
    })).filter((g) => g.items.length > 0);
  const connect = () => {
    if (!from || !to) return;
    const end = (text: string) => ({ device: text.split(' ')[0]!, jack: text.split(' ')[1]! });
    const device = rig.devices.find((d) => d.id === end(from).device)!;
    const signal = kindOf(device.kind).jacks.find((j) => j.id === end(from).jack)?.signal;
    const done = edit({ edit: 'connect', lead: { id: freshId('lead', rig.leads.map((l) => l.id)), from: end(from), to: end(to), type: signal === 'speaker' ? 'speaker' : signal === 'air' ? 'air' : 'instrument', metres: signal === 'air' ? 0.1 : 0.5 } });
    if (done.ok) [setFrom, setTo].forEach((f) => f(null));
  };
  return (
    <>
      <h3>Connect free jacks</h3>
      <Select size="xs" searchable clearable label="From an output" placeholder="choose" data={free('out')} value={from} onChange={setFrom} />
      <Select size="xs" searchable clearable label="To an input" placeholder="choose" data={free('in')} value={to} onChange={setTo} />
      <Button mt={6} size="compact-sm" disabled={!from || !to} onClick={connect}>Connect</Button>
    </>
  );
}

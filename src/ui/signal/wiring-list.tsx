'use client';
import { at, sure } from '../../core/outcome';
import { Button, Select } from '@mantine/core';
import { useState } from 'react';
import type { Jack } from '../../core/kinds';
import { endWords, freeJacks, joiningLead, nameOf, placeOf, type Rig } from '../../core/rig';
import { fixed, howMany, showLength } from '../../core/units';
import { useDocument, useRig } from '../store/use-rig';
import { connectionOrder, countLeads } from '../../core/analysis';
import { cutList } from '../../core/build';
import { LEAD_TAGS } from '../../core/draw';

/** Every lead of the rig, whatever the sound, and every jack that holds none. */
export function WiringList() {
  const rig = useDocument();
  const units = useRig((s) => s.units);
  const selection = useRig((s) => s.selection);
  const select = useRig((s) => s.select);
  return (
    <>
      <h2>Wiring</h2>
      <LeadCount />
      <table className="sheet-table common-text-2">
        <thead>
          <tr>
            <th>From</th>
            <th>To</th>
            <th>Lead</th>
          </tr>
        </thead>
        <tbody>
          {rig.leads
            .filter((l) => l.type !== 'inside')
            .map((l) => (
              <tr
                key={l.id}
                data-click
                data-wire={l.id}
                aria-current={selection?.kind === 'lead' && selection.id === l.id}
                tabIndex={0}
                onClick={() => select({ kind: 'lead', id: l.id })}
                onKeyDown={(e) => e.key === 'Enter' && select({ kind: 'lead', id: l.id })}
              >
                <td>{endWords(rig, l.from)}</td>
                <td>{endWords(rig, l.to)}</td>
                <td className="figures one-line">
                  {LEAD_TAGS[l.type]} {showLength(l.metres, units.length)}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      <InsideLinks />
      <ConnectForm rig={rig} />
      <SafeOrder />
    </>
  );
}

/** Joins two free jacks; `only` limits which are offered. */
export function ConnectForm({
  rig,
  only = () => true,
}: {
  rig: Rig;
  only?: (jack: Jack) => boolean;
}) {
  const edit = useRig((s) => s.edit);
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState<string | null>(null);
  const end = (text: string) => ({ device: at(text.split(' '), 0), jack: at(text.split(' '), 1) });
  const offered = (direction: 'in' | 'out', other: string | null) =>
    freeJacks(rig, direction, other === null ? null : placeOf(rig, end(other)), only).map(
      ({ device: d, jacks }) => ({
        group: `${d.name || d.id}${d.host === undefined ? '' : `, in ${nameOf(rig, d.host)}`} (${d.id})`,
        items: jacks.map((j) => ({ value: `${d.id} ${j.id}`, label: `${d.name}, ${j.label}` })),
      }),
    );
  const connect = () => {
    if (!from || !to) return;
    const done = edit({ edit: 'connect', lead: joiningLead(rig, end(from), end(to)) });
    if (done.ok) [setFrom, setTo].forEach((f) => f(null));
  };
  return (
    <>
      <h3>Connect free jacks</h3>
      <Select
        size="xs"
        searchable
        clearable
        label="From an output"
        placeholder="choose"
        data={offered('out', to)}
        value={from}
        onChange={setFrom}
      />
      <Select
        size="xs"
        searchable
        clearable
        label="To an input"
        placeholder="choose"
        data={offered('in', from)}
        value={to}
        onChange={setTo}
      />
      <Button mt={6} size="compact-sm" disabled={!from || !to} onClick={connect}>
        Connect
      </Button>
    </>
  );
}

/**
 * How many leads there are of each type, and about how long making and laying them takes: what is
 * always underestimated.
 */
function LeadCount() {
  const rig = useDocument();
  const units = useRig((s) => s.units);
  const count = countLeads(rig);
  return (
    <div className="faint common-text-2" data-count={count.leads}>
      {howMany(count.leads, 'lead')}, {showLength(count.metres, units.length)} in all:{' '}
      {count.byType.map((t) => `${t.count} ${LEAD_TAGS[t.type]}`).join(', ')}.{' '}
      {howMany(count.plugs, 'plug')}; making and laying them takes about {fixed(cutList(rig).hours)}{' '}
      h, as Build, Leads counts it.
    </div>
  );
}

/** Links inside hosts cost nothing and are listed apart. */
function InsideLinks() {
  const rig = useDocument();
  const selection = useRig((s) => s.selection);
  const select = useRig((s) => s.select);
  const links = rig.leads.filter((l) => l.type === 'inside');
  if (!links.length) return null;
  return (
    <>
      <h3>Links inside hosts</h3>
      <table className="sheet-table common-text-2">
        <tbody>
          {links.map((l) => (
            <tr
              key={l.id}
              data-click
              data-link={l.id}
              aria-current={selection?.kind === 'lead' && selection.id === l.id}
              tabIndex={0}
              onClick={() => select({ kind: 'lead', id: l.id })}
              onKeyDown={(e) => e.key === 'Enter' && select({ kind: 'lead', id: l.id })}
            >
              <td>{endWords(rig, l.from)}</td>
              <td>{endWords(rig, l.to)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** In which order to plug everything in and switch it on. */
function SafeOrder() {
  const rig = useDocument();
  const report = useRig((s) => s.report);
  const select = useRig((s) => s.select);
  if (!rig.leads.length) return null;
  return (
    <details className="safe-order" data-list="safe-order">
      <summary>Safe order of connection</summary>
      <ol>
        {connectionOrder(rig, report.sounds).map((step) => (
          <li key={step.what}>
            <strong>{step.what}</strong>
            <div className="faint">{step.why}</div>
            {step.devices.length > 0 && (
              <div>{step.devices.map((d) => nameOf(rig, d)).join(', ')}</div>
            )}
            {step.leads.map((id) => {
              const l = sure(rig.leads.find((x) => x.id === id));
              return (
                <button
                  key={id}
                  type="button"
                  className="lead-line"
                  onClick={() => select({ kind: 'lead', id })}
                >
                  {endWords(rig, l.from)} to {endWords(rig, l.to)}
                </button>
              );
            })}
          </li>
        ))}
      </ol>
      <p className="faint">
        Usual practice, worked out from this rig. Each amplifier’s manual, local codes and licensed
        practice come first.
      </p>
    </details>
  );
}

'use client';
import { at, sure } from '../../core/outcome';
import { Button, Select } from '@mantine/core';
import { useState } from 'react';
import { type Jack, kindOf } from '../../core/kinds';
import {
  type End,
  endWords,
  freshId,
  insideOf,
  jackOf,
  leadTypeFor,
  nameOf,
  type Rig,
} from '../../core/rig';
import { fixed, showLength } from '../../core/units';
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

/** Whether a jack has a ring beside its tip, so that two branches of an insert lead share it. */
const twoConductors = (rig: Rig, e: End): boolean => {
  const device = rig.devices.find((d) => d.id === e.device);
  const jack = device && jackOf(device, e.jack);
  return jack?.stereo !== undefined || jack?.insert !== undefined;
};

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
  const place = (e: End) => insideOf(rig, e) ?? '';
  const isTaken = (e: End) =>
    place(e) === '' &&
    rig.leads.some(
      (l) =>
        [l.from, l.to].some((x) => x.device === e.device && x.jack === e.jack) &&
        !(
          l.type === 'insert' &&
          rig.leads.filter((o) =>
            [o.from, o.to].some((x) => x.device === e.device && x.jack === e.jack),
          ).length < 2 &&
          twoConductors(rig, e)
        ),
    );
  // Only what is in the same place can be joined: jacks outside, or points and blocks inside one host.
  const free = (direction: 'in' | 'out', within: string | null) =>
    rig.devices
      .map((d) => ({
        group: `${d.name || d.id}${d.host === undefined ? '' : `, in ${nameOf(rig, d.host)}`} (${d.id})`,
        items: kindOf(d.kind)
          .jacks.filter(
            (j) =>
              only(j) &&
              (j.direction === direction || j.direction === 'either') &&
              (j.many || !isTaken({ device: d.id, jack: j.id })) &&
              (within === null || place({ device: d.id, jack: j.id }) === within),
          )
          .map((j) => ({ value: `${d.id} ${j.id}`, label: `${d.name}, ${j.label}` })),
      }))
      .filter((g) => g.items.length > 0);
  const connect = () => {
    if (!from || !to) return;
    const type = leadTypeFor(rig, end(from), end(to));
    // The second branch into a TRS jack takes the ring, where the first has the tip.
    const other =
      type === 'insert' &&
      rig.leads.find(
        (l) =>
          l.type === 'insert' &&
          [l.from, l.to].some((e) => [from, to].includes(`${e.device} ${e.jack}`)),
      );
    const conductor = other
      ? other.conductor === 'ring'
        ? ('tip' as const)
        : ('ring' as const)
      : undefined;
    const done = edit({
      edit: 'connect',
      lead: {
        ...(conductor && { conductor }),
        id: freshId(
          'lead',
          rig.leads.map((l) => l.id),
        ),
        from: end(from),
        to: end(to),
        type,
        metres: type === 'inside' ? 0 : type === 'air' ? 0.1 : 0.5,
      },
    });
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
        data={free('out', to ? place(end(to)) : null)}
        value={from}
        onChange={setFrom}
      />
      <Select
        size="xs"
        searchable
        clearable
        label="To an input"
        placeholder="choose"
        data={free('in', from ? place(end(from)) : null)}
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
      {count.leads} leads, {showLength(count.metres, units.length)} in all:{' '}
      {count.byType.map((t) => `${t.count} ${LEAD_TAGS[t.type]}`).join(', ')}. {count.plugs} plugs;
      making and laying them takes about {fixed(cutList(rig).hours)} h, as Build, Leads counts it.
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

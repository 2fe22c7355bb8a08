'use client';
import { Button, Select } from '@mantine/core';
import { kindOf } from '../../core/kinds';
import { sure } from '../../core/outcome';
import { type Choice, lineOfRig } from '../../core/start';
import { SeverityMark } from '../look/severity';
import { WhatIsHeard } from '../look/what-is-heard';
import type { Proposed } from './use-proposal';
import './start.css';
import { howMany } from '../../core/units';

/** A rig that is proposed: its order, what was decided and why, what is heard where, and what is wrong. */
export function ProposalView({
  proposed,
  busy,
  failed,
  onChange,
  onLine,
}: {
  proposed: Proposed;
  busy: { share: number; words: string } | null;
  failed?: string | undefined;
  /** Another way for one of the decisions. */
  onChange: (id: string, value: string) => void;
  /** The same rig as a line, to be typed on; nothing where that is not offered. */
  onLine?: (line: string) => void;
}) {
  const { rig, report, choices } = proposed;
  const line = onLine && lineOfRig(rig);
  return (
    <div data-whole={proposed.whole}>
      <WalkInWords {...proposed} />
      <p role="status" className="faint start-status">
        {busy
          ? `Working out the rest: ${busy.words}, ${Math.round(busy.share * 100)} % …`
          : failed
            ? `The rest could not be worked out: ${failed}. The wiring stands; levels, power and board are yours.`
            : keptWords(proposed)}
      </p>
      {line?.ok && onLine && (
        <p className="start-line">
          <code>{line.value}</code>{' '}
          <Button size="compact-xs" variant="default" onClick={() => onLine(line.value)}>
            Go on with this line
          </Button>
        </p>
      )}
      <WhatIsHeard report={report} rig={rig} />
      {report.findings.map((f) => (
        <div key={f.key} className="start-finding">
          <SeverityMark severity={f.severity} /> {f.what}
        </div>
      ))}
      {choices.length > 0 && <Decisions choices={choices} onChange={onChange} />}
    </div>
  );
}

/** Everything that signal meets in the first sound, from left to right. */
export function WalkInWords({ rig, report }: Pick<Proposed, 'rig' | 'report'>) {
  const [first] = report.sounds;
  return (
    <ol data-list="proposal" className="start-walk">
      {[...(first?.stations ?? [])]
        .sort((a, b) => a.column - b.column || a.lane - b.lane)
        .map((s) => {
          const device = sure(rig.devices.find((d) => d.id === s.device));
          const at = s.id.split(':')[1];
          const jack = at && kindOf(device.kind).jacks.find((j) => j.id === at)?.label;
          return (
            <li key={s.id}>
              {device.name}
              {at ? `, by its ${jack ?? at}` : ''}
            </li>
          );
        })}
    </ol>
  );
}

/** "39 devices, 41 leads; all 9 promises are kept." */
function keptWords({ rig, report }: Proposed): string {
  const broken = report.promises.filter((p) => !p.kept).length;
  const all = report.promises.length;
  const many = all === 2 ? 'both promises are' : `all ${all} promises are`;
  const kept = `; ${all === 1 ? 'its promise is' : many} kept`;
  const told = broken ? `; ${broken} of ${howMany(all, 'promise')} broken` : kept;
  const promises = all ? told : '';
  return `${howMany(rig.devices.length, 'device')}, ${howMany(rig.leads.length, 'lead')}${promises}.`;
}

/** What was decided, each with its reason; what has another way can be changed here. */
function Decisions({
  choices,
  onChange,
}: {
  choices: readonly Choice[];
  onChange: (id: string, value: string) => void;
}) {
  return (
    <table className="sheet-table start-decisions">
      <caption>What was decided</caption>
      <tbody>
        {choices.map((c) => (
          <tr key={c.id} data-choice={c.id}>
            <th scope="row">{c.about}</th>
            <td>
              {c.options.length > 1 ? (
                <Select
                  searchable={false}
                  size="xs"
                  aria-label={c.about}
                  value={c.taken}
                  allowDeselect={false}
                  data={c.options.map(({ value, label }) => ({ value, label }))}
                  onChange={(v) => v && onChange(c.id, v)}
                />
              ) : (
                <strong>{c.options[0]?.label}</strong>
              )}
              <span className="start-why">{c.why}</span>
              {c.options.map(
                (o) =>
                  o.brings && (
                    <span key={o.value} className="start-why faint" data-other={o.value}>
                      Tried, {o.label}: {o.brings.length ? o.brings.join(' ') : 'nothing is worse.'}
                    </span>
                  ),
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

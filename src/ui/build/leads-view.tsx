'use client';
import { Button, Checkbox, Group, MultiSelect, Select } from '@mantine/core';
import {
  type Cut,
  cutList,
  type CutList,
  makingOf,
  PLUG_CLEARANCE,
  plugWords,
} from '../../core/build';
import { LEAD_NAMES, LEAD_TAGS } from '../../core/draw';
import { type Edit, endWords, freshId } from '../../core/rig';
import { fixed, howMany, showLength } from '../../core/units';
import { CommitNumber } from '../look/commit-number';
import { save } from '../look/save-file';
import { useDocument, useRig } from '../store/use-rig';
import { ReadButton } from '../look/read-button';
import { CommitText } from '../look/commit-text';

const FIELDS: {
  key:
    | 'slack'
    | 'loop'
    | 'step'
    | 'perJoint'
    | 'perLead'
    | 'perTie'
    | 'metrePrice'
    | 'plugPrice'
    | 'hourPrice';
  label: string;
  step: number;
  max: number;
}[] = [
  { key: 'slack', label: 'Slack each end, m', step: 0.05, max: 10 },
  { key: 'loop', label: 'Service loop, m', step: 0.05, max: 10 },
  { key: 'step', label: 'Steps of, m', step: 0.05, max: 10 },
  { key: 'perJoint', label: 'Joint, minutes', step: 1, max: 240 },
  { key: 'perLead', label: 'Lead, minutes', step: 1, max: 240 },
  { key: 'perTie', label: 'Tie, minutes', step: 0.5, max: 240 },
  { key: 'metrePrice', label: 'Price a metre', step: 1, max: 10_000 },
  { key: 'plugPrice', label: 'Price a plug', step: 1, max: 10_000 },
  { key: 'hourPrice', label: 'Price an hour', step: 5, max: 100_000 },
];

/**
 * Every lead as it is cut and soldered, with its code and the labels for both ends; stock, plugs,
 * joints and hours.
 */
export function LeadsView() {
  const rig = useDocument();
  const setNotice = useRig((s) => s.setNotice);
  const list = cutList(rig);
  // What is routed is made as it has to be; what was measured then no longer holds.
  const longer = list.cuts
    .filter((c) => c.made && c.routed !== null && Math.abs(c.lead.metres - c.cut) > 0.001)
    .map((c): Edit => ({
      edit: 'setLead',
      lead: c.lead.id,
      metres: Number(c.cut.toFixed(3)),
      ...(c.lead.pF !== undefined && { pF: null }),
    }));
  const write = (what: 'cut' | 'wiring' | 'bill') =>
    import('../../core/formats').then(
      (f) =>
        save(
          `${rig.id}-${what === 'cut' ? 'cut-list' : what}.csv`,
          { cut: f.cutListCsv, wiring: f.wiringToCsv, bill: f.billCsv }[what](rig),
          'text/csv;charset=utf-8',
        ),
      (e: unknown) =>
        setNotice(`The file could not be written: ${e instanceof Error ? e.message : String(e)}.`),
    );
  if (!list.cuts.length)
    return (
      <div className="empty common-gap-2">
        There is nothing to cut: connect jacks under Signal, then every lead stands here.
      </div>
    );
  return (
    <div className="scroll common-box" data-place="leads">
      <MakingFields />
      <LeadFiles longer={longer} write={write} />
      <CutSum list={list} />
      <CutTable list={list} />
      <Looms />
      <p className="faint common-text-2">
        Ways follow Board, Rack and Stage; a lead with an end that stands nowhere has the length
        that was entered. What the lead has, or what was measured of it, is what the tone is worked
        out with. USB and digital links are bought. Soldering needs ventilation and eye protection;
        mains leads are not made here.
      </p>
    </div>
  );
}

/** What leads are made with: allowances, times and prices, and how they are coded. */
function MakingFields() {
  const making = makingOf(useDocument());
  const edit = useRig((s) => s.edit);
  const set = (part: Partial<typeof making>) =>
    edit({ edit: 'setMaking', making: { ...making, ...part } });
  return (
    <Group gap={10} align="end" className="no-print">
      {FIELDS.map((f) => (
        <CommitNumber
          key={f.key}
          w={104}
          label={f.label}
          min={f.key === 'step' ? 0.001 : 0}
          max={f.max}
          step={f.step}
          value={making[f.key]}
          onCommit={(x) => x !== undefined && set({ [f.key]: x })}
        />
      ))}
      <Select
        size="xs"
        w={110}
        label="Codes"
        allowDeselect={false}
        value={making.codes}
        data={[
          { value: 'numbers', label: 'numbers' },
          { value: 'colours', label: 'colours' },
        ]}
        onChange={(v) => v && set({ codes: v })}
      />
    </Group>
  );
}

/** How much there is to make, and what is too short for its way. */
function CutSum({ list }: { list: CutList }) {
  const units = useRig((s) => s.units);
  const short = list.cuts.filter((c) => c.short > 0.001);
  return (
    <p data-cut-sum className="common-gap-5">
      <strong>{howMany(list.cuts.length, 'lead')}</strong>, {howMany(list.joints, 'joint')}, about{' '}
      <strong>{fixed(list.hours)} h</strong>. Stock:{' '}
      {list.stock
        .map((s) => `${LEAD_NAMES[s.type]} ${showLength(s.metres, units.length)}`)
        .join(', ')}
      . Plugs: {list.plugs.map((p) => `${p.count} ${plugWords(p)}`).join(', ')}.
      {short.length > 0 && (
        <strong>
          {' '}
          Too short: {short.map((c) => `${c.code} by ${Math.ceil(c.short * 100)} cm`).join(', ')}.
        </strong>
      )}
    </p>
  );
}

const COLUMNS = [
  ...['Code', 'From', 'To', 'Lead', 'Plugs', 'Has', 'Its way', 'Cut', 'Capacitance'],
  ...['Measured, pF', 'Joints'],
];

function CutTable({ list }: { list: CutList }) {
  return (
    <table className="sheet-table figures" data-table="cuts">
      <thead>
        <tr>
          {COLUMNS.map((c) => (
            <th key={c}>{c}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {list.cuts.map((c) => (
          <CutRow key={c.lead.id} c={c} />
        ))}
      </tbody>
    </table>
  );
}

/** The files of the cut list. */
function LeadFiles({
  longer,
  write,
}: {
  longer: Edit[];
  write: (what: 'cut' | 'wiring' | 'bill') => Promise<void>;
}) {
  const edit = useRig((s) => s.edit);
  return (
    <Group gap={10} mt={8} className="no-print">
      {longer.length > 0 && (
        <Button size="xs" onClick={() => edit(longer, 'gave leads the lengths of their ways')}>
          Take the cut lengths for {longer.length} {longer.length === 1 ? 'lead' : 'leads'}
        </Button>
      )}
      <Button size="xs" variant="default" onClick={() => void write('cut')}>
        Cut list as CSV
      </Button>
      <Button size="xs" variant="default" onClick={() => void write('wiring')}>
        Wiring as CSV
      </Button>
      <ReadButton
        label="Read wiring from CSV …"
        things="wiring"
        read={(r, text) => import('../../core/formats').then((f) => f.wiringFromCsv(r, text))}
      />
      <Button size="xs" variant="default" onClick={() => void write('bill')}>
        Bill as CSV
      </Button>
    </Group>
  );
}

/** One lead to cut: its ends, its length and how that was found, its plugs and its capacitance. */
function CutRow({ c }: { c: Cut }) {
  const rig = useDocument();
  const units = useRig((s) => s.units);
  const edit = useRig((s) => s.edit);
  return (
    <tr data-cut={c.lead.id}>
      <td>
        <span className="display">{c.code}</span>
      </td>
      <td>{endWords(rig, c.lead.from)}</td>
      <td>{endWords(rig, c.lead.to)}</td>
      <td>{LEAD_TAGS[c.lead.type]}</td>
      <td>
        <Group gap={4} wrap="nowrap">
          <Shape cut={c} side="from" />
          <Shape cut={c} side="to" />
        </Group>
      </td>
      <td className="one-line">
        {showLength(c.metres, units.length)}
        {c.short > 0.001 && (
          <div>
            <strong className="sev-word">too short by {Math.ceil(c.short * 100)} cm</strong>
          </div>
        )}
      </td>
      <td>
        {c.routed === null ? (
          <span className="faint">as entered</span>
        ) : (
          <span title={c.how}>
            {showLength(c.routed, units.length)}
            <div className="faint common-text">{c.how}</div>
          </span>
        )}
      </td>
      <td>
        {c.made ? (
          <strong>{showLength(c.cut, units.length)}</strong>
        ) : (
          `bought, ${showLength(c.cut, units.length)}`
        )}
      </td>
      <td>{c.pFNow === null ? '–' : `${Math.round(c.pFNow)} pF`}</td>
      <td>
        {c.pF === null ? (
          '–'
        ) : (
          <CommitNumber
            w={80}
            aria-label={`Measured capacitance of ${c.code}`}
            min={0}
            max={1e6}
            placeholder="–"
            value={c.lead.pF}
            onCommit={(v) => edit({ edit: 'setLead', lead: c.lead.id, pF: v ?? null })}
          />
        )}
      </td>
      <td>{c.joints || '–'}</td>
    </tr>
  );
}

/** One plug of a lead: what it is, and how it leaves its jack. */
function Shape({ cut, side }: { cut: Cut; side: 'from' | 'to' }) {
  const edit = useRig((s) => s.edit);
  const i = side === 'from' ? 0 : 1;
  return (
    <Select
      size="xs"
      w={128}
      aria-label={`Plug of ${cut.code}, ${side === 'from' ? 'start' : 'end'}`}
      allowDeselect={false}
      value={cut.shapes[i]}
      data={Object.keys(PLUG_CLEARANCE).map((value) => ({
        value,
        label: `${cut.plugs[i]} ${value}`,
      }))}
      onChange={(v) =>
        v &&
        edit({
          edit: 'setLead',
          lead: cut.lead.id,
          plugs: { ...cut.lead.plugs, [side]: v },
        })
      }
    />
  );
}

/** Which leads run in one sleeve. */
function Looms() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const list = cutList(rig);
  const looms = rig.looms ?? [];
  const options = list.cuts.map((c) => ({
    value: c.lead.id,
    label: `${c.code} ${endWords(rig, c.lead.from)} to ${endWords(rig, c.lead.to)}`,
  }));
  return (
    <section data-looms>
      <Group gap={10} mt={14}>
        <h3 className="no-margin">Looms and snakes</h3>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() =>
            edit({
              edit: 'addLoom',
              loom: {
                id: freshId(
                  'loom',
                  looms.map((l) => l.id),
                ),
                name: `Loom ${looms.length + 1}`,
                leads: [],
              },
            })
          }
        >
          Add a loom
        </Button>
      </Group>
      {looms.map((l) => (
        <Group key={l.id} gap={8} mt={6} align="start" wrap="nowrap" data-loom={l.id}>
          <CommitText
            w={150}
            aria-label="Name of the loom"
            needed
            value={l.name}
            onCommit={(name = l.name) => edit({ edit: 'setLoom', loom: { ...l, name } })}
          />
          <MultiSelect
            size="xs"
            className="fills"
            searchable
            aria-label={`Leads in ${l.name}`}
            placeholder="leads in one sleeve …"
            data={options}
            value={l.leads.filter((id) => options.some((o) => o.value === id))}
            onChange={(leads) => edit({ edit: 'setLoom', loom: { ...l, leads } })}
          />
          <Checkbox
            size="xs"
            mt={6}
            label="a mains lead runs in it"
            checked={l.mains ?? false}
            onChange={(e) =>
              edit({ edit: 'setLoom', loom: { ...l, mains: e.currentTarget.checked } })
            }
          />
          <Button
            size="compact-xs"
            mt={4}
            variant="default"
            onClick={() => edit({ edit: 'removeLoom', loom: l.id })}
          >
            Undo the loom
          </Button>
        </Group>
      ))}
      {looms.length === 0 && (
        <p className="faint looms-text">
          None. Un-buffered audio beside mains or data in one sleeve is told as a finding.
        </p>
      )}
    </section>
  );
}

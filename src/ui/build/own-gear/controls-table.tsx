'use client';
import { Group, Select } from '@mantine/core';
import { kindOf } from '../../../core/kinds';
import { type Assembly, type BoxControl, withControlOf } from '../../../core/rig';
import { type Curve, CURVES } from '../../../core/units';
import { CommitNumber } from '../../look/commit-number';
import { CommitText } from '../../look/commit-text';
import { TakeOut } from '../../look/take-out';
import type { Change } from './sheet-editor';

type Move = BoxControl['moves'][number];

/** What a person can set on the box, and what each moves inside, between which ends. */
export function ControlsTable({
  sheet,
  onChange,
}: {
  sheet: Assembly;
  onChange: Change<Assembly>;
}) {
  const put = (id: string, next: BoxControl) =>
    onChange({ ...sheet, controls: sheet.controls.map((c) => (c.id === id ? next : c)) });
  const settings = sheet.parts.flatMap((p) => {
    const { alwaysOn, parameters } = kindOf(p.kind);
    const engaged = { id: 'engaged', label: 'engaged', type: 'switch' as const };
    return [...(alwaysOn ? [] : [engaged]), ...parameters].map((x) => ({
      value: `${p.id}/${x.id}`,
      label: `${p.name}: ${x.label}`,
      type: x.type,
    }));
  });
  return (
    <>
      <table className="sheet-table" data-table="box-controls">
        <thead>
          <tr>
            <th>Control</th>
            <th>Moves</th>
            <th />
            <th />
          </tr>
        </thead>
        <tbody>
          {sheet.controls.map((c) => (
            <tr key={c.id} data-box-control={c.id}>
              <td>
                <CommitText
                  w={180}
                  needed
                  maxLength={120}
                  aria-label={`Name of the control ${c.label}`}
                  value={c.label}
                  onCommit={(label = c.label) => put(c.id, { ...c, label })}
                />
                <span className="faint common-text-2">{c.type}</span>
              </td>
              <td>
                {c.moves.map((m, i) => (
                  <MoveRow
                    key={`${m.part} ${m.setting}`}
                    sheet={sheet}
                    control={c}
                    move={m}
                    onChange={(next) =>
                      put(c.id, {
                        ...c,
                        moves: next
                          ? c.moves.map((x, other) => (other === i ? next : x))
                          : c.moves.filter((_, other) => other !== i),
                      })
                    }
                  />
                ))}
              </td>
              <td>
                <Select
                  size="xs"
                  w={150}
                  searchable
                  aria-label={`What else ${c.label} moves`}
                  placeholder="and also …"
                  data={settings.filter(
                    (s) =>
                      s.type === c.type &&
                      !c.moves.some((m) => `${m.part}/${m.setting}` === s.value),
                  )}
                  value={null}
                  onChange={(key) => {
                    const [part = '', setting = ''] = key?.split('/') ?? [];
                    if (key) put(c.id, { ...c, moves: [...c.moves, { part, setting }] });
                  }}
                />
              </td>
              <td>
                <TakeOut
                  what={`Take the control ${c.label} off the box`}
                  onClick={() =>
                    onChange({ ...sheet, controls: sheet.controls.filter((x) => x.id !== c.id) })
                  }
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Select
        size="xs"
        mt={6}
        w={330}
        searchable
        aria-label="Bring out a control"
        placeholder="bring out another control …"
        data={settings.filter(
          (s) =>
            s.type !== 'text' &&
            !s.value.endsWith('/engaged') &&
            !sheet.controls.some((c) => c.moves.some((m) => `${m.part}/${m.setting}` === s.value)),
        )}
        value={null}
        onChange={(key) => {
          const [part = '', setting = ''] = key?.split('/') ?? [];
          if (key) onChange(withControlOf(sheet, part, setting));
        }}
      />
    </>
  );
}

/** One thing that a control moves: from where to where, along which curve; or what a switch sets. */
function MoveRow({
  sheet,
  control,
  move: m,
  onChange,
}: {
  sheet: Assembly;
  control: BoxControl;
  move: Move;
  onChange: (next: Move | null) => void;
}) {
  const part = sheet.parts.find((p) => p.id === m.part);
  const p = part && kindOf(part.kind).parameters.find((x) => x.id === m.setting);
  const label = `${part?.name ?? m.part}: ${m.setting === 'engaged' ? 'engaged' : (p?.label ?? m.setting)}`;
  const what = `${label} by ${control.label}`;
  return (
    <Group gap={6} wrap="nowrap" mb={3}>
      <span className="own-gear-move">{label}</span>
      {control.type === 'knob' && p?.type === 'knob' && (
        <>
          <CommitNumber
            w={74}
            aria-label={`From, ${what}`}
            min={p.min}
            max={p.max}
            value={m.from ?? control.min ?? 0}
            onCommit={(from) => onChange({ ...m, from })}
          />
          <span aria-hidden>to</span>
          <CommitNumber
            w={74}
            aria-label={`To, ${what}`}
            min={p.min}
            max={p.max}
            value={m.to ?? control.max ?? 10}
            onCommit={(to) => onChange({ ...m, to })}
          />
          <Select
            size="xs"
            w={120}
            aria-label={`Curve of ${what}`}
            allowDeselect={false}
            data={[...CURVES]}
            value={m.curve ?? 'linear'}
            onChange={(v) => onChange({ ...m, curve: CURVES.find((c): c is Curve => c === v) })}
          />
        </>
      )}
      {control.type === 'switch' && (
        <Select
          size="xs"
          w={170}
          aria-label={`What ${what} does when on`}
          allowDeselect={false}
          data={[
            { value: 'on', label: 'on with the switch' },
            { value: 'off', label: 'off with the switch' },
          ]}
          value={m.on === false ? 'off' : 'on'}
          onChange={(v) => onChange({ ...m, on: v === 'on', off: v !== 'on' })}
        />
      )}
      {control.moves.length > 1 && (
        <TakeOut
          what={`${control.label} no longer moves ${label}`}
          onClick={() => onChange(null)}
        />
      )}
    </Group>
  );
}

'use client';
import { Checkbox, Group } from '@mantine/core';
import { initialOf, kindOf, type Parameter } from '../../../core/kinds';
import type { ChangedKind } from '../../../core/rig';
import { CommitNumber } from '../../look/commit-number';
import { CommitText } from '../../look/commit-text';
import type { Change } from './sheet-editor';

type Said = NonNullable<ChangedKind['controls']>[number];

/** A list with what is said of one entry put in place, or taken away where nothing is said. */
function withSaid<T extends { id: string }>(list: readonly T[] | undefined, next: T): T[] {
  const others = (list ?? []).filter((x) => x.id !== next.id);
  const says = Object.entries(next).some(([key, value]) => key !== 'id' && value !== undefined);
  return says ? [...others, next] : others;
}

/** The jacks and controls of a kind, each with its own name here, or left out. */
export function ChangesEditor({
  sheet,
  onChange,
}: {
  sheet: ChangedKind;
  onChange: Change<ChangedKind>;
}) {
  const base = kindOf(sheet.base);
  return (
    <>
      <h3>{base.name}, with these names and ends</h3>
      <table className="sheet-table" data-table="changed-controls">
        <thead>
          <tr>
            <th>Control</th>
            <th>Here it is called</th>
            <th>From, to</th>
            <th>It has none; it stands at</th>
          </tr>
        </thead>
        <tbody>
          {base.parameters.map((p) => (
            <ControlRow
              key={p.id}
              parameter={p}
              said={sheet.controls?.find((c) => c.id === p.id) ?? { id: p.id }}
              onChange={(next) => onChange({ ...sheet, controls: withSaid(sheet.controls, next) })}
            />
          ))}
        </tbody>
      </table>
      <table className="sheet-table" data-table="changed-jacks">
        <thead>
          <tr>
            <th>Jack</th>
            <th>Here it is called</th>
            <th>It has none</th>
          </tr>
        </thead>
        <tbody>
          {base.jacks.map((j) => {
            const said = sheet.jacks?.find((x) => x.id === j.id) ?? { id: j.id };
            const put = (next: typeof said) =>
              onChange({ ...sheet, jacks: withSaid(sheet.jacks, next) });
            return (
              <tr key={j.id} data-changed-jack={j.id}>
                <td>{j.label}</td>
                <td>
                  <CommitText
                    w={170}
                    aria-label={`What the jack ${j.label} is called here`}
                    placeholder={j.label}
                    value={said.label}
                    onCommit={(label) => put({ ...said, label })}
                  />
                </td>
                <td>
                  <Checkbox
                    size="xs"
                    aria-label={`It has no jack ${j.label}`}
                    checked={said.leftOut ?? false}
                    onChange={(e) =>
                      put({ ...said, leftOut: e.currentTarget.checked || undefined })
                    }
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

function ControlRow({
  parameter: p,
  said,
  onChange,
}: {
  parameter: Parameter;
  said: Said;
  onChange: (next: Said) => void;
}) {
  return (
    <tr data-changed-control={p.id}>
      <td>{p.label}</td>
      <td>
        <CommitText
          w={170}
          aria-label={`What ${p.label} is called here`}
          placeholder={p.label}
          value={said.label}
          onCommit={(label) => onChange({ ...said, label })}
        />
      </td>
      <td>
        {p.type === 'knob' && (
          <Group gap={4} wrap="nowrap">
            <CommitNumber
              w={74}
              aria-label={`Lowest of ${p.label}`}
              min={p.min}
              max={p.max}
              value={said.min ?? p.min}
              onCommit={(min) => onChange({ ...said, min })}
            />
            <CommitNumber
              w={74}
              aria-label={`Highest of ${p.label}`}
              min={p.min}
              max={p.max}
              value={said.max ?? p.max}
              onCommit={(max) => onChange({ ...said, max })}
            />
          </Group>
        )}
      </td>
      <td>
        <Group gap={6} wrap="nowrap">
          <Checkbox
            size="xs"
            aria-label={`It has no ${p.label}`}
            checked={said.leftOut ?? false}
            onChange={(e) =>
              onChange({
                ...said,
                leftOut: e.currentTarget.checked || undefined,
                at: e.currentTarget.checked ? (said.at ?? initialOf(p)) : undefined,
              })
            }
          />
          {said.leftOut && p.type === 'knob' && (
            <CommitNumber
              w={74}
              aria-label={`Where ${p.label} stands`}
              min={p.min}
              max={p.max}
              value={Number(said.at ?? p.initial)}
              onCommit={(at) => onChange({ ...said, at: at ?? p.initial })}
            />
          )}
          {said.leftOut && p.type === 'switch' && (
            <Checkbox
              size="xs"
              label="on"
              checked={said.at === true}
              onChange={(e) => onChange({ ...said, at: e.currentTarget.checked })}
            />
          )}
        </Group>
      </td>
    </tr>
  );
}

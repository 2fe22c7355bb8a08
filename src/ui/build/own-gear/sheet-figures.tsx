'use client';
import { Select } from '@mantine/core';
import { useState } from 'react';
import { type ChangedKind, kindOfSheet, type Sheet, type SheetFigure } from '../../../core/rig';
import { showFigure } from '../../../core/units';
import { CommitNumber } from '../../look/commit-number';
import type { Change } from './sheet-editor';

const FROM = ['sheet', 'measured', 'typical'] as const;

/** Every figure of the box, with where it came from: a figure that is emptied is the typical one again. */
export function SheetFigures({ sheet, onChange }: { sheet: Sheet; onChange: Change }) {
  const [isOpen, setOpen] = useState(false);
  const { figures } = kindOfSheet(sheet);
  const put = (id: string, said: SheetFigure | undefined) => {
    const { [id]: _was, ...others } = sheet.figures ?? {};
    const next: ChangedKind['figures'] = said ? { ...others, [id]: said } : others;
    onChange({ ...sheet, figures: next });
  };
  return (
    <details open={isOpen} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>
        <strong>Figures</strong>{' '}
        <span className="faint">
          {figures.length}, {Object.keys(sheet.figures ?? {}).length} of them your own
        </span>
      </summary>
      {isOpen && (
        <table className="sheet-table figures" data-table="sheet-figures">
          <thead>
            <tr>
              <th>Figure</th>
              <th>Value</th>
              <th>From</th>
            </tr>
          </thead>
          <tbody>
            {figures.map((f) => {
              const said = sheet.figures?.[f.id];
              return (
                <tr key={f.id} data-sheet-figure={f.id}>
                  <td>
                    {f.label}
                    <div className="faint common-text">
                      {f.reason}; {showFigure(f.unit, f.min)} to {showFigure(f.unit, f.max)}
                    </div>
                  </td>
                  <td>
                    <CommitNumber
                      w={120}
                      aria-label={`${f.label}, ${f.unit || 'ratio'}`}
                      placeholder={String(f.typical)}
                      value={said?.value}
                      onCommit={(value) =>
                        put(
                          f.id,
                          value === undefined ? undefined : { from: 'sheet', ...said, value },
                        )
                      }
                    />
                  </td>
                  <td>
                    {said && (
                      <Select
                        size="xs"
                        w={130}
                        aria-label={`Where ${f.label} comes from`}
                        allowDeselect={false}
                        data={[...FROM]}
                        value={said.from}
                        onChange={(v) => put(f.id, { ...said, ...provenance(v) })}
                      />
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </details>
  );
}

/** Where a figure came from; a measurement has today's date. */
function provenance(from: string | null): Pick<SheetFigure, 'from' | 'on'> {
  const known = FROM.find((f) => f === from) ?? 'sheet';
  return known === 'measured'
    ? { from: known, on: new Date().toISOString().slice(0, 10) }
    : { from: known, on: undefined };
}

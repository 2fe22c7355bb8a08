'use client';
import { useMemo } from 'react';
import type { Sheet } from '../../../core/rig';
import { TypedList } from '../../look/typed-list';

/** Sheets to choose from, by typing. */
export function SheetList({
  sheets,
  onPick,
}: {
  sheets: readonly Sheet[];
  onPick: (sheet: Sheet) => void;
}) {
  const items = useMemo(
    () =>
      sheets.map((sheet) => ({
        sheet,
        id: sheet.id,
        name: `${sheet.name} ${sheet.maker ?? ''}`,
        words: sheet.about ?? '',
        shown: (
          <>
            <strong>{sheet.name}</strong>{' '}
            <span className="common-text-2 faint">
              {[sheet.maker, sheet.about].filter(Boolean).join(': ')}
            </span>
          </>
        ),
      })),
    [sheets],
  );
  return (
    <TypedList
      label="Find a sheet"
      list="Sheets"
      placeholder="Type to find: drive, head, delay …"
      nothing="No sheet is called that. Try a shorter word."
      items={items}
      attribute="data-example"
      onPick={({ sheet }) => onPick(sheet)}
    />
  );
}

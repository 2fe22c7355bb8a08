'use client';
import { useMemo } from 'react';
import { type Kind, KINDS } from '../../../core/kinds';
import type { Sheet } from '../../../core/rig';
import { TypedList } from '../../look/typed-list';

/** Chooses one of the kinds that ship, by typing. */
export function ChooseKind({
  fits,
  onPick,
}: {
  fits: (k: Kind) => boolean;
  onPick: (k: Kind) => void;
}) {
  const items = useMemo(
    () =>
      KINDS.filter(fits).map((kind) => ({
        ...{
          kind,
          id: kind.id,
          name: `${kind.name} ${kind.family} ${kind.job}`,
          words: kind.about,
        },
        shown: (
          <>
            <strong>{kind.name}</strong> <span className="common-text-2 faint">{kind.family}</span>
          </>
        ),
      })),
    [fits],
  );
  return (
    <TypedList
      label="Find a kind"
      list="Kinds"
      placeholder="Type to find: drive, delay, isolated …"
      nothing="No kind is called that. Try a shorter word."
      items={items}
      attribute="data-kind"
      onPick={({ kind }) => onPick(kind)}
    />
  );
}

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
        ...{
          sheet,
          id: sheet.id,
          name: `${sheet.name} ${sheet.maker ?? ''}`,
          words: sheet.about ?? '',
        },
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

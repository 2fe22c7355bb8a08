'use client';
import { Button, Checkbox, Group, Modal, Select } from '@mantine/core';
import { useState } from 'react';
import { KINDS } from '../../core/kinds';
import type { BySound } from '../../core/report';
import { type Difference, isAny } from '../../core/report/difference';
import { checkSheet, type Exchanged, type Sheet } from '../../core/rig';
import type { LockerSheet } from '../../core/rig';
import { askServer, problemText } from '../keep/ask-server';
import type { LockerUnit } from '../../core/rig';
import { type Comes, type Tried, useTried } from './use-tried';
import { howMany } from '../../core/units';

/** What is to be exchanged: what it is, its name, and the rigs in which it stands now. */
export interface Exchanging {
  of: Exchanged;
  name: string;
  rigs: { rig: string; rigName: string; devices: number }[];
}

/** What can take the place of something: sheets and units of the locker, and every shipped kind. */
function candidates(
  sheets: readonly LockerSheet[],
  units: readonly LockerUnit[],
  of: Exchanged,
): { group: string; comes: Comes[] }[] {
  const sheetOf = (id: string | null): Sheet | undefined =>
    sheets.find((s) => s.sheet.id === id && checkSheet(s.sheet).ok)?.sheet;
  const isOther = (s: Sheet) => (of.is === 'sheet' ? s.id !== of.id : true) && checkSheet(s).ok;
  return [
    {
      group: 'Sheets',
      comes: sheets.flatMap(({ sheet }): Comes[] =>
        isOther(sheet) ? [{ is: 'sheet', id: sheet.id, name: sheet.name, sheet }] : [],
      ),
    },
    {
      group: 'Units',
      comes: units.flatMap((unit): Comes[] => {
        if (of.is === 'unit' && unit.serial === of.serial) return [];
        const busy = unit.uses.filter((u) => !u.archived).map((u) => u.rigName);
        const name = `${unit.name}, ${unit.serial}${busy.length ? ` (in ${busy.join(', ')})` : ''}`;
        return [{ is: 'unit', id: unit.serial, name, unit, sheet: sheetOf(unit.sheet) }];
      }),
    },
    {
      group: 'As it ships',
      comes: KINDS.map((k): Comes => ({ is: 'kind', id: k.id, name: k.name, sheet: undefined })),
    },
  ];
}

const keyOf = (c: Comes) => `${c.is} ${c.id}`;

/** Something else in the place of a sheet or a unit, in every rig that has it: tried in each before it is done. */
export function Substitute({
  what,
  sheets,
  units,
  onClose,
  onDone,
}: {
  what: Exchanging;
  sheets: readonly LockerSheet[];
  units: readonly LockerUnit[];
  onClose: () => void;
  /** What was done, in words. */
  onDone: (words: string) => void;
}) {
  const [comes, setComes] = useState<Comes | null>(null);
  const [left, setLeft] = useState<readonly string[]>([]);
  const tried = useTried(what, comes);
  const groups = candidates(sheets, units, what.of);
  const chosen = what.rigs.filter((r) => !left.includes(r.rig) && tried[r.rig]?.is === 'tried');
  return (
    <Modal opened onClose={onClose} size="xl" title={`Another in the place of ${what.name}`}>
      <Select
        size="xs"
        searchable
        limit={60}
        label="What takes its place"
        data={groups.map((g) => ({
          group: g.group,
          items: g.comes.map((c) => ({ value: keyOf(c), label: c.name })),
        }))}
        value={comes && keyOf(comes)}
        onChange={(key) =>
          setComes(groups.flatMap((g) => g.comes).find((c) => keyOf(c) === key) ?? null)
        }
      />
      {what.rigs.length === 0 && <p>No rig that is not archived uses it.</p>}
      {comes &&
        what.rigs.map((r) => (
          <div key={r.rig} data-exchange={r.rig} className="exchange-row">
            <Checkbox
              size="xs"
              label={`${r.rigName}: ${r.devices}`}
              checked={!left.includes(r.rig)}
              onChange={(e) =>
                setLeft(
                  e.currentTarget.checked ? left.filter((x) => x !== r.rig) : [...left, r.rig],
                )
              }
            />
            <TriedWords tried={tried[r.rig]} />
          </div>
        ))}
      <Group mt={12}>
        <Button
          size="xs"
          disabled={!chosen.length}
          onClick={() => comes && void exchange(what, comes, chosen, tried).then(onDone)}
        >
          Exchange it in {chosen.length} {chosen.length === 1 ? 'rig' : 'rigs'}
        </Button>
        <Button size="xs" variant="default" onClick={onClose}>
          Leave everything as it is
        </Button>
      </Group>
    </Modal>
  );
}

/** Makes the exchange in every chosen rig, as it was tried there; what came of it, in words. */
async function exchange(
  what: Exchanging,
  comes: Comes,
  rigs: readonly Exchanging['rigs'][number][],
  tried: Readonly<Record<string, Tried>>,
): Promise<string> {
  const failed: string[] = [];
  const by =
    comes.is === 'sheet'
      ? { is: 'sheet', id: comes.id }
      : comes.is === 'unit'
        ? { is: 'unit', serial: comes.id }
        : { is: 'kind', kind: comes.id };
  for (const r of rigs) {
    const now = tried[r.rig];
    if (now?.is !== 'tried') continue;
    const body = { of: what.of, by, tried: now.identity, says: now.says };
    const reply = await askServer(`/api/rigs/${r.rig}/substitute`, 'POST', body);
    if (!reply.ok) failed.push(`${r.rigName}: ${problemText(reply.problem)}`);
  }
  return [
    `${comes.name} stands in the place of ${what.name} in ${rigs.length - failed.length} of ` +
      `${howMany(rigs.length, 'rig')}; each has it as a revision of its own.`,
    ...failed,
  ].join(' ');
}

/** What stands before each sort of difference, and whether it speaks against the exchange. */
const MARKS: readonly [Exclude<keyof Difference, 'otherwise'>, boolean][] = [
  ['lost', true],
  ['worse', true],
  ['gained', false],
  ['better', false],
];

/** What came of the exchange on a copy: what is lost and gained everywhere, and in each sound. */
function TriedWords({ tried }: { tried: Tried | undefined }) {
  if (!tried || tried.is === 'trying') return <p className="faint">Tried on a copy …</p>;
  if (tried.is === 'not') return <p>It could not be tried: {tried.why}</p>;
  const { everywhere, sounds } = tried.outcome;
  const shown = [{ name: 'In the rig', ...everywhere }, ...joined(sounds)].filter(isAny);
  if (!shown.length)
    return (
      <ul className="exchange-words">
        <li>Nothing is lost, and nothing is heard otherwise.</li>
      </ul>
    );
  return shown.map((d) => (
    <div key={d.name} data-exchange-sound={d.name}>
      <strong className="exchange-sound">{d.name}</strong>
      <ul className="exchange-words">
        {MARKS.flatMap(([mark, isBad]) =>
          d[mark].map((w) => (
            <li key={`${mark} ${w}`}>
              <strong className={isBad ? 'over' : undefined}>{mark}:</strong> {w}
            </li>
          )),
        )}
        {d.otherwise.map((w) => (
          <li key={`otherwise ${w}`}>{w}</li>
        ))}
      </ul>
    </div>
  ));
}

/** Sounds of which the same is to be said are told together. */
function joined(sounds: BySound['sounds']): (Difference & { name: string })[] {
  const told = new Map<string, Difference & { name: string }>();
  for (const { sound: _sound, name, ...difference } of sounds) {
    const key = JSON.stringify(difference);
    const same = told.get(key);
    told.set(key, { ...difference, name: same ? `${same.name}, ${name}` : name });
  }
  return [...told.values()];
}

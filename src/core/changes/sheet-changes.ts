import { findKind } from '../kinds';
import { kindOfSheet, type Sheet, sheetProblems } from '../rig/sheets';
import { sameJson } from '../rig/same-json';

const TEXTS = {
  maker: 'the maker',
  model: 'the model',
  about: 'what it is',
  notes: 'the notes',
  cannot: 'what it cannot say',
  job: 'what it is for',
} as const;

const THINGS = {
  base: 'the kind that it changes',
  links: 'the links inside',
  mains: 'what it takes from the mains',
  midi: 'its messages',
  display: 'its display',
  switches: 'its foot switches',
  rackUnits: 'its height in a rack',
  jackSpots: 'where its jacks are',
  programs: 'the list of its programs',
  price: 'its price',
} as const;

/** What one version of a sheet says that another does not, in words: nothing where they say the same. */
export function sheetDifferences(was: Sheet, now: Sheet): string[] {
  if (sameJson(was, now)) return [];
  const of = (sheet: Sheet, field: string): unknown => (sheet as Record<string, unknown>)[field];
  const differs = (field: string) => !sameJson(of(was, field), of(now, field));
  const lines: string[] = [];
  if (was.name !== now.name) lines.push(`it is called ${now.name}, was ${was.name}`);
  for (const [field, words] of Object.entries(TEXTS)) if (differs(field)) lines.push(words);
  for (const [field, one] of [
    ['parts', 'part'],
    ['jacks', 'jack'],
    ['controls', 'control'],
  ] as const)
    lines.push(...listDifferences(one, entries(was, field), entries(now, field)));
  lines.push(...figureDifferences(was, now));
  if (differs('power'))
    lines.push(
      now.power ? `${now.power.volts} V, ${now.power.milliamps} mA` : 'no power of its own',
    );
  if (differs('size'))
    lines.push(
      now.size
        ? `${now.size.width} by ${now.size.depth} by ${now.size.height} mm, ${now.size.grams} g`
        : 'no size of its own',
    );
  for (const [field, words] of Object.entries(THINGS)) if (differs(field)) lines.push(words);
  return lines.length ? lines : ['something that this version cannot name'];
}

interface Entry {
  id: string;
  name: string;
  whole: unknown;
}

/** The entries of a list of a sheet, each with what a person calls it. */
function entries(sheet: Sheet, field: 'parts' | 'jacks' | 'controls'): Entry[] {
  const list = (sheet as Record<string, unknown>)[field] as
    { id: string; name?: string; label?: string }[] | undefined;
  return (list ?? []).map((x) => ({ id: x.id, name: x.label ?? x.name ?? x.id, whole: x }));
}

function listDifferences(what: string, was: readonly Entry[], now: readonly Entry[]): string[] {
  const before = new Map(was.map((x) => [x.id, x]));
  const after = new Set(now.map((x) => x.id));
  const lines = [
    ...was.filter((x) => !after.has(x.id)).map((x) => `without the ${what} ${x.name}`),
    ...now.flatMap((x) => {
      const old = before.get(x.id);
      if (!old) return [`with the ${what} ${x.name}`];
      if (sameJson(old.whole, x.whole)) return [];
      return [
        old.name === x.name ? `the ${what} ${x.name}` : `the ${what} ${x.name}, was ${old.name}`,
      ];
    }),
  ];
  const order = (list: readonly Entry[]) => list.map((x) => x.id);
  return lines.length || sameJson(order(was), order(now)) ? lines : [`the order of its ${what}s`];
}

function figureDifferences(was: Sheet, now: Sheet): string[] {
  const [old, next] = [was.figures ?? {}, now.figures ?? {}];
  const kind = sheetProblems(now).length ? undefined : findKind(kindOfSheet(now).id);
  return [...new Set([...Object.keys(old), ...Object.keys(next)])].flatMap((id) => {
    if (sameJson(old[id], next[id])) return [];
    const figure = kind?.figures.find((f) => f.id === id);
    const said = next[id];
    const label = figure?.label ?? id;
    return [
      said
        ? `${label} ${said.value} ${figure?.unit ?? ''}`.trim() + `, ${said.from}`
        : `${label} back to the typical figure`,
    ];
  });
}

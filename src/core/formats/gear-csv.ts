import { kindOf } from '../kinds';
import type { Edit } from '../rig/edits';
import { deviceOf, nameOf } from '../rig/find';
import { givenId } from '../rig/fresh-id';
import type { Outcome, Problem } from '../outcome';
import type { Device, Rig } from '../rig/schema';
import { kindsFor, sheetIdOf } from '../rig/sheets';
import { PLACES } from '../rig/stands-where';
import { calledIn, namedSo, same, whoIs } from './called';
import { readCsv, type Row, type Table, toCsv } from './csv';

const GEAR_HEADER = [
  'id',
  'name',
  'kind',
  'maker',
  'model',
  'place',
  'serial',
  'owner',
  'owned',
  'weight g',
  'value',
  'host',
  'notes',
] as const;
const yesNo = (x: boolean | undefined): string => (x === undefined ? '' : x ? 'yes' : 'no');

/** The gear list: a row for each device. */
export const gearToCsv = (rig: Rig): string =>
  toCsv(
    GEAR_HEADER,
    rig.devices.map((d) => [
      d.id,
      d.name,
      d.kind,
      d.maker,
      d.model,
      d.place,
      d.gear?.serial,
      d.gear?.owner,
      yesNo(d.gear?.owned),
      d.gear?.grams,
      d.gear?.value,
      calledIn(rig.devices, d.host),
      d.notes,
    ]),
  );

type Say = (what: string) => void;
type Named = Pick<Device, 'id' | 'name'>;

/**
 * Reads a gear list: rows with a known id (or name) change that device's record, others add a
 * device; a block names the host that it lives in, which may stand in a later row. Told row by row;
 * nothing is taken where anything is wrong.
 */
export function gearFromCsv(rig: Rig, text: string): Outcome<Edit[]> {
  const read = readCsv(text, ['name', 'kind']);
  if (!read.ok) return read;
  const problems: Problem[] = [];
  const ids = new Set(rig.devices.map((d) => d.id));
  const edits: Edit[] = [];
  const added: Named[] = [];
  const { rows } = read.value;
  const waiting = new Set<Row>();
  for (const row of rows) {
    const c = row.cells;
    const say: Say = (what) => problems.push({ where: `row ${row.row}`, what });
    const there = [...rig.devices, ...added];
    if (c.host && !isCalledIn(there, c.host) && !waiting.has(row) && isNamedBy(rows, c.host)) {
      waiting.add(row);
      rows.push(row);
      continue;
    }
    const missing = (host: string) =>
      `there is no device "${host}" for ${c.name ?? 'it'} to live in`;
    const host = c.host ? whoIs(there, c.host, { say, missing }) : undefined;
    const known = knownIn(rig, c, say);
    if (!c.name) say('the device has no name');
    const kind = kindIn(rig, c.kind ?? '', say);
    const record = recordOf(read.value, c, known, say);
    if (known && kind && known.kind !== kind.id)
      say(
        `${known.name} is a ${kindOf(known.kind).name} in this rig, not a ${kind.name}; replace it there first`,
      );
    checkHost(rig, c, known, host, say);
    if (!kind || !c.name) continue;
    if (known) {
      edits.push({ edit: 'setDevice', device: known.id, name: c.name, ...record });
      continue;
    }
    const id = givenId(c.id, c.name, ids);
    ids.add(id);
    added.push({ id, name: c.name });
    const device = { id, kind: kind.id, name: c.name, ...(host && { host: host.id }), ...record };
    edits.push({ edit: 'addDevice', device });
  }
  return problems.length ? { ok: false, problems } : { ok: true, value: edits };
}

const isCalled = (d: Named, what: string): boolean => d.id === what || same(d.name, what);

const isCalledIn = (devices: readonly Named[], what: string): boolean =>
  devices.some((d) => isCalled(d, what));

/** Whether any row is of a device that is called so. */
const isNamedBy = (rows: readonly Row[], what: string): boolean =>
  rows.some(({ cells: { id = '', name } }) => name && isCalled({ id, name }, what));

/** The device of the rig that a row is about: by its id, or by a name that one alone bears. */
function knownIn(rig: Rig, { id, name = '' }: Row['cells'], say: Say): Device | undefined {
  return id ? deviceOf(rig, id) : namedSo(rig.devices, name, say);
}

/** The kind that a row names, by its id or its name; of one's own gear only what the rig holds a sheet of. */
function kindIn(rig: Rig, text: string, say: Say) {
  const sheet = sheetIdOf(text);
  const kinds = kindsFor(rig.sheets);
  const kind = kinds.find((k) =>
    sheet === undefined ? k.id === text || same(k.name, text) : sheetIdOf(k.id) === sheet,
  );
  if (!kind && sheet !== undefined)
    say(
      `this rig holds no sheet "${sheet}"; take it in under Build, Own gear, and read this again`,
    );
  else if (!kind)
    say(
      `there is no kind "${text}"; the kinds are listed in docs/kinds.md, and own gear in the rig`,
    );
  return kind;
}

function checkHost(
  rig: Rig,
  c: Row['cells'],
  known: Device | undefined,
  host: Named | undefined,
  say: Say,
): void {
  if (!known || !('host' in c) || known.host === host?.id) return;
  say(
    known.host === undefined
      ? `${known.name} stands by itself in this rig; move it into ${c.host} there first`
      : `${known.name} lives in ${nameOf(rig, known.host)} in this rig; move it there first`,
  );
}

/** What a row says of a device besides its name and kind; what it says of the unit joins what is known of it. */
function recordOf({ toNumber }: Table, c: Row['cells'], known: Device | undefined, say: Say) {
  const place = PLACES.find((p) => p === c.place);
  if (c.place && !place) say(`"${c.place}" is no place; choose ${PLACES.join(', ')}`);
  if (c.owned && !/^(yes|no)$/i.test(c.owned)) say(`"${c.owned}" under owned: write yes or no`);
  const number = (field: 'weight g' | 'value') => {
    if (!c[field]) return undefined;
    const x = toNumber(c[field]);
    if (!(x >= 0)) say(`"${c[field]}" is no ${field === 'value' ? 'value' : 'weight in grams'}`);
    return x;
  };
  const told = Object.entries({
    serial: c.serial || undefined,
    owner: c.owner || undefined,
    owned: c.owned ? /^yes$/i.test(c.owned) : undefined,
    grams: number('weight g'),
    value: number('value'),
  }).filter(([, v]) => v !== undefined);
  return {
    ...(c.maker && { maker: c.maker }),
    ...(c.model && { model: c.model }),
    ...(c.notes && { notes: c.notes }),
    ...(place && { place }),
    ...(told.length && {
      gear: { ...known?.gear, ...(Object.fromEntries(told) as Device['gear']) },
    }),
  };
}

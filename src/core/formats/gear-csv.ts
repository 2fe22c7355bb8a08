import { findKind, KINDS, kindOf } from '../kinds';
import type { Edit } from '../rig/edits';
import { nameOf } from '../rig/find';
import { givenId } from '../rig/fresh-id';
import type { Outcome, Problem } from '../outcome';
import type { Device, Rig } from '../rig/schema';
import { PLACES } from '../rig/stands-where';
import { readCsv, type Row, toCsv } from './csv';

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
      d.host === undefined ? '' : nameOf(rig, d.host),
      d.notes,
    ]),
  );

/**
 * Reads a gear list: rows with a known id (or name) change that device's record, others add a
 * device. Told row by row; nothing is taken where anything is wrong.
 */
export function gearFromCsv(rig: Rig, text: string): Outcome<Edit[]> {
  const read = readCsv(text, ['name', 'kind']);
  if (!read.ok) return read;
  const problems: Problem[] = [];
  const say = (row: Row, what: string) => problems.push({ where: `row ${row.row}`, what });
  const ids = new Set(rig.devices.map((d) => d.id));
  const edits: Edit[] = [];
  const added: { id: string; name: string }[] = [];
  const waiting = new Set<Row>();
  const { rows, toNumber } = read.value;
  for (const row of rows) {
    const c = row.cells;
    const kind =
      findKind(c.kind ?? '') ??
      KINDS.find((k) => k.name.toLowerCase() === (c.kind ?? '').toLowerCase());
    if (!c.name) say(row, 'the device has no name');
    if (!kind)
      say(row, `there is no kind "${c.kind ?? ''}"; the kinds are listed in docs/kinds.md`);
    const place = PLACES.find((p) => p === c.place);
    if (c.place && !place) say(row, `"${c.place}" is no place; choose ${PLACES.join(', ')}`);
    const number = (field: 'weight g' | 'value') => {
      if (!c[field]) return undefined;
      const x = toNumber(c[field]);
      if (!(x >= 0))
        say(row, `"${c[field]}" is no ${field === 'value' ? 'value' : 'weight in grams'}`);
      return x;
    };
    if (c.owned && !/^(yes|no)$/i.test(c.owned))
      say(row, `"${c.owned}" under owned: write yes or no`);
    const gear = Object.fromEntries(
      Object.entries({
        serial: c.serial || undefined,
        owner: c.owner || undefined,
        owned: c.owned ? /^yes$/i.test(c.owned) : undefined,
        grams: number('weight g'),
        value: number('value'),
      }).filter(([, v]) => v !== undefined),
    ) as Device['gear'];
    const known =
      rig.devices.find((d) => d.id === c.id) ??
      (c.id ? undefined : rig.devices.find((d) => d.name.toLowerCase() === c.name?.toLowerCase()));
    if (known && kind && known.kind !== kind.id)
      say(
        row,
        `${known.name} is a ${kindOf(known.kind).name} in this rig, not a ${kind.name}; replace it there first`,
      );
    const isNamed = (d: { id: string; name: string }) =>
      d.id === c.host || d.name.toLowerCase() === c.host?.toLowerCase();
    const host = c.host ? (rig.devices.find(isNamed)?.id ?? added.find(isNamed)?.id) : undefined;
    if (c.host && host === undefined) {
      // A block may stand before the host that it lives in.
      const later = rows.find(
        (r) => r.cells.name && isNamed({ id: r.cells.id ?? '', name: r.cells.name }),
      );
      if (later && !waiting.has(row)) {
        waiting.add(row);
        rows.push(row);
        continue;
      }
      say(row, `there is no device "${c.host}" for ${c.name ?? 'it'} to live in`);
    }
    if (known && (known.host ?? '') !== (host ?? '') && 'host' in c)
      say(
        row,
        known.host === undefined
          ? `${known.name} stands by itself in this rig; move it into ${c.host} there first`
          : `${known.name} lives in ${nameOf(rig, known.host)} in this rig; move it there first`,
      );
    if (!kind || !c.name) continue;
    const record = {
      ...(c.maker && { maker: c.maker }),
      ...(c.model && { model: c.model }),
      ...(c.notes && { notes: c.notes }),
      ...(place && { place }),
    };
    if (known)
      edits.push({
        edit: 'setDevice',
        device: known.id,
        name: c.name,
        ...record,
        ...(gear && Object.keys(gear).length && { gear: { ...known.gear, ...gear } }),
      });
    else {
      const id = givenId(c.id, c.name, ids);
      ids.add(id);
      added.push({ id, name: c.name });
      edits.push({
        edit: 'addDevice',
        device: {
          id,
          kind: kind.id,
          name: c.name,
          ...(host !== undefined && { host }),
          ...record,
          ...(gear && Object.keys(gear).length && { gear }),
        },
      });
    }
  }
  return problems.length ? { ok: false, problems } : { ok: true, value: edits };
}

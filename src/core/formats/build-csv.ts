import { billOf, cutList } from '../build';
import { findKind, KINDS, kindOf } from '../kinds';
import { applyEdits } from '../rig/apply';
import type { Edit } from '../rig/edits';
import { endWords, leadTypeFor, nameOf } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Outcome, Problem } from '../outcome';
import { type Device, type End, type Lead, LEAD_TYPES, type Rig } from '../rig/schema';
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

const PLACES = ['player', 'floor', 'rack', 'amps', 'house'] as const;

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
  for (const row of read.value) {
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
      const x = Number(c[field]);
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
      const id = freshId(c.id || c.name, ids);
      ids.add(id);
      edits.push({
        edit: 'addDevice',
        device: {
          id,
          kind: kind.id,
          name: c.name,
          ...record,
          ...(gear && Object.keys(gear).length && { gear }),
        },
      });
    }
  }
  return problems.length ? { ok: false, problems } : { ok: true, value: edits };
}

/** The cut list: a row for each lead, with plugs, lengths, joints and the labels for both ends. */
export const cutListCsv = (rig: Rig): string =>
  toCsv(
    [
      'code',
      'from',
      'to',
      'type',
      'plug from',
      'plug to',
      'shape from',
      'shape to',
      'has m',
      'routed m',
      'short m',
      'cut m',
      'capacitance pF',
      'joints',
      'minutes',
      'made or bought',
      'label from',
      'label to',
    ],
    cutList(rig).cuts.map((c) => [
      c.code,
      endWords(rig, c.lead.from),
      endWords(rig, c.lead.to),
      c.lead.type,
      ...c.plugs,
      ...c.shapes,
      c.metres,
      c.routed === null ? '' : Number(c.routed.toFixed(3)),
      Number(c.short.toFixed(3)),
      Number(c.cut.toFixed(3)),
      c.pF === null ? '' : Math.round(c.pF),
      c.joints,
      c.minutes,
      c.made ? 'made' : 'bought',
      ...c.labels,
    ]),
  );

/** The wiring list: a row for each lead, ends by device and jack. */
export const wiringToCsv = (rig: Rig): string =>
  toCsv(
    [
      'id',
      'from device',
      'from jack',
      'to device',
      'to jack',
      'type',
      'length m',
      'pF per m',
      'label',
    ],
    rig.leads
      .filter((l) => l.type !== 'inside')
      .map((l) => [
        l.id,
        l.from.device,
        l.from.jack,
        l.to.device,
        l.to.jack,
        l.type,
        l.metres,
        l.pfPerMetre,
        l.label,
      ]),
  );

/**
 * Reads a wiring list: a row with a known id changes that lead (or plugs it elsewhere), others are
 * new leads. Devices go by id or name, jacks by id or label. Told row by row; the whole list is
 * tried on a copy, and nothing is taken where anything is wrong.
 */
export function wiringFromCsv(rig: Rig, text: string): Outcome<Edit[]> {
  const read = readCsv(text, ['from device', 'from jack', 'to device', 'to jack', 'length m']);
  if (!read.ok) return read;
  const problems: Problem[] = [];
  const ids = new Set(rig.leads.map((l) => l.id));
  const [off, on]: [Edit[], { row: number; edit: Edit }[]] = [[], []];
  for (const row of read.value) {
    const c = row.cells;
    const say = (what: string) => problems.push({ where: `row ${row.row}`, what });
    const end = (side: 'from' | 'to'): End | undefined => {
      const [who, where] = [c[`${side} device`] ?? '', c[`${side} jack`] ?? ''];
      const device =
        rig.devices.find((d) => d.id === who) ??
        rig.devices.find((d) => d.name.toLowerCase() === who.toLowerCase());
      if (!device) return void say(`there is no device "${who}" in this rig`);
      const { jacks } = kindOf(device.kind);
      const jack =
        jacks.find((j) => j.id === where) ??
        jacks.find((j) => j.label.toLowerCase() === where.toLowerCase());
      if (!jack)
        return void say(
          `${device.name} has no jack "${where}"; it has ${jacks
            .filter((j) => !j.inside)
            .map((j) => `"${j.id}"`)
            .join(', ')}`,
        );
      return { device: device.id, jack: jack.id };
    };
    const [from, to] = [end('from'), end('to')];
    const metres = Number(c['length m']);
    if (!c['length m'] || !(metres >= 0 && metres <= 500))
      say(`"${c['length m'] ?? ''}" is no length; give 0 to 500 m`);
    const type = LEAD_TYPES.find((t) => t === c.type);
    if (c.type && !type)
      say(
        `"${c.type}" is no type of lead; choose ${LEAD_TYPES.filter((t) => t !== 'inside').join(', ')}`,
      );
    const pF = c['pf per m'] ? Number(c['pf per m']) : undefined;
    if (pF !== undefined && !(pF >= 0 && pF <= 2000))
      say(`"${c['pf per m']}" is no capacitance; give 0 to 2000 pF a metre`);
    if (!from || !to) continue;
    const known = rig.leads.find((l) => l.id === c.id);
    const id = known?.id ?? freshId(c.id || `${from.device}-${to.device}`, ids);
    ids.add(id);
    const lead: Lead = {
      ...known,
      id,
      from,
      to,
      type: type ?? leadTypeFor(rig, from, to),
      metres,
      ...(pF !== undefined && { pfPerMetre: pF }),
      ...(c.label && { label: c.label }),
    };
    if (
      known &&
      JSON.stringify([
        known.from,
        known.to,
        known.type,
        known.metres,
        known.pfPerMetre,
        known.label,
      ]) ===
        JSON.stringify([lead.from, lead.to, lead.type, lead.metres, lead.pfPerMetre, lead.label])
    )
      continue;
    // Everything that moves is unplugged first, so that two leads can change places.
    if (known) off.push({ edit: 'disconnect', lead: known.id });
    on.push({ row: row.row, edit: { edit: 'connect', lead } });
  }
  if (problems.length) return { ok: false, problems };
  let tried = applyEdits(rig, off);
  for (const { row, edit } of on) {
    if (!tried.ok) break;
    const next = applyEdits(tried.value.rig, [edit]);
    if (next.ok) tried = next;
    else problems.push(...next.problems.map((p) => ({ where: `row ${row}`, what: p.what })));
  }
  return problems.length
    ? { ok: false, problems }
    : { ok: true, value: [...off, ...on.map((x) => x.edit)] };
}

/** The bill of materials: everything that the rig is made of; owned or to buy. */
export const billCsv = (rig: Rig): string =>
  toCsv(
    ['what', 'item', 'count', 'unit', 'weight g', 'each', 'price', 'state'],
    billOf(rig).map((l) => [
      l.what,
      l.item,
      l.count,
      l.unit,
      l.grams,
      l.each,
      l.price || '',
      l.state === 'not said' ? '' : l.state,
    ]),
  );

import { kindOf } from '../kinds';
import type { Outcome, Problem } from '../outcome';
import { applyEdits } from '../rig/apply';
import { PLUG_SHAPES, type PlugShape } from '../rig/choices';
import type { Edit } from '../rig/edits';
import { deviceOf, leadTypeFor } from '../rig/find';
import { givenId } from '../rig/fresh-id';
import { sameJson } from '../rig/same-json';
import { LEAD_TYPES } from '../rig/lead-types';
import type { End, Lead, Rig } from '../rig/schema';
import { same, whoIs } from './called';
import { readCsv, type Row, type Table, toCsv } from './csv';

const yes = (x: boolean | undefined): string => (x ? 'yes' : '');

/** The wiring list: a row for each lead and each link inside a host, ends by device and jack. */
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
      'pF',
      'label',
      'conductor',
      'shield lifted',
      'crossed',
      'mm2',
      'plug from',
      'plug to',
    ],
    rig.leads.map((l) => [
      l.id,
      l.from.device,
      l.from.jack,
      l.to.device,
      l.to.jack,
      l.type,
      l.metres,
      l.pfPerMetre,
      l.pF,
      l.label,
      l.conductor,
      yes(l.shieldLifted),
      yes(l.crossed),
      l.squareMm,
      l.plugs?.from,
      l.plugs?.to,
    ]),
  );

type Say = (what: string) => void;

const hostOf = (rig: Rig, id: string): string => deviceOf(rig, id)?.host ?? id;

/**
 * Reads a wiring list: a row with a known id changes that lead (or plugs it elsewhere), others are
 * new leads. Devices go by id or name, jacks by id or label. Told row by row; the whole list is
 * tried on a copy, and nothing is taken where anything is wrong. Where rows wire the inside of a host,
 * what it passed straight on by itself goes, unless it is listed.
 */
export function wiringFromCsv(rig: Rig, text: string): Outcome<Edit[]> {
  const read = readCsv(text, ['from device', 'from jack', 'to device', 'to jack', 'length m']);
  if (!read.ok) return read;
  const problems: Problem[] = [];
  const ids = new Set(rig.leads.map((l) => l.id));
  const [off, on]: [Edit[], { row: number; edit: Edit }[]] = [[], []];
  const listed = new Set(read.value.rows.map((r) => r.cells.id));
  const insides = new Set<string>();
  for (const row of read.value.rows) {
    const say: Say = (what) => problems.push({ where: `row ${row.row}`, what });
    const known = rig.leads.find((l) => l.id === row.cells.id);
    const lead = leadOfRow(rig, read.value, row.cells, known, ids, say);
    if (lead?.type === 'inside')
      insides.add(hostOf(rig, lead.from.device)).add(hostOf(rig, lead.to.device));
    if (!lead || (known && sameJson(known, lead))) continue;
    // Everything that moves is unplugged first, so that two leads can change places.
    if (known) off.push({ edit: 'disconnect', lead: known.id });
    on.push({ row: row.row, edit: { edit: 'connect', lead } });
  }
  if (problems.length) return { ok: false, problems };
  // An empty host passes on by itself; one whose inside the file wires does what the file says.
  for (const l of rig.leads)
    if (l.from.device === l.to.device && insides.has(l.from.device) && !listed.has(l.id))
      off.push({ edit: 'disconnect', lead: l.id });
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

/** The lead that a row describes; one that the rig has keeps what the file does not say. */
function leadOfRow(
  rig: Rig,
  { toNumber }: Table,
  c: Row['cells'],
  known: Lead | undefined,
  ids: Set<string>,
  say: Say,
): Lead | undefined {
  const [from, to] = [endOf(rig, c, 'from', say), endOf(rig, c, 'to', say)];
  const metres = toNumber(c['length m'] ?? '');
  if (!(metres >= 0 && metres <= 500))
    say(`"${c['length m'] ?? ''}" is no length; give 0 to 500 m`);
  const type = LEAD_TYPES.find((t) => t === c.type);
  if (c.type && !type) say(`"${c.type}" is no type of lead; choose ${LEAD_TYPES.join(', ')}`);
  const number = (column: string, most: number, what: string): number | undefined => {
    const cell = c[column];
    if (!cell) return undefined;
    const x = toNumber(cell);
    if (!(x >= 0 && x <= most)) say(`"${cell}" is no ${what}; give 0 to ${most}`);
    return x;
  };
  const answer = (column: string): boolean | undefined => {
    const cell = c[column];
    if (cell && !/^(yes|no)$/i.test(cell)) say(`"${cell}" under ${column}: write yes or no`);
    return cell ? /^yes$/i.test(cell) : undefined;
  };
  const told = {
    pfPerMetre: number('pf per m', 2000, 'capacitance of a metre in pF'),
    pF: number('pf', 1e6, 'capacitance in pF'),
    label: c.label || undefined,
    conductor: conductorOf(c.conductor, say),
    shieldLifted: answer('shield lifted'),
    crossed: answer('crossed'),
    squareMm: number('mm2', 16, 'cross-section in mm²'),
    plugs: plugsOf(c, known, say),
  };
  if (!from || !to) return undefined;
  const id = known?.id ?? givenId(c.id, `${from.device}-${to.device}`, ids);
  ids.add(id);
  const said = Object.fromEntries(Object.entries(told).filter(([, v]) => v !== undefined));
  return { ...known, id, from, to, type: type ?? leadTypeFor(rig, from, to), metres, ...said };
}

function endOf(rig: Rig, c: Row['cells'], side: 'from' | 'to', say: Say): End | undefined {
  const [who, where] = [c[`${side} device`] ?? '', c[`${side} jack`] ?? ''];
  const missing = (name: string) => `there is no device "${name}" in this rig`;
  const device = whoIs(rig.devices, who, { say, missing });
  if (!device) return undefined;
  const { jacks } = kindOf(device.kind);
  const jack = jacks.find((j) => j.id === where) ?? jacks.find((j) => same(j.label, where));
  if (jack) return { device: device.id, jack: jack.id };
  const there = jacks.filter((j) => !j.inside).map((j) => `"${j.id}"`);
  return void say(`${device.name} has no jack "${where}"; it has ${there.join(', ')}`);
}

function conductorOf(cell: string | undefined, say: Say): Lead['conductor'] {
  if (!cell) return undefined;
  if (cell === 'tip' || cell === 'ring') return cell;
  return void say(`"${cell}" is no conductor; write tip or ring`);
}

function plugsOf(c: Row['cells'], known: Lead | undefined, say: Say): Lead['plugs'] {
  const shape = (side: 'from' | 'to'): PlugShape | undefined => {
    const cell = c[`plug ${side}`];
    const found = PLUG_SHAPES.find((s) => s === cell);
    if (cell && !found) say(`"${cell}" is no shape of a plug; choose ${PLUG_SHAPES.join(', ')}`);
    return found;
  };
  const [from, to] = [shape('from'), shape('to')];
  return from || to ? { ...known?.plugs, ...(from && { from }), ...(to && { to }) } : undefined;
}

import { sure } from '../../outcome';
import { type Jack, type Kind, kindOf, type Parameter } from '../../kinds';
import { freeName } from '../fresh-id';
import type { Assembly, BoxControl, ChangedKind, InnerJack } from './sheet-schema';

type OuterJack = Assembly['jacks'][number];
type Part = Assembly['parts'][number];

/** An id that nothing has taken: the wanted one, which keeps its letters as they are, or that and a number. */
function freeId(wanted: string, taken: readonly string[]): string {
  let id = wanted;
  for (let n = 2; taken.includes(id); n++) id = `${wanted}-${n}`;
  return id;
}

/** A sheet of a kind as it ships, to be changed. */
export const sheetOfKind = (id: string, name: string, base: string): ChangedKind => ({
  is: 'changes',
  id,
  name,
  base,
});

/** A box with one part in it, all of whose jacks and controls are brought out. */
export function boxAround(id: string, name: string, kind: string): Assembly {
  const part: Part = { id: 'part-1', kind, name: kindOf(kind).name };
  const bare: Assembly = {
    is: 'parts',
    id,
    name,
    parts: [part],
    links: [],
    jacks: [],
    controls: [],
  };
  return withControlsOf(
    { ...bare, jacks: kindOf(kind).jacks.map((j) => broughtOut(j, part, [])) },
    part,
  );
}

/** A jack of the box for a jack of a part, under a name that is free. */
function broughtOut(jack: Jack, part: Part, taken: readonly string[]): OuterJack {
  const id = freeId(jack.id, [...taken]);
  return { id, label: jack.label, at: [{ part: part.id, jack: jack.id }] };
}

/** Ids of the two sides of a kind's way through: its input or output, and the other side where it has one. */
function sidesOf(kind: Kind, which: 'in' | 'out'): string[] {
  const main = kind.through?.[which];
  const jack = kind.jacks.find((j) => j.id === main);
  return jack ? [jack.id, ...(jack.pair ? [jack.pair.with] : [])] : [];
}

const jackOf = (kind: string, id: string): Jack | undefined =>
  kindOf(kind).jacks.find((j) => j.id === id);

/** Whether a link can go from one jack to another: out to in, of one sort of signal. */
const canJoin = (from: Jack | undefined, to: Jack | undefined): boolean =>
  from !== undefined &&
  to !== undefined &&
  from.direction !== 'in' &&
  to.direction !== 'out' &&
  from.signal === to.signal;

const freshPart = (sheet: Assembly, kind: string): Part => ({
  id: freeId(
    `part-${sheet.parts.length + 1}`,
    sheet.parts.map((p) => p.id),
  ),
  kind,
  name: freeName(
    kindOf(kind).name,
    sheet.parts.map((p) => p.name),
  ),
});

/**
 * A box with one more part behind the one that its output comes from: linked side by side where both
 * are stereo; what left by the old output leaves by the new one, and jacks beyond the way through are
 * brought out under names of their own.
 */
export function withPartBehind(sheet: Assembly, kindId: string): Assembly {
  const part = freshPart(sheet, kindId);
  const kind = kindOf(kindId);
  const [ins, outs] = [sidesOf(kind, 'in'), sidesOf(kind, 'out')];
  const last = sheet.parts.findLast((p) => {
    const [out] = sidesOf(kindOf(p.kind), 'out');
    return out !== undefined && canJoin(jackOf(p.kind, out), jackOf(kindId, ins[0] ?? ''));
  });
  if (!last) return withPartBeside(sheet, kindId);
  const lastOuts = sidesOf(kindOf(last.kind), 'out');
  const isOf = (j: OuterJack) => j.at.some((t) => t.part === last.id && lastOuts.includes(t.jack));
  const was = sheet.jacks.filter(isOf);
  const links = ins.flatMap((jack, i) => {
    const from = lastOuts[i];
    return from ? [{ from: { part: last.id, jack: from }, to: { part: part.id, jack } }] : [];
  });
  const moved = outs.map((jack, i): OuterJack => {
    const label = was[i]?.label ?? sure(kind.jacks.find((j) => j.id === jack)).label;
    const id =
      was[i]?.id ??
      freeId(
        jack,
        sheet.jacks.map((j) => j.id),
      );
    return { id, label, at: [{ part: part.id, jack }] };
  });
  const jacks = [...sheet.jacks.filter((j) => !isOf(j)), ...moved];
  for (const jack of kind.jacks)
    if (![...ins, ...outs].includes(jack.id))
      jacks.push(
        broughtOut(
          jack,
          part,
          jacks.map((j) => j.id),
        ),
      );
  return withControlsOf(
    { ...sheet, parts: [...sheet.parts, part], links: [...sheet.links, ...links], jacks },
    part,
  );
}

/**
 * A box with one more part beside the others: it hears the same input, and its outputs are jacks of
 * their own.
 */
export function withPartBeside(sheet: Assembly, kindId: string): Assembly {
  const part = freshPart(sheet, kindId);
  const kind = kindOf(kindId);
  const ins = sidesOf(kind, 'in');
  const first = sheet.parts.find((p) => kindOf(p.kind).through);
  const firstIns = first ? sidesOf(kindOf(first.kind), 'in') : [];
  const firstSignal = first && jackOf(first.kind, firstIns[0] ?? '')?.signal;
  const heard = new Set<string>();
  const jacks = sheet.jacks.map((j): OuterJack => {
    const side = ins[firstIns.indexOf(j.at.find((t) => t.part === first?.id)?.jack ?? '')];
    if (side === undefined || jackOf(kindId, side)?.signal !== firstSignal) return j;
    heard.add(side);
    return { ...j, at: [...j.at, { part: part.id, jack: side }] };
  });
  // Where the first hears one side only, that side is the input of the other part too.
  for (const jack of kind.jacks)
    if (!heard.has(jack.id) && !(heard.size && ins.includes(jack.id)))
      jacks.push(
        broughtOut(
          jack,
          part,
          jacks.map((j) => j.id),
        ),
      );
  return withControlsOf({ ...sheet, parts: [...sheet.parts, part], jacks }, part);
}

/** A box without a part: what came to it goes on to where it led. */
export function withoutPart(sheet: Assembly, id: string): Assembly {
  const part = sheet.parts.find((p) => p.id === id);
  if (!part || sheet.parts.length < 2) return sheet;
  const kind = kindOf(part.kind);
  const [ins, outs] = [sidesOf(kind, 'in'), sidesOf(kind, 'out')];
  const links = sheet.links.filter((l) => l.from.part !== id && l.to.part !== id);
  const jacks: OuterJack[] = [];
  const kinds = new Map(sheet.parts.map((p) => [p.id, p.kind]));
  const jackAt = (t: InnerJack) => jackOf(sure(kinds.get(t.part)), t.jack);
  const before = (side: number) =>
    sheet.links.find((l) => l.to.part === id && l.to.jack === ins[side])?.from;
  const behind = (side: number) =>
    sheet.links.filter((l) => l.from.part === id && l.from.jack === outs[side]).map((l) => l.to);
  outs.forEach((_, side) => {
    const from = before(side);
    for (const to of behind(side))
      if (from && canJoin(jackAt(from), jackAt(to))) links.push({ from, to });
  });
  for (const jack of sheet.jacks) {
    const at = jack.at.flatMap((t) => {
      if (t.part !== id) return [t];
      const [wayIn, wayOut] = [ins.indexOf(t.jack), outs.indexOf(t.jack)];
      if (wayIn >= 0) return behind(wayIn);
      return wayOut >= 0 ? (before(wayOut) ?? []) : [];
    });
    const [one] = at;
    const isLike = (t: InnerJack) =>
      one &&
      jackAt(t)?.signal === jackAt(one)?.signal &&
      jackAt(t)?.direction === jackAt(one)?.direction;
    if (one) jacks.push({ ...jack, at: at.filter(isLike) });
  }
  const controls = sheet.controls.flatMap((c) => {
    const moves = c.moves.filter((m) => m.part !== id);
    return moves.length ? [{ ...c, moves }] : [];
  });
  const kept = new Set(jacks.map((j) => j.id));
  const whole = jacks.map((j) => {
    const { pair, ...rest } = j;
    return pair && kept.has(pair.with) ? j : rest;
  });
  const figures = Object.entries(sheet.figures ?? {}).filter(([f]) => !f.startsWith(`${id}-`));
  return {
    ...sheet,
    parts: sheet.parts.filter((p) => p.id !== id),
    links,
    jacks: whole,
    controls,
    ...(sheet.figures && { figures: Object.fromEntries(figures) }),
  };
}

/** A control of the box that is a control of a part, under the part's name where the box has several. */
function controlFor(sheet: Assembly, part: Part, p: Parameter): BoxControl | undefined {
  const ids = sheet.controls.map((c) => c.id);
  const label = sheet.parts.length > 1 ? `${part.name}: ${p.label}` : p.label;
  const named = { id: freeId(p.id, ids), label: label.slice(0, 120), initial: p.initial };
  const move = { part: part.id, setting: p.id };
  if (p.type === 'knob')
    return {
      ...named,
      type: 'knob',
      min: p.min,
      max: p.max,
      moves: [{ ...move, from: p.min, to: p.max }],
    };
  if (p.type === 'switch')
    return { ...named, type: 'switch', moves: [{ ...move, off: false, on: true }] };
  if (p.type === 'choice')
    return {
      ...named,
      type: 'choice',
      options: p.options.map((o) => ({ ...o })),
      moves: [{ ...move, at: Object.fromEntries(p.options.map((o) => [o.value, o.value])) }],
    };
  return undefined;
}

/** A box with those controls of a part brought out that are not yet. */
export function withControlsOf(sheet: Assembly, part: Part): Assembly {
  return kindOf(part.kind).parameters.reduce((box, p) => {
    const isOut = box.controls.some((c) =>
      c.moves.some((m) => m.part === part.id && m.setting === p.id),
    );
    const control = isOut ? undefined : controlFor(box, part, p);
    return control ? { ...box, controls: [...box.controls, control] } : box;
  }, sheet);
}

/** A box in which a part has a foot switch of its own, first among the controls. */
export function withOwnSwitch(sheet: Assembly, id: string): Assembly {
  const part = sheet.parts.find((p) => p.id === id);
  if (!part) return sheet;
  const control: BoxControl = {
    id: freeId(
      `${id}-on`,
      sheet.controls.map((c) => c.id),
    ),
    label: `${part.name} on`,
    type: 'switch',
    initial: false,
    moves: [{ part: id, setting: 'engaged', off: false, on: true }],
  };
  return {
    ...sheet,
    parts: sheet.parts.map((p) => (p.id === id ? { ...p, engaged: 'never' } : p)),
    controls: [control, ...sheet.controls],
  };
}

/** A box with one more control: a setting of a part, under a name that tells it apart. */
export function withControlOf(sheet: Assembly, part: string, setting: string): Assembly {
  const of = sheet.parts.find((p) => p.id === part);
  const p = of && kindOf(of.kind).parameters.find((x) => x.id === setting);
  const control = of && p && controlFor(sheet, of, p);
  return control ? { ...sheet, controls: [...sheet.controls, control] } : sheet;
}

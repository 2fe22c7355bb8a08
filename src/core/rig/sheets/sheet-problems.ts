import { findKind, type Kind, type Parameter, type SettingValue } from '../../kinds';
import type { Problem } from '../../outcome';
import { nearest } from '../integrity/checking';
import { settingProblem } from '../integrity/settings';
import { innerFigure } from './assembled-kind';
import type { Assembly, BoxControl, ChangedKind, InnerJack, Sheet } from './sheet-schema';

type Tell = (where: string, what: string) => void;

/**
 * What a sheet says that cannot be: kinds, jacks and settings that are not there, links the wrong
 * way round, controls that move nothing. A sheet without problems makes a kind.
 */
export function sheetProblems(sheet: Sheet): Problem[] {
  const problems: Problem[] = [];
  const tell: Tell = (where, what) => problems.push({ where, what });
  if (sheet.is === 'changes') changesProblems(sheet, tell);
  else partsProblems(sheet, tell);
  return problems;
}

const unknownKind = (id: string) => `there is no kind "${id}"; ${nearest(id)}`;

function changesProblems(sheet: ChangedKind, tell: Tell): void {
  const base = findKind(sheet.base);
  if (!base || sheet.base.startsWith('own.')) return tell('base', unknownKind(sheet.base));
  const needed = [base.through?.in, base.through?.out, ...(base.destination?.jacks ?? [])];
  sheet.jacks?.forEach((j, row) => {
    if (!base.jacks.some((x) => x.id === j.id))
      tell(`jacks[${row}].id`, `${base.name} has no jack "${j.id}"; ${listed(base.jacks)}`);
    else if (j.leftOut && needed.includes(j.id))
      tell(`jacks[${row}].leftOut`, `the way through ${base.name} needs this jack; name another`);
  });
  sheet.controls?.forEach((c, row) => {
    const p = base.parameters.find((x) => x.id === c.id);
    const at = `controls[${row}]`;
    if (!p)
      return tell(`${at}.id`, `${base.name} has no control "${c.id}"; ${listed(base.parameters)}`);
    endsProblem(p, c, at, tell);
    const wrong = c.at === undefined ? undefined : settingProblem(base, c.id, c.at);
    if (wrong) tell(`${at}.at`, wrong);
  });
  figureProblems(sheet, base.figures, tell);
}

const listed = (things: readonly { id: string }[]): string =>
  things.length ? `it has ${things.map((t) => `"${t.id}"`).join(', ')}` : 'it has none';

function endsProblem(
  p: Parameter,
  { min, max }: { min?: number; max?: number },
  at: string,
  tell: Tell,
): void {
  if (min === undefined && max === undefined) return;
  if (p.type !== 'knob') return tell(`${at}.min`, `${p.label} is no knob, so it has no ends`);
  const [low, high] = [min ?? p.min, max ?? p.max];
  if (low < p.min || high > p.max || low >= high)
    tell(
      `${at}.${min === undefined ? 'max' : 'min'}`,
      `${p.label} goes from ${p.min} to ${p.max}; give two ends within, the lower first`,
    );
}

function figureProblems(sheet: Sheet, figures: Kind['figures'], tell: Tell): void {
  for (const [id, said] of Object.entries(sheet.figures ?? {})) {
    const figure = figures.find((f) => f.id === id);
    if (!figure) tell(`figures.${id}`, `there is no such figure; ${listed(figures)}`);
    else if (said.value < figure.min || said.value > figure.max)
      tell(
        `figures.${id}`,
        `${said.value} ${figure.unit} is not believable for "${figure.label}"; ` +
          `give ${figure.min} to ${figure.max} ${figure.unit}`,
      );
  }
}

function partsProblems(sheet: Assembly, tell: Tell): void {
  const parts = new Map<string, Kind>();
  sheet.parts.forEach((p, row) => {
    const kind = findKind(p.kind);
    if (!kind || p.kind.startsWith('own.')) return tell(`parts[${row}].kind`, unknownKind(p.kind));
    if (kind.hosts)
      return tell(
        `parts[${row}].kind`,
        `${kind.name} holds blocks of its own and cannot be a part; use it as a device, or change it`,
      );
    if (parts.has(p.id)) tell(`parts[${row}].id`, `two parts are called "${p.id}"`);
    parts.set(p.id, kind);
    for (const [id, value] of Object.entries(p.settings ?? {})) {
      const wrong = kind.parameters.some((x) => x.id === id)
        ? settingProblem(kind, id, value)
        : `${kind.name} has no control "${id}"; ${listed(kind.parameters)}`;
      if (wrong) tell(`parts[${row}].settings.${id}`, wrong);
    }
  });
  if (parts.size < sheet.parts.length) return;
  const jackOf = (end: InnerJack, where: string) => {
    const kind = parts.get(end.part);
    if (!kind) return void tell(where, `there is no part "${end.part}"`);
    const jack = kind.jacks.find((j) => j.id === end.jack);
    if (!jack) tell(where, `${kind.name} has no jack "${end.jack}"; ${listed(kind.jacks)}`);
    return jack;
  };
  sheet.links.forEach((l, row) => {
    const [from, to] = [jackOf(l.from, `links[${row}].from`), jackOf(l.to, `links[${row}].to`)];
    if (from?.direction === 'in')
      tell(`links[${row}].from`, `${l.from.jack} is an input; a link goes from an output`);
    if (to?.direction === 'out')
      tell(`links[${row}].to`, `${l.to.jack} is an output; a link goes to an input`);
    if (from && to && from.signal !== to.signal)
      tell(`links[${row}]`, `${from.label} carries ${from.signal}, ${to.label} ${to.signal}`);
  });
  jacksProblems(sheet, jackOf, tell);
  sheet.controls.forEach((c, row) => controlProblems(c, `controls[${row}]`, parts, tell));
  twice(sheet.controls, 'controls', tell);
  const figures = [...parts].flatMap(([part, kind]) =>
    kind.figures.map((f) => ({ ...f, id: innerFigure(part, f.id) })),
  );
  figureProblems(sheet, figures, tell);
}

function twice(list: readonly { id: string }[], where: string, tell: Tell): void {
  list.forEach((x, row) => {
    if (list.findIndex((y) => y.id === x.id) < row)
      tell(`${where}[${row}].id`, `the id "${x.id}" is used twice; give one of the two another`);
  });
}

function jacksProblems(
  sheet: Assembly,
  jackOf: (end: InnerJack, where: string) => Kind['jacks'][number] | undefined,
  tell: Tell,
): void {
  twice(sheet.jacks, 'jacks', tell);
  sheet.jacks.forEach((j, row) => {
    const at = `jacks[${row}]`;
    const tied = j.at.flatMap((t, i) => jackOf(t, `${at}.at[${i}]`) ?? []);
    if (new Set(tied.map((t) => t.direction)).size > 1)
      tell(`${at}.at`, `${j.label} is tied to inputs and outputs; a jack is one of the two`);
    if (new Set(tied.map((t) => t.signal)).size > 1)
      tell(`${at}.at`, `${j.label} is tied to jacks of different signals`);
    if (j.pair && !sheet.jacks.some((x) => x.id === j.pair?.with && x.id !== j.id))
      tell(`${at}.pair`, `there is no other jack "${j.pair.with}" of the box`);
  });
}

function controlProblems(
  c: BoxControl,
  at: string,
  parts: ReadonlyMap<string, Kind>,
  tell: Tell,
): void {
  if (c.type === 'choice' && !c.options?.length)
    tell(`${at}.options`, `${c.label} has nothing to choose from; write its options`);
  if (!c.moves.length) tell(`${at}.moves`, `${c.label} moves nothing inside; say what it moves`);
  if (c.type === 'knob' && (c.min ?? 0) >= (c.max ?? 10))
    tell(`${at}.max`, `${c.label} ends where it begins; give two ends, the lower first`);
  c.moves.forEach((m, i) => {
    const where = `${at}.moves[${i}]`;
    const kind = parts.get(m.part);
    if (!kind) return tell(`${where}.part`, `there is no part "${m.part}"`);
    for (const value of valuesOf(c, m)) {
      const wrong = valueProblem(kind, m.setting, value);
      if (wrong) return tell(`${where}.setting`, wrong);
    }
  });
}

/** All that a control may set at the ends of its way: where these are well, so is what lies between. */
function valuesOf(c: BoxControl, m: BoxControl['moves'][number]): SettingValue[] {
  if (c.type === 'switch') return [m.off ?? false, m.on ?? true];
  if (c.type === 'knob') return [m.from ?? c.min ?? 0, m.to ?? c.max ?? 10];
  return Object.values(m.at ?? {});
}

function valueProblem(kind: Kind, setting: string, value: SettingValue): string | undefined {
  if (setting === 'engaged')
    return typeof value === 'boolean' ? undefined : 'a part is engaged or not: true or false';
  return kind.parameters.some((p) => p.id === setting)
    ? settingProblem(kind, setting, value)
    : `${kind.name} has no control "${setting}"; ${listed(kind.parameters)}`;
}

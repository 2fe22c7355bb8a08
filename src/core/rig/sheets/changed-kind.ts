import { initialOf, type Kind, kindOf, type Parameter, type SettingValue } from '../../kinds';
import { boxOf, withSheetFigure } from './box-of';
import type { ChangedKind } from './sheet-schema';

/**
 * The kind that a sheet with changes describes: the base does what it does, with other names,
 * figures and ends. A control that is left out stands still, and nobody can set it.
 */
export function changedKind(id: string, sheet: ChangedKind): Kind {
  const base = kindOf(sheet.base);
  const jacksSaid = new Map(sheet.jacks?.map((j) => [j.id, j]));
  const controlsSaid = new Map(sheet.controls?.map((c) => [c.id, c]));
  const gone = new Set(sheet.jacks?.flatMap((j) => (j.leftOut ? [j.id] : [])));
  const still = new Map<string, SettingValue>();
  const parameters = base.parameters.flatMap((p): Parameter[] => {
    const said = controlsSaid.get(p.id);
    if (!said) return [p];
    if (said.leftOut) {
      still.set(p.id, said.at ?? initialOf(p));
      return [];
    }
    return [changedControl(p, said)];
  });
  return {
    ...boxOf(sheet, base),
    id,
    jacks: base.jacks
      .filter((j) => !gone.has(j.id))
      .map((j) => {
        const { pair, ...rest } = j;
        return {
          ...rest,
          ...(pair && !gone.has(pair.with) && { pair }),
          label: jacksSaid.get(j.id)?.label ?? j.label,
        };
      }),
    ...(base.loops && {
      loops: base.loops.filter((l) => ![...l.send, ...l.return].some((j) => gone.has(j))),
    }),
    parameters,
    figures: base.figures.map((f) => withSheetFigure(f, sheet.figures?.[f.id])),
    passes: (state, plugged) => {
      const set = <T extends SettingValue>(name: string, ask: () => T): T =>
        still.has(name) ? (still.get(name) as T) : ask();
      return base.passes(
        {
          engaged: state.engaged,
          figure: (name) => state.figure(name),
          knob: (name) => set(name, () => state.knob(name)),
          choice: (name) => set(name, () => state.choice(name)),
          on: (name) => set(name, () => state.on(name)),
          text: (name) => set(name, () => state.text(name)),
        },
        plugged,
      );
    },
  };
}

/** A control with the name, the ends and the place of rest that a sheet gives it. */
function changedControl(
  p: Parameter,
  said: NonNullable<ChangedKind['controls']>[number],
): Parameter {
  const named = { ...p, label: said.label ?? p.label };
  const initial = said.at ?? p.initial;
  if (named.type === 'knob') {
    const [min, max] = [said.min ?? named.min, said.max ?? named.max];
    return { ...named, min, max, initial: Math.min(max, Math.max(min, Number(initial))) };
  }
  if (named.type === 'switch') return { ...named, initial: initial === true };
  return { ...named, initial: String(initial) };
}

import { RIG_VERSION } from './schema';

type Loose = Record<string, unknown>;
const isObject = (v: unknown): v is Loose =>
  typeof v === 'object' && v !== null && !Array.isArray(v);

/**
 * Each entry turns a document of its version into the next one. Version 0 kept leads as "cables"
 * with a length in centimetres and wrote "on" where version 1 writes "engaged".
 */
const STEPS: ((old: Loose) => Loose)[] = [
  ({ cables, ...rest }) => ({
    ...rest,
    version: 1,
    leads: Array.isArray(cables)
      ? cables.map((c: unknown) => {
          if (!isObject(c)) return c;
          const { lengthCm, ...lead } = c;
          return {
            type: 'instrument',
            ...lead,
            metres: typeof lengthCm === 'number' ? lengthCm / 100 : lengthCm,
          };
        })
      : [],
    sounds: Array.isArray(rest.sounds)
      ? rest.sounds.map((s: unknown) => {
          if (!isObject(s) || !isObject(s.states)) return s;
          const states = Object.fromEntries(
            Object.entries(s.states).map(([id, state]) => {
              if (!isObject(state) || !('on' in state)) return [id, state];
              const { on, ...kept } = state;
              return [id, { ...kept, engaged: on }];
            }),
          );
          return { ...s, states };
        })
      : [],
  }),
];

/**
 * Kinds that were given another id, by the old one: documents of any version may hold them. None
 * has been renamed yet; whoever renames one writes it here, and every earlier revision still opens.
 */
export const RENAMED_KINDS: Readonly<Record<string, string>> = {};

/** Gives devices, and what is inside sheets, the present ids of their kinds. */
function renameKinds(document: Loose, renamed: Readonly<Record<string, string>>): Loose {
  const now = (kind: unknown) =>
    typeof kind === 'string' && Object.hasOwn(renamed, kind) ? renamed[kind] : kind;
  const withKind = (entry: unknown, field: string): unknown =>
    isObject(entry) && now(entry[field]) !== entry[field]
      ? { ...entry, [field]: now(entry[field]) }
      : entry;
  const each = (list: unknown, rename: (entry: unknown) => unknown): unknown => {
    if (!Array.isArray(list)) return list;
    const made = list.map(rename);
    return made.some((x, i) => x !== list[i]) ? made : list;
  };
  const ofSheet = (sheet: unknown): unknown => {
    const based = withKind(sheet, 'base');
    if (!isObject(based)) return based;
    const parts = each(based.parts, (p) => withKind(p, 'kind'));
    return parts === based.parts ? based : { ...based, parts };
  };
  const devices = each(document.devices, (d) => withKind(d, 'kind'));
  const sheets = each(document.sheets, ofSheet);
  if (devices === document.devices && sheets === document.sheets) return document;
  return { ...document, devices, ...(sheets !== undefined && { sheets }) };
}

/** Brings an older document up to the present version; newer and foreign ones are left for the schema to refuse. */
export function upgrade(document: unknown, renamed = RENAMED_KINDS): unknown {
  if (!isObject(document)) return document;
  let now = document;
  while (
    typeof now.version === 'number' &&
    Number.isInteger(now.version) &&
    now.version >= 0 &&
    now.version < RIG_VERSION
  )
    now = STEPS[now.version]?.(now) ?? now;
  return renameKinds(now, renamed);
}

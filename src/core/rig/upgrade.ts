import { RIG_VERSION } from './schema';

type Loose = Record<string, unknown>;
const isObject = (v: unknown): v is Loose =>
  typeof v === 'object' && v !== null && !Array.isArray(v);

/**
 * Each entry turns a document of its version into the next one. Version 0 kept leads as "cables" with a length in
 * centimetres and wrote "on" where version 1 writes "engaged".
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

/** Brings an older document up to the present version; newer and foreign ones are left for the schema to refuse. */
export function upgrade(document: unknown): unknown {
  if (!isObject(document)) return document;
  let now = document;
  while (
    typeof now.version === 'number' &&
    Number.isInteger(now.version) &&
    now.version >= 0 &&
    now.version < RIG_VERSION
  )
    now = STEPS[now.version]!(now);
  return now;
}

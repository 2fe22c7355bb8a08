import { resolveState } from '../rig/device-state';
import { device } from '../testing/rigs';
import { digest } from '../testing/digest';
import { KINDS, type Kind } from '.';

/** Every kind off and on, with each setting at each of its ends, each jack plugged alone, all and none. */
function doings(kind: Kind): unknown[] {
  const jacks = kind.jacks.flatMap((j) => [j.id, ...(j.stereo ? [j.stereo] : [])]);
  const plugs = [
    [],
    jacks,
    ...jacks.map((j) => [j]),
    ...jacks.map((j) => jacks.filter((x) => x !== j)),
  ];
  const settings: Record<string, number | string | boolean>[] = [
    {},
    ...kind.parameters.flatMap((p) =>
      (p.type === 'knob'
        ? [p.min, (p.min + p.max) / 3, p.max]
        : p.type === 'choice'
          ? p.options.map((o) => o.value)
          : p.type === 'switch'
            ? [true, false]
            : ['2 1', '1/2@3', '3 4/5']
      ).map((value) => ({ [p.id]: value })),
    ),
  ];
  // Each setting with no plug and with all; and as it stands usually, each plug alone and each missing.
  const states = [
    ...settings.flatMap((set) => [plugs[0] ?? [], plugs[1] ?? []].map((p) => [set, p] as const)),
    ...plugs.slice(2).map((p) => [{}, p] as const),
  ];
  return [true, false].flatMap((engaged) =>
    states.map(([set, plugged]) =>
      kind.passes(resolveState(kind, device('x', kind.id, 'X'), { engaged, settings: set }), (j) =>
        plugged.includes(j),
      ),
    ),
  );
}

test.each(KINDS.map((k) => [k.id, k] as const))(
  '%s does what it did, in every state',
  (_, kind) => {
    const { passes: _passes, parameters, ...data } = kind;
    const said = parameters.map((p) =>
      p.type === 'knob' && p.reads
        ? [
            p,
            [p.min, p.initial, p.max].map((v) =>
              p.reads?.(v, (id) => kind.figures.find((f) => f.id === id)?.typical ?? 0),
            ),
          ]
        : p.type === 'text'
          ? [p, ['', '1', '9 9', '1/2', '?', '1@2 3@-4', '7 8'].map(p.problem)]
          : p,
    );
    expect({ is: digest([data, said]), does: digest(doings(kind)) }).toMatchSnapshot();
  },
);

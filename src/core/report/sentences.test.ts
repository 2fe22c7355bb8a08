import { DEMO_RIGS } from '../demo';
import { cases } from '../testing/cases';
import { MISTAKES } from '../testing/mistakes';
import { analyse } from '.';

/** Each demo rig itself, and the first (or all) with the first mistake of each kind that can be made in it. */
const rigs = DEMO_RIGS.flatMap((rig, n) => [
  { name: rig.name, rig },
  ...Object.entries(MISTAKES).flatMap(([kind, { plant }]) =>
    (n < cases(1, DEMO_RIGS.length) ? plant(rig) : [])
      .slice(0, 1)
      .map((m) => ({ name: `${rig.name}, ${kind}`, rig: m.rig })),
  ),
]);

test.each(rigs.map((r) => [r.name, r.rig] as const))(
  '%s: what is told are sentences, and what is offered says what it does',
  (_, rig) => {
    for (const { what, why, fix, others = [] } of analyse(rig).findings) {
      expect(what).toMatch(/^[\p{Lu}\d−“"].*[.!?]$/su);
      expect(why).toMatch(/^[\p{Lu}\d−“"].*[.!?)]$/su);
      for (const way of [fix, ...others]) if (way) expect(way.words).toMatch(/^\p{Lu}.*[^.]$/su);
    }
  },
);

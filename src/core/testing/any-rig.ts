import fc from 'fast-check';
import { isControlJack, KINDS, kindOf } from '../kinds';
import { insideOf, leadTypeFor, type Rig } from '../rig';
import { device, lead, rigOf, sound } from './rigs';

/** Any rig: any kinds, any legal leads between them (circles too), any states. */
export const anyRig: fc.Arbitrary<Rig> = fc
  .record({
    kinds: fc.array(fc.constantFrom(...KINDS.map((k) => k.id)), { minLength: 2, maxLength: 14 }),
    pairs: fc.array(
      fc.tuple(fc.nat(), fc.nat(), fc.nat(), fc.nat(), fc.double({ min: 0, max: 30, noNaN: true })),
      { maxLength: 24 },
    ),
    engaged: fc.array(fc.boolean(), { minLength: 28, maxLength: 28 }),
    knobs: fc.array(fc.integer({ min: 0, max: 10 }), { minLength: 14, maxLength: 14 }),
  })
  .map(({ kinds, pairs, engaged, knobs }) => {
    const devices = kinds.map((k, i) =>
      device(`d${i}`, k, `D${i}`, {
        settings: Object.fromEntries(
          kindOf(k).parameters.flatMap((p) =>
            p.type === 'knob' ? [[p.id, Math.min(p.max, Math.max(p.min, knobs[i]!))]] : [],
          ),
        ),
      }),
    );
    const host = devices.find((d) => kindOf(d.kind).hosts);
    if (host)
      for (const d of devices.slice(devices.indexOf(host) + 1))
        if (kindOf(d.kind).block) d.host = host.id;
    const bare = rigOf(devices, []);
    const taken = new Set<string>();
    const leads = pairs.flatMap(([a, b, x, y, metres], n) => {
      const [from, to] = [devices[a % devices.length]!, devices[b % devices.length]!];
      const outs = kindOf(from.kind).jacks.filter((j) => j.direction !== 'in');
      const ins = kindOf(to.kind).jacks.filter((j) => j.direction !== 'out');
      const [out, into] = [outs[x % outs.length], ins[y % ins.length]];
      if (
        !out ||
        !into ||
        (out.signal === 'air') !== (into.signal === 'air') ||
        (out.signal === 'digital') !== (into.signal === 'digital') ||
        ((isControlJack(out) || isControlJack(into)) &&
          (out.signal !== into.signal || from.host !== undefined || to.host !== undefined))
      )
        return [];
      const ends = [
        { device: from.id, jack: out.id },
        { device: to.id, jack: into.id },
      ] as const;
      if (insideOf(bare, ends[0]) !== insideOf(bare, ends[1])) return [];
      const type = leadTypeFor(bare, ...ends);
      const keys = [`${from.id} ${out.id}`, `${to.id} ${into.id}`];
      if (keys[0] === keys[1]) return [];
      if (type !== 'inside' && ((!out.many && taken.has(keys[0]!)) || taken.has(keys[1]!)))
        return [];
      keys.forEach((k) => taken.add(k));
      return [lead(`l${n}`, `${from.id}.${out.id}`, `${to.id}.${into.id}`, metres, type)];
    });
    const states = (offset: number) =>
      Object.fromEntries(devices.map((d, i) => [d.id, { engaged: engaged[offset + i]! }]));
    return rigOf(devices, leads, [sound('a', 'A', [], states(0)), sound('b', 'B', [], states(14))]);
  });

import { blockCost } from '../analysis/hosts';
import { kindOf } from '../kinds';
import { sure } from '../outcome';
import { hostLoopOf, innerReturn } from '../rig';
import { isEngaged, stateIn } from '../rig/device-state';
import { deviceOf, leadFrom, leadInto } from '../rig/find';
import type { Device, Rig } from '../rig/schema';

/** What speaks for a device to be inside or outside, in points; more points, a stronger wish. */
export const POINTS = {
  alwaysOn: 3,
  perTenPercent: 1,
  owned: 3,
  buy: 5,
  differs: 2,
  switched: 0.5,
  stay: 1,
  loop: 1.5,
};

/**
 * A device that could live inside a host or outside of it: where it is now, what it costs inside,
 * and what speaks for either.
 */
export interface Candidate {
  device: string;
  inside: boolean;
  slots: number;
  percent: number;
  outsidePoints: number;
  reasons: string[];
}

/**
 * A row of devices on one path of a host, in the order of the signal: first what stands before its
 * input, then what lives inside or hangs in its loops.
 */
export interface Path {
  input: string;
  row: string[];
}

/** The candidates of a host with the paths they stand on. */
export function pathsOf(rig: Rig, host: string): Path[] {
  const kind = kindOf(sure(deviceOf(rig, host)).kind);
  return kind.jacks
    .filter((j) => j.inside && j.faces?.is === 'input')
    .flatMap((point): Path[] => {
      const input = point.faces?.jack ?? '';
      const row: string[] = [];
      // Upstream of the input: real devices that could live inside, as far as they follow one another.
      for (let lead = leadInto(rig, host, input); lead;) {
        const d = sure(deviceOf(rig, lead.from.device));
        const way = kindOf(d.kind).through;
        if (
          d.host !== undefined ||
          !kindOf(d.kind).block ||
          way?.out !== lead.from.jack ||
          kindOf(d.kind).hosts ||
          kindOf(d.kind).job === 'instrument'
        )
          break;
        row.unshift(d.id);
        lead = leadInto(rig, d.id, way.in);
      }
      // Downstream: the first link of each step, through blocks and through loops.
      const seen = new Set<string>();
      for (let at = { device: host, jack: point.id }; ;) {
        const link = rig.leads.find(
          (l) =>
            l.type === 'inside' &&
            l.from.device === at.device &&
            l.from.jack === at.jack &&
            !seen.has(l.id),
        );
        if (!link) break;
        seen.add(link.id);
        if (link.to.device !== host) {
          const d = sure(deviceOf(rig, link.to.device));
          const way = kindOf(d.kind).through;
          if (!way) break;
          row.push(d.id);
          at = { device: d.id, jack: way.out };
          continue;
        }
        const send = kind.jacks.find((j) => j.id === link.to.jack)?.faces;
        if (send?.is !== 'send') break;
        // A device on the loop stands at this place of the path.
        const out = leadFrom(rig, host, send.jack);
        const looped = out && hostLoopOf(rig, out.to.device);
        const back = looped?.ways[0]?.back;
        if (!out || looped?.host !== host || back === undefined) break;
        row.push(out.to.device);
        at = { device: host, jack: innerReturn(back) };
      }
      return row.length ? [{ input, row }] : [];
    });
}

/**
 * What speaks for and against each candidate being outside, read from the sounds, the brief and
 * what it costs.
 */
export function candidateOf(rig: Rig, device: Device, host: string): Candidate {
  const kind = kindOf(device.kind);
  const { slots, percent } = blockCost(device);
  const inside = device.host === host;
  const reasons: string[] = [];
  let outside = 0;
  const add = (points: number, words: string) => {
    outside += points;
    reasons.push(words);
  };
  const on = rig.sounds.map((s) => isEngaged(kind, device, stateIn(s, device.id)));
  if (on.every(Boolean))
    add(POINTS.alwaysOn, 'it is on in every sound, so it needs no program change');
  else if (on.some(Boolean) && on.some((x) => !x))
    add(-POINTS.switched, 'it is switched between sounds');
  const settings = new Set(
    rig.sounds.map((s) => JSON.stringify(stateIn(s, device.id)?.settings ?? {})),
  );
  if (settings.size > 1)
    add(
      -POINTS.differs,
      'its settings change from sound to sound, which a program does inside and hands do outside',
    );
  if (percent >= 10)
    add((percent / 10) * POINTS.perTenPercent, `it costs ${percent} % of the processing`);
  const isOwned = !inside || rig.brief?.gear.some((g) => g.kind === device.kind) === true;
  if (isOwned) add(POINTS.owned, inside ? 'a real one is on hand' : 'it is a real pedal already');
  else add(-POINTS.buy, 'a real one would have to be found');
  return { device: device.id, inside, slots, percent, outsidePoints: outside, reasons };
}

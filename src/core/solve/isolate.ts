import { sure } from '../outcome';
import { Joined } from '../graph';
import { groundLoops, groundTies, isPair, type Tie } from '../analysis/ground';
import { insertFix } from '../findings/insert-fix';
import type { Fix } from '../findings/finding';
import { kindOf } from '../kinds';
import { applyEdits } from '../rig/apply';
import { deviceOf, leadOf, nameOf, outletsOf } from '../rig/find';
import type { Rig, Sound } from '../rig/schema';

/** A place where ground is opened: how, why there, and as edits. */
export interface Cut {
  words: string;
  why: string;
  price: number;
  fix: Fix;
}

/**
 * `pairs` are leads side by side between the same two boxes: tied together they enclose nothing, so
 * they need no cut.
 */
export interface IsolateProposal {
  loopsNow: number;
  loopsThen: number;
  pairs: number;
  cuts: Cut[];
  edits: Fix['edits'];
  left: string[];
}

/**
 * What opening a tie costs: a switch that is there, an isolated outlet that is free, a box to buy.
 * What must never be opened has no price.
 */
const PRICE = { switch: 1, outlet: 3, box: 10, perMetre: 0.02 };

/**
 * The cheapest set of places to open so that no closed way through ground is left: of all ties
 * between chassis a dearest tree is kept, and every other tie is opened. That is exact, because
 * ties that keep a graph free of circles are a matroid. Protective earths are never opened; circles
 * that only speaker leads and earths close are told as left.
 */
export function proposeIsolation(rig: Rig, sound?: Sound): IsolateProposal {
  const between = new Set<string>();
  const single = groundTies(rig, sound).filter((t) => {
    const key = [t.a, t.b].sort().join(' ');
    const isFirst = t.a !== t.b && !(t.kind === 'shield' && between.has(key));
    if (t.kind === 'shield') between.add(key);
    return isFirst;
  });
  const ties = single.map((tie) => ({ tie, cut: cutOf(rig, tie) }));
  const joined = new Joined<string>();
  const cuts: Cut[] = [];
  const left: string[] = [];
  for (const { tie, cut } of ties.sort(
    (x, y) => (y.cut?.price ?? Infinity) - (x.cut?.price ?? Infinity) || 0,
  )) {
    if (!joined.isJoined(tie.a, tie.b)) joined.join(tie.a, tie.b);
    else if (cut) cuts.push(cut);
    else
      left.push(
        `${nameOf(rig, tie.device)} and ${tie.kind === 'earth' ? 'protective earth' : nameOf(rig, tie.other)}`,
      );
  }
  // Two ties may have one cure: a switch opens all that hangs on its output.
  const once = cuts.filter((c, i) => cuts.findIndex((o) => o.words === c.words) === i);
  const edits = renumbered(rig, once);
  const after = applyEdits(rig, edits);
  const loops = (r: Rig) => groundLoops(r, sound && r.sounds.find((s) => s.id === sound.id));
  const real = (r: Rig) => loops(r).filter((l) => !isPair(l)).length;
  return {
    loopsNow: real(rig),
    loopsThen: after.ok ? real(after.value.rig) : NaN,
    pairs: loops(rig).filter(isPair).length,
    cuts: once,
    edits,
    left,
  };
}

function cutOf(rig: Rig, tie: Tie): Cut | undefined {
  if (tie.kind === 'earth') return undefined;
  if (tie.kind === 'supply') {
    const device = sure(deviceOf(rig, tie.device));
    const free = rig.devices.flatMap((d) =>
      (outletsOf(d) ?? [])
        .filter(
          (o) =>
            o.isolated &&
            !rig.devices.some((x) => x.supply?.device === d.id && x.supply.outlet === o.id),
        )
        .map((o) => ({ d, o })),
    )[0];
    return (
      free && {
        words: `Feed ${device.name} from ${free.o.label} of ${free.d.name}`,
        why: 'its return then is its own',
        price: PRICE.outlet,
        fix: {
          words: `Feed ${device.name} from ${free.o.label} of ${free.d.name}`,
          edits: [
            {
              edit: 'setDevice',
              device: device.id,
              supply: { device: free.d.id, outlet: free.o.id },
            },
          ],
        },
      }
    );
  }
  const lead = sure(leadOf(rig, tie.lead!));
  if (lead.type === 'speaker' || lead.type === 'digital') return undefined;
  const from = sure(deviceOf(rig, lead.from.device));
  const lift = kindOf(from.kind).parameters.find(
    (p) => p.type === 'switch' && p.id.toLowerCase() === `isolate${lead.from.jack}`.toLowerCase(),
  );
  if (lift) {
    const words = `Isolate output ${lead.from.jack.toUpperCase()} of ${from.name}`;
    return {
      words,
      why: 'it has a transformer already',
      price: PRICE.switch,
      fix: {
        words,
        edits: [{ edit: 'setSetting', device: from.id, setting: lift.id, value: true }],
      },
    };
  }
  const words = `Put a hum isolator between ${from.name} and ${nameOf(rig, lead.to.device)}`;
  return {
    words,
    why: `nothing on that loop is isolated yet, and this is its longest lead, ${lead.metres} m`,
    price: PRICE.box - PRICE.perMetre * lead.metres,
    fix: insertFix(rig, 'hum-isolator', 'Hum isolator', lead.id, words),
  };
}

/** The edits of several fixes as one list, each new device and lead with an id of its own. */
function renumbered(rig: Rig, cuts: readonly Cut[]): Fix['edits'] {
  const edits: Fix['edits'] = [];
  let at = rig;
  for (const cut of cuts) {
    const [first] = cut.fix.edits;
    const mine =
      first?.edit === 'insertInLead'
        ? insertFix(at, first.device.kind, first.device.name, first.lead, cut.words).edits
        : cut.fix.edits;
    const done = applyEdits(at, mine);
    if (!done.ok) continue;
    at = done.value.rig;
    edits.push(...mine);
  }
  return edits;
}

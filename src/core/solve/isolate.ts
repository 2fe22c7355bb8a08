import { sure } from '../outcome';
import { Joined } from '../graph';
import { groundLoops, groundTies } from '../analysis/ground';
import { isolatorFix, type Tie } from '../analysis/ground-cures';
import { isHarmless, isPair, PATCH_METRES } from '../analysis/ground-remarks';
import { bareSourceOf, buildCircuit, type Circuit } from '../circuit';
import type { Fix } from '../findings/finding';
import { insertFix } from '../findings/insert-fix';
import { kindOf } from '../kinds';
import { FixTrial } from '../report';
import { applyEdits } from '../rig/apply';
import { deviceOf, leadOf, nameOf, outletsOf } from '../rig/find';
import type { Rig, Sound } from '../rig/schema';
import { harmOf, harmWords, withoutHarm } from './harm';

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
  /** What would open a loop and is not proposed, with what it would break. */
  spared: string[];
}

/**
 * What opening a tie costs: a switch that is there, an isolated outlet that is free, a box to buy.
 * What must never be opened has no price.
 */
const PRICE = { switch: 1, outlet: 3, box: 10, perMetre: 0.02 };

/**
 * The cheapest set of places to open so that no closed way through ground is left: of all ties
 * between chassis a dearest tree is kept, and every other tie is opened. That is exact, because
 * ties that keep a graph free of circles are a matroid. Protective earths are never opened; a lead
 * that a bare pickup drives takes a buffer besides; patch leads within one board enclose too little
 * to hum. Circles that only speaker leads, earths and an instrument's own lead close are told as
 * left.
 */
export function proposeIsolation(rig: Rig, sound?: Sound): IsolateProposal {
  const between = new Set<string>();
  const single = groundTies(rig, sound).filter((t) => {
    const key = [t.a, t.b].sort().join(' ');
    const isFirst = t.a !== t.b && !(t.kind === 'shield' && between.has(key));
    if (t.kind === 'shield') between.add(key);
    return isFirst;
  });
  const circuit = buildCircuit(rig, sound);
  const ties = single.map((tie) => {
    const isPatch = isPatchLead(rig, tie);
    return { tie, isPatch, cut: isPatch ? undefined : cutOf(rig, tie, circuit) };
  });
  const joined = new Joined<string>();
  const cuts: Cut[] = [];
  const left: string[] = [];
  for (const { tie, isPatch, cut } of ties.sort(
    (x, y) => (y.cut?.price ?? Infinity) - (x.cut?.price ?? Infinity) || 0,
  )) {
    if (!joined.isJoined(tie.a, tie.b)) joined.join(tie.a, tie.b);
    else if (cut) cuts.push(cut);
    else if (!isPatch)
      left.push(
        `${nameOf(rig, tie.device)} and ${tie.kind === 'earth' ? 'protective earth' : nameOf(rig, tie.other)}`,
      );
  }
  // Two ties may have one cure: a switch opens all that hangs on its output.
  const trial = new FixTrial(rig);
  const { kept, left: harmful } = withoutHarm(
    cuts.filter((c, i) => cuts.findIndex((o) => o.words === c.words) === i),
    (some) => harmOf(trial, renumbered(rig, some)),
  );
  const edits = renumbered(rig, kept);
  const after = applyEdits(rig, edits);
  const loops = (r: Rig) => groundLoops(r, sound && r.sounds.find((s) => s.id === sound.id));
  const real = (r: Rig) => loops(r).filter((l) => !isPair(l) && !isHarmless(r, l)).length;
  return {
    loopsNow: real(rig),
    loopsThen: after.ok ? real(after.value.rig) : NaN,
    pairs: loops(rig).filter(isPair).length,
    cuts: [...kept],
    edits,
    left,
    spared: harmful.map(({ one, breaks }) => `${one.words} would bring ${harmWords(breaks)}`),
  };
}

/** A patch lead within one board: what circles it closes enclose too little to hum. */
function isPatchLead(rig: Rig, tie: Tie): boolean {
  const lead = tie.lead === undefined ? undefined : leadOf(rig, tie.lead);
  const boardOf = (id: string) => deviceOf(rig, id)?.at?.board;
  return (
    lead !== undefined &&
    lead.metres <= PATCH_METRES &&
    boardOf(lead.from.device) === boardOf(lead.to.device)
  );
}

function cutOf(rig: Rig, tie: Tie, circuit: Circuit): Cut | undefined {
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
  const bare = bareSourceOf(circuit, lead);
  const fix = isolatorFix(rig, lead, bare);
  return (
    fix && {
      words: fix.words,
      why: `nothing on that loop is isolated yet, and this is its longest lead, ${lead.metres} m`,
      price: (bare === undefined ? 1 : 2) * PRICE.box - PRICE.perMetre * lead.metres,
      fix,
    }
  );
}

/**
 * The edits of several fixes as one list, each new device and lead with an id of its own. What two
 * fixes put into the same lead, such as a buffer behind the instrument, goes in once.
 */
function renumbered(rig: Rig, cuts: readonly Cut[]): Fix['edits'] {
  const edits: Fix['edits'] = [];
  let at = rig;
  for (const { words, fix } of cuts)
    for (const edit of fix.edits) {
      if (edit.edit === 'insertInLead' && !leadOf(at, edit.lead)) continue;
      const mine =
        edit.edit === 'insertInLead'
          ? insertFix(at, edit.device.kind, edit.device.name, edit.lead, words).edits
          : [edit];
      const done = applyEdits(at, mine);
      if (!done.ok) continue;
      at = done.value.rig;
      edits.push(...mine);
    }
  return edits;
}

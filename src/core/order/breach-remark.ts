import { isMetal } from '../circuit';
import { fixes, type Remark } from '../findings/finding';
import { moveFix } from '../findings/insert-fix';
import { byKey, nearestFirst } from '../graph';
import { byId, leadFrom, leadInto, nameOf } from '../rig/find';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { StationFigures } from '../signal/station-figures';
import { reorderFix } from './reorder-loops';
import { type Breach, type Look, name, type OrderRule } from './look';

/** A breach as a remark, with the move that would cure it. */
export function asRemark(rule: OrderRule, at: Look, breach: Breach): Remark {
  const { rig } = at.evidence.ctx;
  const { other } = breach;
  const reorder =
    other &&
    breach.move &&
    reorderFix(rig, at.evidence.ctx.sound, at.s.device, other.device, breach.move);
  const lead =
    other &&
    breach.move &&
    (breach.move === 'before'
      ? other.ins[0] && leadInto(rig, other.device, other.ins[0])
      : other.outs[0] && leadFrom(rig, other.device, other.outs[0]));
  const words = (where: string) => `Move ${name(at)} ${where}`;
  const nearest =
    breach.fix ??
    (lead
      ? moveFix(
          rig,
          at.s.device,
          lead.id,
          words(`${breach.move ?? ''} ${other ? name(at, other) : ''}`),
        )
      : undefined);
  const further =
    other && breach.move && !breach.fix && at.evidence.wantsFixes
      ? leadsBeyond(at, other, breach.move).map(({ id, from, to }) =>
          moveFix(
            rig,
            at.s.device,
            id,
            words(`between ${nameOf(rig, from.device)} and ${nameOf(rig, to.device)}`),
          ),
        )
      : [];
  return {
    rule: rule.id,
    about: [at.s.device, ...(breach.more ?? [])].join('+'),
    severity: breach.severity ?? 'advice',
    subjects: [at.s.device, ...(breach.more ?? []), ...(other ? [other.device] : [])],
    what: breach.what,
    why: breach.why ?? `${rule.thing}, the usual place: ${rule.main}. The reason: ${rule.why}.`,
    ...fixes([
      ...(breach.fix ? [] : reorder ? [reorder] : []),
      ...(nearest ? [nearest] : []),
      ...(breach.also ? [breach.also] : []),
      ...further,
    ]),
  };
}

/** So many places further on are offered to be tried, the nearest first. */
const FURTHER = 6;

/**
 * Leads further on than the place right beside another device, in the direction of a move: where right
 * beside it the same would be said of the next one, one of them may cure it.
 */
function leadsBeyond(
  { s, evidence: { ctx } }: Look,
  other: StationFigures,
  move: 'before' | 'behind',
) {
  const [near, far] = move === 'behind' ? (['from', 'to'] as const) : (['to', 'from'] as const);
  const next = byKey(
    ctx.rig.leads.filter((l) => isMetal(l) && !CONTROL_LEADS.includes(l.type)).sort(byId),
    (l) => l[near].device,
  );
  const devices = nearestFirst([other.device], (id) =>
    (next.get(id) ?? []).map((l) => l[far].device),
  );
  return [...devices]
    .filter((id) => id !== s.device)
    .flatMap((id) => next.get(id) ?? [])
    .filter((l) => l.from.device !== s.device && l.to.device !== s.device && l.type !== 'speaker')
    .slice(1, 1 + FURTHER);
}

import type { Remark } from '../findings/finding';
import { kindOf } from '../kinds';
import { isEngaged, stateIn } from '../rig/device-state';
import { acts, neighbours } from './neighbours';
import { asRemark } from './breach-remark';
import type { Breach, Ordered, OrderRule } from './look';
import { ORDER_RULES } from './rules';

/** Order advice on one sound, by the stance that the rig takes on each rule. */
export function orderRemarks(evidence: Ordered): Remark[] {
  const { ctx, stations } = evidence;
  const near = neighbours(ctx, stations);
  const stances = ctx.rig.order?.stances ?? {};
  const stanceOf = (r: OrderRule, device: string) =>
    stances[r.id]?.devices?.[device] ??
    stances[r.id]?.stance ??
    (r.quiet ? ('ignore' as const) : ('follow' as const));
  return stations.flatMap((s) => {
    const job = kindOf(ctx.device(s.device).kind).job;
    const isByFoot = s.state !== 'engaged' && job !== 'tuner';
    if (!acts(ctx, s)) return [];
    if (isByFoot && !isOffEverywhere(evidence, s.device)) return [];
    const look = { s, job, before: near.before(s), behind: near.behind(s), evidence, near };
    // Moved past a split, it would serve somebody else: a volume for one ear, an echo for one amp.
    const servesTheSame = ({ move, other }: Breach) =>
      !move || !other || near.destinationsBehind(s) === near.destinationsBehind(other);
    return ORDER_RULES.flatMap((rule) => {
      const stance = stanceOf(rule, s.device);
      if (stance === 'ignore') return [];
      const school = stance === 'other' ? ('other' as const) : ('main' as const);
      return rule
        .look(look, school)
        .filter(servesTheSame)
        .map((b) => {
          // What no sound switches on harms none of them: it is for when a foot does.
          const remark = asRemark(rule, look, isByFoot ? { ...b, severity: 'advice' } : b);
          return school === 'other' && !b.why
            ? { ...remark, why: `${rule.thing}: ${rule.other}. That is the school chosen here.` }
            : remark;
        });
    });
  });
}

/** Whether no sound switches a box on, though it can be: a foot does, in any of them. */
function isOffEverywhere({ ctx: { rig, device } }: Ordered, id: string): boolean {
  const { kind } = device(id);
  return rig.sounds.every((sound) => !isEngaged(kindOf(kind), device(id), stateIn(sound, id)));
}

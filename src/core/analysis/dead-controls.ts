import { pluggedJacks } from '../circuit';
import { resolveState, stateIn } from '../rig/device-state';
import { kindOf, type Pass } from '../kinds';
import type { Remarker } from './evidence';
import { allOf } from '../units';

/**
 * Knobs that do nothing because the signal comes in behind them: an amplifier used as a slave, a
 * pedal used by its return. A knob counts as dead when turning it from end to end changes only
 * stages that no signal reaches.
 */
export const deadControlRemarks: Remarker = ({ ctx, destinations }) => {
  // While something mutes, what lies behind is quiet for that reason.
  if (ctx.stations.some((s) => s.state === 'muted')) return [];
  const routed = new Set(destinations.flatMap((d) => d.route));
  const plugged = pluggedJacks(ctx.rig);
  const done = new Set<string>();
  return ctx.stations.flatMap((s) => {
    if (s.state !== 'engaged' || s.source || done.has(s.device) || !routed.has(s.id)) return [];
    done.add(s.device);
    const device = ctx.device(s.device);
    const kind = kindOf(device.kind);
    const isReached = (p: Pass) => p.is !== 'stage' || ctx.at(device.id, p.from).flows.length > 0;
    const state = stateIn(ctx.sound, device.id);
    const jacks = plugged.get(device.id) ?? new Set<string>();
    const passes = (setting?: string, value?: number) =>
      kind.passes(
        resolveState(
          kind,
          device,
          setting === undefined
            ? state
            : { ...state, settings: { ...state?.settings, [setting]: value! } },
        ),
        (j) => jacks.has(j),
      );
    const stages = passes().filter((p) => p.is === 'stage');
    if (stages.every(isReached) || !stages.some(isReached)) return [];
    // Something in the main input that is only quiet now is another matter.
    if (kind.through && jacks.has(kind.through.in)) return [];
    const dead = kind.parameters.filter((p) => {
      if (p.type !== 'knob') return false;
      const [low, high] = [passes(p.id, p.min), passes(p.id, p.max)];
      return (
        JSON.stringify(low) !== JSON.stringify(high) &&
        JSON.stringify(low.filter(isReached)) === JSON.stringify(high.filter(isReached))
      );
    });
    if (!dead.length) return [];
    return [
      {
        rule: 'dead-controls',
        severity: 'advice' as const,
        subjects: [device.id],
        what:
          `${allOf(dead.map((p) => p.label))} ` +
          `of ${device.name} ${dead.length > 1 ? 'do' : 'does'} nothing here.`,
        why:
          'The signal comes in behind; only what stands after that point still works. ' +
          'That is how it is built, and no fault.',
      },
    ];
  });
};

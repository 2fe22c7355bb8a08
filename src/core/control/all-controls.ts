import { deviceOf } from '../rig/find';
import { kindOf } from '../kinds';
import type { Control, Rig } from '../rig/schema';

/**
 * Every control of a rig: those that were set up, and each pedal that moves a setting of its own
 * device (a volume pedal, a wah), unless something else has been given that setting to move.
 */
export function allControls(rig: Rig): Control[] {
  const own = rig.devices.flatMap((d) =>
    kindOf(d.kind).parameters.flatMap((p): Control[] => {
      if (p.type !== 'knob' || !p.foot || kindOf(d.kind).jacks.some((j) => j.gives)) return [];
      if (rig.controls?.some((c) => c.assigns.some((a) => a.device === d.id && a.setting === p.id)))
        return [];
      return [
        {
          id: `${d.id}-${p.id}`,
          name: d.name,
          type: 'pedal',
          device: d.id,
          assigns: [{ id: 'own', device: d.id, setting: p.id }],
        },
      ];
    }),
  );
  return [...(rig.controls ?? []), ...own];
}

/**
 * Positions that a 7-bit control change can tell apart, and those of a pedal that the device reads
 * itself (10 bits, typical).
 */
export const STEPS = { controlChange: 128, direct: 1024 };

/**
 * In how many steps a control moves a device: a pedal whose lead goes into the device that it moves
 * (or into the host around it) is read finely; over MIDI there are 128. A pedal in the signal moves
 * without steps.
 */
export function stepsOf(rig: Rig, control: Control, device: string): number {
  if (control.device === device) return Infinity;
  const outer = (id: string): string => {
    const host = deviceOf(rig, id)?.host;
    return host === undefined || host === id ? id : outer(host);
  };
  const readers = rig.leads
    .filter((l) => l.type === 'control' && l.from.device === control.device)
    .map((l) => l.to.device);
  const at = outer(device);
  return readers.includes(at) || (control.device !== undefined && outer(control.device) === at)
    ? STEPS.direct
    : STEPS.controlChange;
}

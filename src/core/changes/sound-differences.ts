import { isEngaged, settingOf, stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import { asSet, clockHour } from '../units';
import type { Rig, Sound } from '../rig/schema';

/**
 * What differs on each device from one sound to another, in a few short words: "on, was off",
 * "Drive 3, was 12 o'clock".
 */
export function soundDifferences(rig: Rig, from: Sound, to: Sound): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const device of rig.devices) {
    const kind = kindOf(device.kind);
    const [a, b] = [stateIn(from, device.id), stateIn(to, device.id)];
    const words: string[] = [];
    const [was, is] = [isEngaged(kind, device, a), isEngaged(kind, device, b)];
    const name = kind.stateWords ?? { on: 'on', off: 'off' };
    if (was !== is) words.push(`${is ? name.on : name.off}, was ${is ? name.off : name.on}`);
    for (const p of kind.parameters) {
      const [before, now] = [settingOf(kind, device, a, p.id), settingOf(kind, device, b, p.id)];
      if (before === now) continue;
      const said = (v: typeof now) =>
        p.type === 'knob'
          ? p.unit === undefined
            ? clockHour(Number(v)).replace(" o'clock", '')
            : asSet(Number(v), p.unit)
          : p.type === 'choice'
            ? (p.options.find((o) => o.value === v)?.label ?? String(v))
            : p.type === 'switch'
              ? v === true
                ? 'on'
                : 'off'
              : String(v) || 'none';
      words.push(`${p.label} ${said(now)}, was ${said(before)}`);
    }
    if (words.length) found.set(device.id, words);
  }
  return found;
}

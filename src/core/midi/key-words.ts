import { findKind } from '../kinds';
import { deviceOf, nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import { settingWords } from '../rig/words';
import { type Mismatch, programKey } from './mismatch';

/** What a setting of the bus is called: with its device, where that is not the one it is sent to. */
export function keyName(rig: Rig, device: string, key: string): string {
  const [id = '', setting = ''] = key.split(' ');
  const kind = findKind(deviceOf(rig, id)?.kind ?? '');
  const name =
    key === programKey(device)
      ? 'program'
      : setting === 'engaged'
        ? 'on or off'
        : (kind?.parameters.find((p) => p.id === setting)?.label ?? setting);
  return id === device || id === '' ? name : `${name} of ${nameOf(rig, id)}`;
}

/** A setting that is not as wanted, in words. */
export function keyWords(
  rig: Rig,
  { device, key, wanted, got }: Pick<Mismatch, 'device' | 'key' | 'wanted' | 'got'>,
): string {
  const [id, setting] = key.split(' ') as [string, string];
  const kind = deviceOf(rig, id)?.kind;
  const words = findKind(kind ?? '')?.stateWords ?? { on: 'engaged', off: 'bypassed' };
  const say = (v: typeof wanted | undefined) =>
    v === undefined
      ? 'nothing'
      : key === programKey(device)
        ? `on program ${v}`
        : setting === 'engaged'
          ? v
            ? words.on
            : words.off
          : settingWords(kind, setting, typeof v === 'number' ? Number(v.toFixed(2)) : v);
  const where = id === device ? nameOf(rig, id) : `${nameOf(rig, device)}, ${nameOf(rig, id)}`;
  return `${where} should be ${say(wanted)} and is ${say(got)}`;
}

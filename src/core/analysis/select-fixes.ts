import { passesOf, pluggedJacks } from '../circuit';
import type { Fix } from '../findings/finding';
import { withSetting } from '../control/reach';
import { kindOf, type Pass } from '../kinds';
import { settingOf, stateIn } from '../rig/device-state';
import type { Device } from '../rig/schema';
import { settingWords } from '../rig/words';
import type { SoundContext } from '../signal/sound-context';

/** So many are offered. */
const OFFERED = 3;

/** Ways through a device that are made, neither open nor muted. */
const made = (passes: readonly Pass[]): number =>
  passes.filter((p) => p.is === 'wire' || (p.is === 'stage' && !p.muted)).length;

/**
 * What boxes among some keep shut in this sound by what is selected on them, opened: a splitter that
 * plays to one of two, a switch of inputs.
 */
export function waysOpened(ctx: SoundContext, among: ReadonlySet<string>): Fix[] {
  const plugged = pluggedJacks(ctx.rig);
  return ctx.rig.devices
    .filter((d) => among.has(d.id))
    .flatMap((device) => opened(ctx, device, plugged))
    .slice(0, OFFERED);
}

function opened(
  { rig, sound }: SoundContext,
  device: Device,
  plugged: ReturnType<typeof pluggedJacks>,
): Fix[] {
  const kind = kindOf(device.kind);
  const now = made(passesOf(device, sound, plugged));
  const of = rig.sounds.includes(sound) ? { sound: sound.id } : {};
  return kind.parameters.flatMap((p): Fix[] => {
    if (p.type !== 'choice') return [];
    const selected = settingOf(kind, device, stateIn(sound, device.id), p.id);
    return p.options
      .map((o) => o.value)
      .filter(
        (value) =>
          value !== selected &&
          made(passesOf(device, withSetting(sound, device.id, p.id, value), plugged)) > now,
      )
      .map((value) => ({
        words: `Set ${device.name}, ${settingWords(kind.id, p.id, value)}`,
        edits: [{ edit: 'setSetting', device: device.id, setting: p.id, value, ...of }],
      }));
  });
}

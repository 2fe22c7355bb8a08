import type { Circuit } from './circuit';
import { kindOf, settingWith } from '../kinds';
import { settingOf, stateIn } from '../rig/device-state';
import { deviceOf } from '../rig/find';
import type { Device, End, Rig, Sound } from '../rig/schema';

/** What lives on phantom power, and the inputs that metal joins it to, of those that could feed it. */
export interface PhantomFeed {
  device: Device;
  /** Inputs at microphone level, in the order of the rig; the first of them is the one to feed it. */
  inputs: End[];
}

/** Whether an input is set to microphone level, where phantom power can be switched on. */
export function isMicInput(device: Device, sound?: Sound): boolean {
  const kind = kindOf(device.kind);
  const input = settingWith(kind, 'microphone or line')?.id;
  return input !== undefined && settingOf(kind, device, stateIn(sound, device.id), input) === 'mic';
}

/**
 * Everything that lives on phantom power, with the inputs that can give it: over leads, panels and
 * whatever else is metal from end to end; a transformer or a stage lets none through.
 */
export function phantomFeeds(rig: Rig, circuit: Circuit, sound?: Sound): PhantomFeed[] {
  return rig.devices.flatMap((device): PhantomFeed[] => {
    const kind = kindOf(device.kind);
    if (!kind.phantom) return [];
    const nets = kind.jacks
      .filter((j) => j.connector === 'XLR' && j.direction === 'out')
      .flatMap((j) => circuit.netAt(device.id, j.id) ?? []);
    const inputs = nets
      .flatMap((net) => net.points)
      .filter((p) => {
        const into = deviceOf(rig, p.device);
        return into && into !== device && kindOf(into.kind).destination && isMicInput(into, sound);
      })
      .map((p): End => ({ device: p.device, jack: p.point }));
    const order = rig.devices.map((d) => d.id);
    inputs.sort((a, b) => order.indexOf(a.device) - order.indexOf(b.device));
    return [{ device, inputs }];
  });
}

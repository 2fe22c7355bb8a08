import { at } from '../outcome';
import type { Draft } from 'immer';
import { findKind, isControlJack, type Kind, kindOf } from '../kinds';
import type { Refusal } from './refusal';
import { blocksOf, deviceOf } from './find';
import { type Device, type Rig } from './schema';
import { linkThrough } from './chain-edits';
import { unplugLost } from './power-edits';

/** Jacks that can take one another's place: those for sound on metal, and each other signal by itself. */
const familyOf = (signal: string): string =>
  signal === 'speaker' || signal === 'digital' ? 'audio' : signal;

/** Why a device cannot become another kind, if it cannot. */
function whyNot(rig: Rig, device: Device, kind: Kind): Refusal {
  const hosts = kindOf(device.kind).hosts && blocksOf(rig, device.id).length;
  if (hosts && !kind.hosts)
    return (
      `${device.name} holds ${hosts} blocks, and ${kind.name} is no host. ` + 'Move them out first.'
    );
  if (device.host !== undefined && !kind.block && !kind.hosts)
    return `${kind.name} cannot live inside ${deviceOf(rig, device.host)?.name ?? 'a host'}: it has no block form.`;
  return undefined;
}

/** The jack of a kind that does what a jack of another did: the way through, the same name, the only one. */
function jackInPlace(was: Kind, kind: Kind, id: string, direction: 'in' | 'out') {
  const signal = was.jacks.find((j) => j.id === id)?.signal ?? 'audio';
  const main = direction === 'in' ? kind.through?.in : kind.through?.out;
  const wasMain = direction === 'in' ? was.through?.in : was.through?.out;
  const fits = (j?: string) =>
    kind.jacks.some(
      (x) => x.id === j && x.direction === direction && familyOf(x.signal) === familyOf(signal),
    );
  if (id === wasMain && fits(main)) return main;
  if (fits(id)) return id;
  const only = kind.jacks.filter((j) => j.direction === direction && !isControlJack(j));
  return only.length === 1 && fits(at(only, 0).id) ? at(only, 0).id : undefined;
}

/** Plugs a device's leads into the jacks that its new kind has for them; those without one go. */
function replug(rig: Draft<Rig>, deviceId: string, was: Kind, kind: Kind): void {
  const taken = new Set<string>();
  rig.leads = rig.leads.filter((l) => {
    for (const [end, direction] of [
      [l.to, 'in'],
      [l.from, 'out'],
    ] as const) {
      if (end.device !== deviceId) continue;
      const to = jackInPlace(was, kind, end.jack, direction);
      if (
        !to ||
        (taken.has(to) && l.type !== 'inside' && !kind.jacks.find((j) => j.id === to)?.many)
      )
        return false;
      taken.add(to);
      end.jack = to;
    }
    return true;
  });
}

/** Leaves the settings that mean the same in both kinds: of one type, and knobs of one range. */
function keepSettings(
  settings: Record<string, string | number | boolean> | undefined,
  was: Kind,
  kind: Kind,
): void {
  for (const id of Object.keys(settings ?? {})) {
    const p = kind.parameters.find((x) => x.id === id);
    const old = was.parameters.find((x) => x.id === id);
    if (
      !p ||
      p.type !== old?.type ||
      (p.type === 'knob' && old.type === 'knob' && (p.min !== old.min || p.max !== old.max)) ||
      p.type === 'choice'
    )
      delete settings![id];
  }
}

/** Leaves the figures that the new kind has too, where their values can be believed of it. */
function keepFigures(device: Draft<Device>, kind: Kind): void {
  for (const id of Object.keys(device.figures ?? {})) {
    const f = kind.figures.find((x) => x.id === id);
    const value = device.figures![id]!.value;
    if (!f || value < f.min || value > f.max) delete device.figures![id];
  }
}

/** Turns a device into another kind: name, notes, place, matching settings, figures and leads carry over. */
export function replaceDevice(
  rig: Draft<Rig>,
  deviceId: string,
  kindId: string,
  name?: string,
): Refusal {
  const device = deviceOf(rig, deviceId);
  if (!device) return `There is no device "${deviceId}" any more.`;
  const was = kindOf(device.kind);
  const kind = findKind(kindId);
  if (!kind) return `There is no kind "${kindId}".`;
  const refusal = whyNot(rig, device, kind);
  if (refusal) return refusal;
  if (was.hosts && !kind.hosts)
    rig.leads = rig.leads.filter((l) => l.from.device !== deviceId || l.to.device !== deviceId);
  replug(rig, deviceId, was, kind);
  if (was.size && JSON.stringify(was.size) !== JSON.stringify(kind.size)) delete device.size;
  delete device.jackSpots;
  delete device.gives;
  if (device.units !== undefined && was.rackUnits !== kind.rackUnits) delete device.units;
  if (was.mainsOutlets && !kind.mainsOutlets)
    for (const d of rig.devices) if (d.mains?.from === deviceId) delete d.mains.from;
  device.kind = kindId;
  unplugLost(rig, device);
  if (kind.hosts && !was.hosts) linkThrough(rig, deviceId, kind);
  if (name) device.name = name;
  keepSettings(device.settings, was, kind);
  for (const s of rig.sounds) keepSettings(s.states[deviceId]?.settings, was, kind);
  keepFigures(device, kind);
}

import { at as entryAt, sure } from '../outcome';
import { buildCircuit } from '../circuit';
import { byKey, reachable } from '../graph';
import { resolveState, stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import { copyWith } from '../rig/copies';
import type { Edit } from '../rig/edits';
import { blocksOf, nameOf } from '../rig/find';
import { CONTROL_LEADS, type PromiseOf, type Rig, type Sound } from '../rig/schema';
import { settingWords } from '../rig/words';
import { carriedFrom, destinationsIn } from './carried';
import type { Breach, Ground } from './ground';

/** A source that plays under this, in dBu, is turned down. */
const SILENT_DBU = -100;

/**
 * A way to get sound back: what to do, and how many actions that is. A press is one; pulling a plug
 * and putting it elsewhere is one.
 */
export interface Rescue {
  actions: number;
  words: string;
}

/** A rig in which nothing leaves a device any more, nor what lives inside it. */
function dead(rig: Rig, device: string): Rig {
  let known = deadKnown.get(rig.leads);
  if (known?.devices !== rig.devices)
    deadKnown.set(rig.leads, (known = { devices: rig.devices, leads: new Map() }));
  let leads = known.leads.get(device);
  if (!leads) {
    const inside = new Set([device, ...blocksOf(rig, device).map((d) => d.id)]);
    leads = rig.leads.filter((l) => !inside.has(l.from.device));
    known.leads.set(device, leads);
  }
  return { ...rig, leads };
}

/** What depends on devices and leads alone is kept while those stay, whatever becomes of the sounds. */
const deadKnown = new WeakMap<
  Rig['leads'],
  { devices: Rig['devices']; leads: Map<string, Rig['leads']> }
>();

const heardKnown = new WeakMap<
  Rig['leads'],
  { devices: Rig['devices']; sounds: WeakMap<Sound, Set<string>> }
>();

/**
 * Destinations that any source which is played reaches, remembered while rig and sound stay the same.
 * Ways are followed, levels are not figured.
 */
function heardAt(rig: Rig, sound: Sound): Set<string> {
  let known = heardKnown.get(rig.leads);
  if (known?.devices !== rig.devices)
    heardKnown.set(rig.leads, (known = { devices: rig.devices, sounds: new WeakMap() }));
  let heard = known.sounds.get(sound);
  if (!heard) {
    const circuit = buildCircuit(rig, sound);
    const played = circuit.drivers
      .filter((d) => d.source && d.source.nominalDbu > SILENT_DBU)
      .map((d) => entryAt(circuit.nets, d.net).section);
    heard = destinationsIn(circuit, carriedFrom(circuit, played).sections);
    known.sounds.set(sound, heard);
  }
  return heard;
}

const isHeard = (rig: Rig, sound: Sound, destination: string): boolean =>
  heardAt(rig, sound).has(destination);

/** Devices from which leads lead to a destination, made or not: only there can a press bring it back. */
function onTheWay(rig: Rig, destination: string): Set<string> {
  const into = byKey(
    rig.leads.filter((l) => !CONTROL_LEADS.includes(l.type)),
    (l) => l.to.device,
  );
  return reachable([destination], (at) => (into.get(at) ?? []).map((l) => l.from.device));
}

/**
 * The fewest actions after which a destination hears something though a device is dead: none,
 * another sound, one switch or choice on another device, or the device taken out and its leads
 * joined. Two presses together are not tried.
 */
export function rescue(
  rig: Rig,
  sound: Sound,
  device: string,
  destination: string,
): Rescue | undefined {
  const without = dead(rig, device);
  if (isHeard(without, sound, destination))
    return { actions: 0, words: 'it is heard all the same' };
  for (const other of rig.sounds)
    if (other !== sound && isHeard(without, other, destination))
      return { actions: 1, words: `choose ${other.name}` };
  return knownHere(rig, sound, `${device} ${destination}`, () =>
    rescueHere(rig, sound, device, destination, without),
  );
}

const hereKnown = new WeakMap<
  Rig['leads'],
  { devices: Rig['devices']; sounds: WeakMap<Sound, Map<string, Rescue | undefined>> }
>();

/** An answer that hangs on devices, leads and one sound, kept while those stay. */
function knownHere(
  rig: Rig,
  sound: Sound,
  key: string,
  find: () => Rescue | undefined,
): Rescue | undefined {
  let known = hereKnown.get(rig.leads);
  if (known?.devices !== rig.devices)
    hereKnown.set(rig.leads, (known = { devices: rig.devices, sounds: new WeakMap() }));
  let answers = known.sounds.get(sound);
  if (!answers) known.sounds.set(sound, (answers = new Map<string, Rescue | undefined>()));
  if (!answers.has(key)) answers.set(key, find());
  return answers.get(key);
}

/** The fewest actions in the sound that is on: a switch or a choice, or the device taken out. */
function rescueHere(
  rig: Rig,
  sound: Sound,
  device: string,
  destination: string,
  without: Rig,
): Rescue | undefined {
  const near = onTheWay(without, destination);
  for (const d of rig.devices) {
    if (d.id === device || !near.has(d.id)) continue;
    const kind = kindOf(d.kind);
    const now = resolveState(kind, d, stateIn(sound, d.id));
    for (const p of kind.parameters) {
      const values =
        p.type === 'switch'
          ? [!now.on(p.id)]
          : p.type === 'choice'
            ? p.options.map((o) => o.value).filter((v) => v !== now.choice(p.id))
            : [];
      for (const value of values) {
        const state = stateIn(sound, d.id);
        const pressed = {
          ...sound,
          states: {
            ...sound.states,
            [d.id]: { ...state, settings: { ...state?.settings, [p.id]: value } },
          },
        };
        if (isHeard(without, pressed, destination))
          return { actions: 1, words: `set ${d.name}, ${settingWords(kind.id, p.id, value)}` };
      }
    }
  }
  const edits: Edit[] = [{ edit: 'removeDevice', device }];
  const kind = kindOf(sure(rig.devices.find((d) => d.id === device)).kind);
  const signal = (jack: string | undefined) => kind.jacks.find((j) => j.id === jack)?.signal;
  // Where an amplifier stood, joined leads would put a signal into a speaker.
  const canJoin =
    kind.through !== undefined && signal(kind.through.in) === signal(kind.through.out);
  const out = canJoin ? copyWith(rig, edits) : undefined;
  if (out && isHeard(out, sound, destination))
    return { actions: 2, words: `take ${nameOf(rig, device)} out: pull both plugs and join them` };
  return undefined;
}

/** A destination still hears something within so many actions when a device dies. */
export function survives(
  p: PromiseOf<'survives'>,
  { rig, report }: Ground,
  sounds: readonly Sound[],
): Breach[] {
  return sounds.flatMap((sound) => {
    if (!report(sound.id)?.destinations.some((d) => d.device === p.destination && d.levelDbu))
      return [];
    const found = rescue(rig, sound, p.device, p.destination);
    if (found && found.actions <= p.actions) return [];
    return [
      {
        sound: sound.id,
        why: found
          ? `It takes ${found.actions} actions: ${found.words}.`
          : `No single press, other sound or joined lead brings ${nameOf(rig, p.destination)} back.`,
        subjects: [p.device, p.destination],
      },
    ];
  });
}

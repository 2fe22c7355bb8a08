import { byKey, reachable } from '../graph';
import { resolveState, stateIn } from '../rig/device-state';
import { type Job, kindOf } from '../kinds';
import { blocksOf, leadsFrom, nameOf } from '../rig/find';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { End, Lead, PromiseOf, Rig, Sound } from '../rig/schema';
import { playedOut } from '../rig/played-out';
import { sameButLength } from '../rig/to-the-ear';
import { settingWords } from '../rig/words';
import { heardIn } from './heard';
import type { Breach, Ground } from './ground';

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

let routed: Rig['leads'] = [];

/** The rig with the leads that were asked about last, where its own run the same ways. */
function asRouted(rig: Rig): Rig {
  if (!sameButLength(rig.leads, routed)) routed = rig.leads;
  return routed === rig.leads ? rig : { ...rig, leads: routed };
}

/** What depends on devices and leads alone is kept while those stay, whatever becomes of the sounds. */
const deadKnown = new WeakMap<
  Rig['leads'],
  { devices: Rig['devices']; leads: Map<string, Rig['leads']> }
>();

const isHeard = (rig: Rig, sound: Sound, destination: string): boolean =>
  heardIn(rig, sound).has(destination);

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
 * another sound, one switch or choice on another device, or an instrument plugged straight into an
 * input further on. Two presses together are not tried.
 */
export function rescue(
  asked: Rig,
  sound: Sound,
  device: string,
  destination: string,
): Rescue | undefined {
  const rig = asRouted(asked);
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

/** The fewest actions in the sound that is on: a switch or a choice, or the emergency lead. */
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
  return emergency(rig, sound, destination, { device, without, near });
}

/** How long the emergency lead is, in m. */
const EMERGENCY_METRES = 6;
/** Boxes into which an instrument can be plugged straight. */
const TAKES_INSTRUMENTS: readonly Job[] = ['amp', 'simulator', 'modeler', 'direct'];

/**
 * An instrument that is played, plugged straight into an input further on: one plug is pulled and put
 * elsewhere. Taking a box out and joining its leads is no way to go on in a song, so it is not tried.
 */
function emergency(
  rig: Rig,
  sound: Sound,
  destination: string,
  { device, without, near }: { device: string; without: Rig; near: ReadonlySet<string> },
): Rescue | undefined {
  const instruments = rig.devices.flatMap((d) => {
    const out = d.id === device ? undefined : playedOut(d);
    return out ? [{ device: d.id, jack: out.id }] : [];
  });
  for (const box of rig.devices) {
    const { job, jacks } = kindOf(box.kind);
    if (box.host !== undefined || !near.has(box.id) || !TAKES_INSTRUMENTS.includes(job)) continue;
    const input = jacks.find(
      (j) => j.direction === 'in' && j.signal === 'audio' && !j.inside && j.connector !== 'XLR',
    );
    if (!input || !(leadsFrom(without, box.id).length > 0)) continue;
    const to = { device: box.id, jack: input.id };
    for (const from of instruments) {
      const others = without.leads.filter((l) => !sameEnd(l.from, from) && !sameEnd(l.to, to));
      const lead: Lead = {
        id: 'emergency',
        type: 'instrument',
        metres: EMERGENCY_METRES,
        from,
        to,
      };
      if (isHeard({ ...without, leads: [...others, lead] }, sound, destination))
        return {
          actions: 1,
          words: `plug ${nameOf(rig, from.device)} straight into ${box.name}`,
        };
    }
  }
  return undefined;
}

const sameEnd = (a: End, b: End): boolean => a.device === b.device && a.jack === b.jack;

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
          ? `It takes ${found.actions === 1 ? 'one action' : `${found.actions} actions`}: ${found.words}.`
          : `No single press, other sound or emergency lead brings ${nameOf(rig, p.destination)} back.`,
        subjects: [p.device, p.destination],
      },
    ];
  });
}

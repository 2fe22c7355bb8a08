import { at } from '../outcome';
import { isEngaged } from '../rig/device-state';
import { kindOf } from '../kinds';
import type { Rig, SettingValue, Sound } from '../rig/schema';
import { nameOf } from '../rig/find';
import type { Scene } from '../control/scene';
import { type Change, runChange } from './change';
import { type Mismatch, agree, programMismatch } from './mismatch';
import { type Stage } from './stage';
import { keyWords } from './key-words';
import { copyOf, intentOf, type Machine, soundOf, type Standing, standingIn } from './stand-in';
import { allOf } from '../units';

/**
 * The whole simulated rig: devices that know MIDI, and everything else, which stands as feet and
 * hands left it.
 */
export interface Rehearsal {
  machine: Machine;
  feet: ReadonlyMap<string, SettingValue>;
}

/** Something that does not stand as the scene wants it. */
export type Off = Pick<Mismatch, 'device' | 'key' | 'wanted' | 'got'> & { midi: boolean };

/** Devices that no message reaches: stepped on, turned by hand, or always the same. */
const onFoot = (rig: Rig, stage: Stage): Rig['devices'] => {
  const known = stage.orders.graph.devices;
  const inside = (host: string | undefined): boolean =>
    host !== undefined && (known.has(host) || inside(rig.devices.find((d) => d.id === host)?.host));
  return rig.devices.filter((d) => !known.has(d.id) && !inside(d.host) && d.host === undefined);
};

/** What a scene wants of each device on foot: worked out once a scene. */
const onFootIn = new WeakMap<Scene, Map<string, ReadonlyMap<string, SettingValue>>>();
function feetIntents(rig: Rig, stage: Stage, scene: Scene) {
  let known = onFootIn.get(scene);
  if (!known) {
    known = new Map(onFoot(rig, stage).map((d) => [d.id, intentOf(rig, scene, d.id)]));
    onFootIn.set(scene, known);
  }
  return known;
}

const feetIn = (rig: Rig, stage: Stage, scene: Scene): Map<string, SettingValue> =>
  new Map([...feetIntents(rig, stage, scene).values()].flatMap((intent) => [...intent]));

/** Everything as a scene wants it. */
export const begin = (rig: Rig, stage: Stage, scene: Scene): Rehearsal => ({
  machine: standingIn(stage.orders, stage.memory, scene),
  feet: feetIn(rig, stage, scene),
});

/** Calls a scene by its senders (or by some of them): what it tells changes; what stands on foot stays. */
export function call(
  stage: Stage,
  now: Rehearsal,
  scene: Scene,
  pressed?: readonly string[],
  { bpm, held }: { bpm?: number; held?: boolean } = {},
): { now: Rehearsal; change: Change } {
  const change = runChange(stage, scene, scene, {
    start: now.machine,
    ...(pressed && { pressed }),
    ...(bpm !== undefined && { bpm }),
    ...(held && { held }),
  });
  return { now: { ...now, machine: change.end }, change };
}

/** Steps on a device: it goes on, or off. */
export function stepOn(rig: Rig, now: Rehearsal, device: string): Rehearsal {
  const d = rig.devices.find((x) => x.id === device);
  if (!d || kindOf(d.kind).alwaysOn) return now;
  const key = `${device} engaged`;
  const standing = now.machine.get(device);
  if (standing) {
    const machine = copyOf(now.machine);
    machine.set(device, {
      ...standing,
      values: new Map(standing.values).set(key, standing.values.get(key) !== true),
    });
    return { ...now, machine };
  }
  return { ...now, feet: new Map(now.feet).set(key, now.feet.get(key) !== true) };
}

/** Sets what stands on foot as a scene wants it: every step and turn done. */
export const stepAll = (rig: Rig, stage: Stage, now: Rehearsal, scene: Scene): Rehearsal => ({
  ...now,
  feet: feetIn(rig, stage, scene),
});

const close = (a: SettingValue, b: SettingValue | undefined): boolean =>
  a === b || (typeof a === 'number' && typeof b === 'number' && Math.abs(a - b) < 0.05);

/** Whether a key is of a device that the scene has off: nobody hears where its knobs stand. */
export const isIdle = (intent: ReadonlyMap<string, SettingValue>, key: string): boolean =>
  !key.endsWith(' engaged') && intent.get(`${at(key.split(' '), 0)} engaged`) === false;

/**
 * Everything that does not stand as a scene wants it. Which instrument is played counts too; a knob
 * of a device that is off does not.
 */
export function whatIsOff(rig: Rig, stage: Stage, now: Rehearsal, scene: Scene): Off[] {
  const found: Off[] = [];
  for (const [id, standing] of now.machine) {
    const intent = stage.memory.intent(scene, id);
    const isThere = intent === standing.values;
    for (const { device, key, wanted, got } of programOff(stage, scene, id, standing))
      found.push({ device, key, wanted, got, midi: true });
    for (const [key, wanted] of isThere ? [] : intent) {
      const got = standing.values.get(key);
      if (!isIdle(intent, key) && !agree(rig, key, wanted, got))
        found.push({ device: id, key, wanted, got, midi: true });
    }
  }
  for (const [device, intent] of feetIntents(rig, stage, scene)) {
    for (const [key, wanted] of intent) {
      if (isIdle(intent, key)) continue;
      const got = now.feet.get(key);
      if (!close(wanted, got)) found.push({ device, key, wanted, got, midi: false });
    }
  }
  return found;
}

/** The program that a device stands on, where it is not that of the scene. */
function programOff(stage: Stage, scene: Scene, id: string, standing: Standing): Mismatch[] {
  const m = stage.orders.graph.devices.get(id);
  return m ? programMismatch(scene, m, standing) : [];
}

/** One thing to do to get right again. */
export interface Recovery {
  words: string;
  does: 'call' | 'step';
  device?: string;
}

/**
 * How to get to a scene from wherever the rig stands: calling it where that puts something right,
 * then each step that is left.
 */
export function recovery(rig: Rig, stage: Stage, now: Rehearsal, scene: Scene): Recovery[] {
  const off = whatIsOff(rig, stage, now, scene);
  if (!off.length) return [];
  const called = call(stage, now, scene);
  const left = whatIsOff(rig, stage, called.now, scene);
  const steps: Recovery[] = [];
  if (left.length < off.length)
    steps.push({
      does: 'call',
      words:
        `Call ${scene.name} again ` +
        `on ${allOf(called.change.pressed.map((p) => nameOf(rig, p)))}: it sends ` +
        'everything anew.',
    });
  for (const o of left.length < off.length ? left : off) {
    const toggles = o.key.endsWith(' engaged');
    steps.push({
      does: 'step',
      device: o.device,
      words: `${toggles ? 'Step on' : 'Set'} ${nameOf(rig, o.device)}: ${keyWords(rig, o)}.`,
    });
  }
  return steps;
}

/** The rig as it stands now, as a sound, so that it can be listened to. */
export const soundNow = (now: Rehearsal, scene: Scene): Sound =>
  soundOf(scene, [now.feet, ...[...now.machine.values()].map((s) => s.values)]);

/** Devices that a foot can step on: those that can be switched, outside hosts. */
export const steppable = (rig: Rig): Rig['devices'] =>
  rig.devices.filter(
    (d) =>
      d.host === undefined &&
      !kindOf(d.kind).alwaysOn &&
      !['instrument', 'destination', 'amp'].includes(kindOf(d.kind).job),
  );

/** Whether a device is on in a rehearsal. */
export function isOn(rig: Rig, now: Rehearsal, device: string): boolean {
  const key = `${device} engaged`;
  const value = now.machine.get(device)?.values.get(key) ?? now.feet.get(key);
  const d = rig.devices.find((x) => x.id === device);
  return value === undefined ? d !== undefined && isEngaged(kindOf(d.kind), d) : value === true;
}
